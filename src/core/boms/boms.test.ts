import fc from 'fast-check';
import type { Calendar, Day } from '../calendar/workdays';
import { minor, type UnitPrice } from '../money/money';
import { quantity, type Quantity } from '../quantity/quantity';
import type { Bom, BomLine, Boms } from './bom';
import { rollUp } from './cost';
import { datesOf, spanOf } from './dates';
import { explode } from './explode';
import { loopFrom, madeInOrder } from './levels';

const q = (n: number): Quantity => quantity(Math.round(n * 10_000));
let ids = 0;

const line = (itemId: number | null, n: number, change: Partial<BomLine> = {}): BomLine => ({
  id: (ids += 1),
  gotBy: 'bought',
  itemId,
  description: `Part ${itemId}`,
  quantity: q(n),
  unit: 'MTR',
  per: 'piece',
  scrap: 0,
  offset: { days: 0, from: 'start' },
  costCodeId: null,
  price: null,
  ...change,
});
const made = (itemId: number, n: number, change: Partial<BomLine> = {}) =>
  line(itemId, n, { gotBy: 'made', unit: 'C62', ...change });
const bom = (itemId: number, lines: readonly BomLine[], makingDays = 0): Bom => ({
  id: itemId,
  itemId,
  makingDays,
  lines,
});
const bomsOf = (...all: readonly Bom[]): Boms => new Map(all.map((b) => [b.itemId, b]));

function parts(top: Bom, n: number, boms: Boms = new Map()) {
  const result = explode(top, q(n), boms);
  if (!result.ok) throw new Error(JSON.stringify(result.refusals));
  return result.value;
}
const told = (top: Bom, n: number, boms?: Boms) => parts(top, n, boms).map((p) => [p.level, p.line.itemId, p.quantity]);

describe('a BOM worked out', () => {
  // 10 ladders of 2 stringers, each of 2.4 m tube with 3 % lost: 48 m, 49.44 m with what is lost.
  const stringer = bom(2, [line(3, 2.4, { scrap: 300 })]);
  const ladder = bom(1, [made(2, 2), line(4, 6, { unit: 'C62' })]);

  it('goes down all levels, with what is lost', () =>
    expect(told(ladder, 10, bomsOf(stringer))).toEqual([
      [1, 2, q(20)],
      [2, 3, q(49.44)],
      [1, 4, q(60)],
    ]));
  it('takes what is needed for the batch once', () =>
    expect(told(bom(1, [line(3, 5, { per: 'batch' }), line(4, 2)]), 10)).toEqual([
      [1, 3, q(5)],
      [1, 4, q(20)],
    ]));
  it('rounds pieces up, and takes their parts as they are', () => {
    const top = bom(1, [made(2, 1, { scrap: 300 })]);
    expect(told(top, 10, bomsOf(bom(2, [line(3, 1)])))).toEqual([
      [1, 2, q(11)],
      [2, 3, q(10.3)],
    ]);
  });
  it('keeps the same part of several branches apart', () => {
    const top = bom(1, [made(2, 1), made(5, 3)]);
    const boms = bomsOf(bom(2, [line(3, 2)]), bom(5, [line(3, 0.5)]));
    expect(parts(top, 4, boms).map((p) => [p.parent, p.line.itemId, p.quantity])).toEqual([
      [undefined, 2, q(4)],
      [0, 3, q(8)],
      [undefined, 5, q(12)],
      [2, 3, q(6)],
    ]);
  });
  it('says what is made in an order in which it can be', () => {
    const top = bom(1, [made(5, 1), made(2, 1)]);
    const boms = bomsOf(bom(2, [made(3, 2)]), bom(3, [line(9, 1)]), bom(5, [made(3, 1), line(9, 1)]));
    const order = madeInOrder(top, boms, parts(top, 10, boms));
    expect(order.map((m) => [m.itemId, m.quantity])).toEqual([
      [3, q(30)],
      [5, q(10)],
      [2, q(10)],
    ]);
  });
  it('takes labour along, and a made part without a BOM as it is', () => {
    const labour = line(null, 3, { gotBy: 'labour', unit: 'HUR' });
    expect(told(bom(1, [labour, made(9, 2)]), 10)).toEqual([
      [1, null, q(30)],
      [1, 9, q(20)],
    ]);
  });
  it('refuses a BOM that contains itself, and shows its way', () => {
    const boms = bomsOf(bom(2, [made(3, 1)]), bom(3, [made(4, 1), made(2, 1)]), bom(4, [line(8, 1)]));
    const top = bom(1, [line(9, 1), made(2, 1)]);
    expect(loopFrom(top, boms)).toEqual([2, 3, 2]);
    expect(explode(top, q(1), boms)).toMatchObject({ ok: false, refusals: [{ code: 'bom.loop' }] });
    expect(loopFrom(bom(1, [made(1, 1)]), new Map())).toEqual([1, 1]);
    expect(loopFrom(top, bomsOf(bom(2, [made(4, 1), made(3, 1)]), bom(3, [made(4, 1)]), bom(4, [])))).toBeUndefined();
  });
  it('goes down 12 levels, and 3,000', () => {
    const chain = (depth: number) =>
      bomsOf(...Array.from({ length: depth }, (_, k) => bom(k + 2, k + 1 < depth ? [made(k + 3, 2)] : [line(0, 1)])));
    const deep = parts(bom(1, [made(2, 1)]), 1, chain(12));
    expect([deep.length, deep.at(-1)?.level, deep.at(-1)?.quantity]).toEqual([13, 13, q(2 ** 11)]);
    const flat = bomsOf(
      ...Array.from({ length: 3000 }, (_, k) => bom(k + 2, k < 2999 ? [made(k + 3, 1)] : [line(0, 1)])),
    );
    expect(parts(bom(1, [made(2, 1)]), 1, flat)).toHaveLength(3001);
  });
  it('refuses what is more than can be kept', () => {
    const grows = bomsOf(...Array.from({ length: 12 }, (_, k) => bom(k + 2, [made(k + 3, 1000)])));
    expect(explode(bom(1, [made(2, 1000)]), q(1), grows)).toMatchObject({ refusals: [{ code: 'bom.quantity' }] });
    const wide = bomsOf(
      ...[2, 3, 4, 5, 6].map((k) =>
        bom(
          k,
          Array.from({ length: 10 }, () => made(k + 1, 1)),
        ),
      ),
    );
    expect(explode(bom(1, [made(2, 1)]), q(1), wide)).toMatchObject({ refusals: [{ code: 'bom.large' }] });
  });

  it('grows evenly with the batch where nothing is needed once', () => {
    const arbitrary = fc.record({
      per: fc.array(fc.integer({ min: 1, max: 90_000 }), { minLength: 3, maxLength: 3 }),
      scrap: fc.integer({ min: 0, max: 40 }).map((n) => n * 100),
      batch: fc.integer({ min: 1, max: 400 }),
      times: fc.integer({ min: 2, max: 9 }),
    });
    fc.assert(
      fc.property(arbitrary, ({ per: [a = 1, b = 1, c = 1], scrap, batch, times }) => {
        const boms = bomsOf(
          bom(2, [line(3, 0, { quantity: quantity(b), scrap }), line(4, 0, { quantity: quantity(c) })]),
        );
        const top = bom(1, [line(2, 0, { gotBy: 'made', quantity: quantity(a) })]);
        const [once, more] = [parts(top, batch, boms), parts(top, batch * times, boms)];
        once.forEach((p, k) => {
          // Rounded up to a ten-thousandth, each by itself.
          const apart = p.quantity * times - (more[k]?.quantity ?? 0);
          expect(apart >= 0 && apart < times).toBe(true);
        });
      }),
    );
  });
});

describe('the days of its parts', () => {
  const week: Calendar = { week: new Set([1, 2, 3, 4, 5]), off: new Set(['2026-06-03']) };
  const day = (d: string) => d as Day;

  it('count from the start of the work that takes them, or back from its end', () => {
    const stringer = bom(2, [line(3, 1), line(4, 1, { offset: { days: 1, from: 'end' } })], 4);
    const ladder = bom(1, [
      made(2, 1, { offset: { days: 3, from: 'end' } }),
      line(5, 1, { offset: { days: 2, from: 'start' } }),
    ]);
    const all = parts(ladder, 1, bomsOf(stringer));
    expect(datesOf(all, { startsOn: day('2026-06-01'), endsOn: day('2026-06-12') }, week)).toEqual([
      { neededOn: '2026-06-09', startsOn: '2026-06-02' },
      { neededOn: '2026-06-02', startsOn: null },
      { neededOn: '2026-06-08', startsOn: null },
      // 3 June is off.
      { neededOn: '2026-06-04', startsOn: null },
    ]);
  });
  it('follow from the making time where only one end is known', () => {
    expect(spanOf({ startsOn: day('2026-06-01'), endsOn: null }, 3, week)).toMatchObject({ endsOn: '2026-06-05' });
    expect(spanOf({ startsOn: null, endsOn: day('2026-06-05') }, 3, week)).toMatchObject({ startsOn: '2026-06-01' });
    expect(datesOf(parts(bom(1, [line(3, 1)]), 1), { startsOn: null, endsOn: null }, week)).toEqual([
      { neededOn: null, startsOn: null },
    ]);
  });
});

describe('what it costs', () => {
  const stringer = bom(2, [
    line(3, 2.4),
    line(null, 0.5, { gotBy: 'labour', unit: 'HUR', price: 400_000 as UnitPrice }),
  ]);
  const top = bom(1, [made(2, 2), line(4, 6)]);
  const price = (found: Record<number, number>) => (l: BomLine) =>
    l.price ?? (found[l.itemId ?? 0] as UnitPrice | undefined);

  it('rolls up from the lowest level', () => {
    const { parts: costs, whole } = rollUp(parts(top, 10, bomsOf(stringer)), price({ 3: 85_000, 4: 12_500 }), 'GBP');
    // 20 stringers: 48 m at 8.50 and 10 h at 40.00; 60 at 1.25.
    expect(costs.map((c) => c.amount)).toEqual([80_800, 40_800, 40_000, 7500].map(minor));
    expect(whole).toEqual({ amount: 88_300, partly: false });
  });
  it('says when something in it has no price', () => {
    const { parts: costs, whole } = rollUp(parts(top, 1, bomsOf(stringer)), price({ 4: 10_000 }), 'GBP');
    expect(costs.map((c) => c.partly)).toEqual([true, true, false, false]);
    expect(whole).toEqual({ amount: 4000 + 600, partly: true });
  });
});
