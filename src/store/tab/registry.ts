import type { TabLineKind } from '../tables';
import { invoiceCosts } from './invoiceCosts';
import { issues } from './issues';
import type { TabKind } from './kind';
import { needs } from './needs';
import { splits } from './splits';
import { stockChanges } from './stockChanges';

/**
 * Everything that costs. A new kind of line is one file beside these, and a line here; what moves others comes before them.
 */
export const TAB_KINDS: Readonly<Record<TabLineKind, TabKind>> = {
  split: splits,
  need: needs,
  invoiceCost: invoiceCosts,
  issue: issues,
  stockChange: stockChanges,
};
