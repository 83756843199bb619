import type { UnitPrice } from '../money/money';
import type { Quantity } from '../quantity/quantity';

/** How a component is had: bought from a supplier, made from a BOM of its own, or the work itself. */
export const GOT_BY = ['bought', 'made', 'labour'] as const;
export type GotBy = (typeof GOT_BY)[number];

export const GOT_BY_NAMES: Readonly<Record<GotBy, string>> = { bought: 'bought', made: 'made', labour: 'labour' };

/** Whether a component is needed for each piece that is made, or once for the whole batch. */
export const PER = ['piece', 'batch'] as const;
export type Per = (typeof PER)[number];

/** From where the days of a component are counted: after the start of the work, or before its end. */
export const OFFSET_FROM = ['start', 'end'] as const;
export type Offset = { readonly days: number; readonly from: (typeof OFFSET_FROM)[number] };

export type BomLine = {
  readonly id: number;
  readonly gotBy: GotBy;
  readonly itemId: number | null;
  readonly description: string;
  readonly quantity: Quantity;
  readonly unit: string;
  readonly per: Per;
  /** What is lost on the way, in hundredths of a percent of what is needed. */
  readonly scrap: number;
  readonly offset: Offset;
  readonly costCodeId: number | null;
  /** The estimate for one, in the company's currency; null to take what the usual supplier asks. */
  readonly price: UnitPrice | null;
};

/** A bill of materials: one version of how an item is made. */
export type Bom = {
  readonly id: number;
  readonly itemId: number;
  /** Working days that making takes. */
  readonly makingDays: number;
  readonly lines: readonly BomLine[];
};

/** The BOMs that hold, by the item that is made. */
export type Boms = ReadonlyMap<number, Bom>;

/** What one branch of a BOM comes to. */
export type BomBranch = {
  /** The branch above it, by its place in the list; undefined for what the BOM itself lists. */
  readonly parent: number | undefined;
  /** 1 for what the BOM itself lists. */
  readonly level: number;
  readonly line: BomLine;
  /** The BOM that it is made by in its turn; undefined for what is bought, for labour, and for a part that has none. */
  readonly bom: Bom | undefined;
  /** For the whole batch, scrap with it, rounded up: to four places, or to whole pieces. */
  readonly quantity: Quantity;
};
