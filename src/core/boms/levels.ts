import { addQ, NONE, type Quantity } from '../quantity/quantity';
import type { Bom, BomBranch, Boms } from './bom';

/** The items that a BOM makes in their turn. */
export const componentsOf = (bom: Bom | undefined): number[] =>
  (bom?.lines ?? []).flatMap((l) => (l.gotBy === 'made' && l.itemId !== null ? [l.itemId] : []));

/**
 * The way by which a BOM contains itself, found by going down from it.
 * @returns the items from the first that comes again to where it does, as 4, 7, 4; undefined when there is no loop
 */
export function loopFrom(bom: Bom, boms: Boms): readonly number[] | undefined {
  const down = (itemId: number) => componentsOf(itemId === bom.itemId ? bom : boms.get(itemId));
  const done = new Set<number>();
  const way: number[] = [];
  const onWay = new Set<number>();
  const open: { item: number; left: number[] }[] = [];
  const enter = (item: number) => {
    way.push(item);
    onWay.add(item);
    open.push({ item, left: down(item) });
  };
  enter(bom.itemId);
  for (let at = open.at(-1); at !== undefined; at = open.at(-1)) {
    const next = at.left.shift();
    if (next === undefined) {
      done.add(at.item);
      onWay.delete(at.item);
      way.pop();
      open.pop();
    } else if (onWay.has(next)) return [...way.slice(way.indexOf(next)), next];
    else if (!done.has(next)) enter(next);
  }
  return undefined;
}

/**
 * Low-level codes: for each item below a BOM that is made in its turn, the lowest level at which it stands anywhere in
 * it. What is worked through by them is met only after everything that takes it.
 * Source: Orlicky, Material Requirements Planning (1975), low-level coding; from memory.
 *
 * @param bom - a BOM that contains no loop
 * @returns levels by item, 0 for what the BOM makes
 */
export function lowLevelCodes(bom: Bom, boms: Boms): Map<number, number> {
  const levels = new Map<number, number>([[bom.itemId, 0]]);
  let layer = [bom.itemId];
  for (let level = 1; layer.length > 0; level += 1) {
    layer = [...new Set(layer.flatMap((item) => componentsOf(item === bom.itemId ? bom : boms.get(item))))];
    for (const item of layer) levels.set(item, level);
  }
  return levels;
}

/** A part that is made, with how many of it all branches together take. */
export type MadePart = {
  readonly itemId: number;
  readonly description: string;
  readonly unit: string;
  readonly quantity: Quantity;
};

/**
 * What is made for a batch, each part once with what all its branches take, in an order in which it can be made: parts
 * before what they go into.
 */
export function madeInOrder(bom: Bom, boms: Boms, parts: readonly BomBranch[]): MadePart[] {
  const codes = lowLevelCodes(bom, boms);
  const made = new Map<number, MadePart>();
  for (const { line, quantity: q } of parts) {
    const { gotBy, itemId, description, unit } = line;
    if (gotBy !== 'made' || itemId === null) continue;
    made.set(itemId, { itemId, description, unit, quantity: addQ(made.get(itemId)?.quantity ?? NONE, q) });
  }
  return [...made.values()].sort((a, b) => (codes.get(b.itemId) ?? 0) - (codes.get(a.itemId) ?? 0));
}
