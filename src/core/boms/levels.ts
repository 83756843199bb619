import type { Bom, Boms } from './bom';

const componentsOf = (bom: Bom | undefined): number[] =>
  (bom?.lines ?? []).flatMap((l) => (l.gotBy === 'made' && l.itemId !== null ? [l.itemId] : []));

/**
 * The way by which a bill contains itself, found by going down from it.
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
 * Low-level codes: for each item below a bill that is made in its turn, the lowest level at which it stands anywhere in
 * it. What is worked through by them is met only after everything that takes it.
 * Source: Orlicky, Material Requirements Planning (1975), low-level coding; from memory.
 *
 * @param bom - a bill that contains no loop
 * @returns levels by item, 0 for what the bill makes
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
