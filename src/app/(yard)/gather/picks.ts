import { parseQuantity } from '@/core/quantity/quantity';

/** Picked lines, by need: the quantity to buy as it is typed. */
export type Picks = Readonly<Record<number, string>>;

/** By supplier, the draft that its lines join, or 0 for a new order. */
export type Joins = Readonly<Record<number, number>>;

/** What is bought for stores beside, by item: from whom, and how many as it is typed. */
export type StockPicks = Readonly<
  Record<number, { readonly supplierId: number; readonly name: string; readonly text: string }>
>;

export const toStock = (stock: StockPicks) =>
  Object.entries(stock).flatMap(([itemId, { supplierId, text }]) => {
    const read = parseQuantity(text);
    return read.ok ? [{ itemId: Number(itemId), supplierId, quantity: read.value }] : [];
  });

export const toPicks = (picks: Picks) =>
  Object.entries(picks).flatMap(([id, text]) => {
    const read = parseQuantity(text);
    return read.ok ? [{ needId: Number(id), buy: read.value }] : [];
  });
