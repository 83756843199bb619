import Graph from 'graphology';
import { topologicalGenerations } from 'graphology-dag';
import fc from 'fast-check';
import { lusolve, matrix, identity, subtract, type Matrix } from 'mathjs';
import type { Day } from '../calendar/workdays';
import { netting } from '../planning/netting';
import { quantity, SAME_UNIT, type Quantity } from '../quantity/quantity';
import type { Bom, BomLine, Boms } from './bom';
import { explode } from './explode';
import { lowLevelCodes } from './levels';

const q = (n: number): Quantity => quantity(Math.round(n * 10_000));
const line = (itemId: number, per: number, gotBy: BomLine['gotBy'] = 'made', scrap = 0): BomLine => ({
  id: 0,
  gotBy,
  itemId,
  description: String(itemId),
  quantity: q(per),
  unit: 'KGM',
  per: 'piece',
  scrap,
  offset: { days: 0, from: 'start' },
  costCodeId: null,
  price: null,
});

type Structure = Readonly<Record<number, readonly (readonly [component: number, per: number])[]>>;

const bomsOf = (structure: Structure): Boms =>
  new Map(
    Object.entries(structure).map(([item, parts]): [number, Bom] => [
      Number(item),
      {
        id: Number(item),
        itemId: Number(item),
        makingDays: 0,
        lines: parts.map(([component, per]) => line(component, per, component in structure ? 'made' : 'bought')),
      },
    ]),
  );

/** What all branches of an item come to together. */
function grossOf(structure: Structure, top: number, batch: number): Map<number, number> {
  const boms = bomsOf(structure);
  const result = explode(boms.get(top) as Bom, q(batch), boms);
  if (!result.ok) throw new Error(JSON.stringify(result.refusals));
  const sums = new Map<number, number>();
  for (const { line: l, quantity: n } of result.value)
    sums.set(l.itemId ?? 0, (sums.get(l.itemId ?? 0) ?? 0) + n / 10_000);
  return sums;
}

/**
 * The product structure tree of Heizer and Render, Operations Management, chapter on material requirements planning:
 * 50 of item A, of 2 B and 3 C; B of 2 D and 2 E; C of 2 E and 2 F; F of 2 D and 1 G. From memory.
 */
describe('a textbook’s product structure (Heizer and Render, from memory)', () => {
  const [A, B, C, D, E, F, G] = [1, 2, 3, 4, 5, 6, 7];
  const structure: Structure = {
    [A]: [
      [B, 2],
      [C, 3],
    ],
    [B]: [
      [D, 2],
      [E, 2],
    ],
    [C]: [
      [E, 2],
      [F, 2],
    ],
    [F]: [
      [D, 2],
      [G, 1],
    ],
  };
  it('takes 100 B, 150 C, 800 D, 500 E, 300 F and 300 G for 50 A', () =>
    expect([...grossOf(structure, A, 50)].sort((a, b) => a[0] - b[0])).toEqual([
      [B, 100],
      [C, 150],
      [D, 800],
      [E, 500],
      [F, 300],
      [G, 300],
    ]));
  it('has D at its lowest level', () => {
    const boms = bomsOf(structure);
    expect([...lowLevelCodes(boms.get(A) as Bom, boms)]).toEqual([
      [A, 0],
      [B, 1],
      [C, 1],
      [F, 2],
    ]);
  });
});

/** Random structures without a loop: each item is made of items of higher numbers only; the last few are bought. */
const structures = fc
  .record({
    size: fc.integer({ min: 4, max: 14 }),
    links: fc.array(fc.record({ from: fc.nat(13), to: fc.nat(13), per: fc.constantFrom(0.25, 0.5, 1, 1.5, 2, 3) }), {
      minLength: 4,
      maxLength: 30,
    }),
  })
  .map(({ size, links }): Structure => {
    const found: Record<number, [number, number][]> = { 0: [[1, 1]] };
    for (const { from, to, per } of links) {
      const [a, b] = [from % size, to % size];
      if (a >= b) continue;
      found[a] = [...(found[a] ?? []), [b, per]];
    }
    return found;
  });

/**
 * The same BOM as a linear system: with the quantities per in a matrix N, what a demand d takes of every item is the x
 * that solves (I − N)x = d, as in Vazsonyi, Scientific Programming in Business and Industry (1958); solved by mathjs.
 */
describe('a BOM as a linear system (mathjs)', () => {
  it('comes to the same, whatever the structure', () =>
    fc.assert(
      fc.property(structures, fc.integer({ min: 1, max: 40 }), (structure, batch) => {
        const size = 14;
        const per = Array.from({ length: size }, () => Array.from({ length: size }, () => 0));
        for (const [item, parts] of Object.entries(structure))
          for (const [component, n] of parts) {
            const row = per[component] as number[];
            row[Number(item)] = (row[Number(item)] ?? 0) + n;
          }
        const demand = Array.from({ length: size }, (_, k) => (k === 0 ? batch : 0));
        const solved = lusolve(subtract(identity(size) as Matrix, matrix(per)) as Matrix, demand) as Matrix;
        const told = grossOf(structure, 0, batch);
        for (let item = 1; item < size; item += 1)
          expect(told.get(item) ?? 0).toBeCloseTo(Number(solved.get([item, 0])), 2);
      }),
    ));
});

describe('low-level codes, against the generations of a graph library (graphology-dag)', () => {
  it('are the generation from the top, whatever the structure', () =>
    fc.assert(
      fc.property(structures, (structure) => {
        const boms = bomsOf(structure);
        const graph = new Graph({ type: 'directed' });
        const reached = new Set<number>([0]);
        const open = [0];
        for (let item = open.pop(); item !== undefined; item = open.pop())
          for (const [component] of structure[item] ?? [])
            if (!reached.has(component)) {
              reached.add(component);
              open.push(component);
            }
        reached.forEach((item) => graph.addNode(item));
        for (const item of reached) for (const [component] of structure[item] ?? []) graph.mergeEdge(item, component);
        const generations = topologicalGenerations(graph);
        const codes = lowLevelCodes(boms.get(0) as Bom, boms);
        generations.forEach((items, level) =>
          items.filter((i) => Number(i) in structure).forEach((i) => expect(codes.get(Number(i))).toBe(level)),
        );
      }),
    ));
});

/**
 * Time-phased netting: gross requirements of 50, 100 and 80 in weeks 2, 4 and 6 against 70 on hand and a scheduled
 * receipt of 60 in week 3 leave net requirements of 0, 20 and 80: the worked form of an MRP record, as textbooks have it
 * (Orlicky 1975; from memory).
 */
describe('netting', () => {
  const week = (n: number) => `2026-06-${String(n * 4).padStart(2, '0')}` as Day;
  const need = (needId: number, open: number, by: Day | null, jobId = 1) => ({
    needId,
    itemId: 1,
    jobId,
    by,
    open: q(open),
    factor: SAME_UNIT,
  });
  const onHand = (free: number) => ({
    source: { kind: 'stock' as const, placeId: 1, jobId: null },
    itemId: 1,
    free: q(free),
  });
  const receipt = (free: number, on: Day | null) => ({
    source: { kind: 'coming' as const, splitId: 1, on },
    itemId: 1,
    free: q(free),
  });
  const nets = (needs: ReturnType<typeof need>[], supplies: Parameters<typeof netting>[1]) => {
    const covers = netting(needs, supplies);
    return needs.map(
      (n) => (n.open - covers.filter((c) => c.needId === n.needId).reduce((sum, c) => sum + c.share, 0)) / 10_000,
    );
  };
  it('follows the record of an item through its weeks', () =>
    expect(
      nets([need(1, 50, week(2)), need(2, 100, week(4)), need(3, 80, week(6))], [onHand(70), receipt(60, week(3))]),
    ).toEqual([0, 20, 80]));
  it('does not count a receipt for what is needed before it', () => {
    expect(nets([need(1, 50, week(2))], [receipt(60, week(3))])).toEqual([50]);
    expect(nets([need(1, 50, week(2))], [receipt(60, null)])).toEqual([50]);
    expect(nets([need(1, 50, null)], [receipt(60, null)])).toEqual([0]);
  });
  it('never takes more than there is, nor covers more than is wanted, nor another job’s own', () =>
    fc.assert(
      fc.property(
        fc.array(
          fc.record({
            open: fc.integer({ min: 1, max: 90 }),
            by: fc.integer({ min: 1, max: 7 }),
            job: fc.integer({ min: 1, max: 3 }),
          }),
          { minLength: 1, maxLength: 12 },
        ),
        fc.array(
          fc.record({
            free: fc.integer({ min: 1, max: 90 }),
            on: fc.integer({ min: 1, max: 7 }),
            job: fc.integer({ min: 0, max: 3 }),
            coming: fc.boolean(),
          }),
          { maxLength: 8 },
        ),
        (wanted, there) => {
          const needs = wanted.map((w, k) => need(k, w.open, week(w.by), w.job));
          const supplies = there.map((s, k) => ({
            itemId: 1,
            free: q(s.free),
            source: s.coming
              ? { kind: 'coming' as const, splitId: k, on: week(s.on) }
              : { kind: 'stock' as const, placeId: k, jobId: s.job === 0 ? null : s.job },
          }));
          const covers = netting(needs, supplies);
          for (const n of needs) {
            const own = covers.filter((c) => c.needId === n.needId);
            expect(own.reduce((sum, c) => sum + c.share, 0)).toBeLessThanOrEqual(n.open);
            for (const { source } of own) {
              if (source.kind === 'coming') expect((source.on ?? '') <= (n.by ?? '~')).toBe(true);
              else expect([null, n.jobId]).toContain(source.jobId);
            }
          }
          for (const s of supplies)
            expect(
              covers.filter((c) => c.source === s.source).reduce((sum, c) => sum + c.quantity, 0),
            ).toBeLessThanOrEqual(s.free);
        },
      ),
    ));
});
