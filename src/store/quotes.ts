import type { Day } from '@/core/calendar/workdays';
import type { DecimalMark } from '@/core/money/decimal';
import type { Knowledge } from '@/core/quotes/rows';
import { loadCostCodes } from './company';
import type { Db } from './connection';

/** What a person settled while bringing a file in. */
export type Choices = {
  /** null as long as nobody has said how decimals are written. */
  readonly mark: DecimalMark | null;
  readonly costCode: Readonly<Record<string, number>>;
  readonly supplier: Readonly<Record<string, number | null>>;
  readonly leftOut: readonly number[];
};

/** What the company knows that a quote file may name. */
export async function loadKnowledge(db: Db, choices: Choices, today: Day): Promise<Knowledge> {
  return {
    costCodes: await loadCostCodes(db),
    suppliers: await db('supplier').select('id', 'name'),
    items: await db('item').select('id', 'number', 'name', 'unit', 'costCodeId', 'supplierId'),
    mark: choices.mark ?? '.',
    today,
    chosen: { costCode: choices.costCode, supplier: choices.supplier },
  };
}
