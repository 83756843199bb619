import fc from 'fast-check';
import { fromSupplierUnit, quantity } from '../quantity/quantity';
import { receive, type Arrival } from './receive';
import { giveBack } from './sendBack';

const q = (n: number) => quantity(n * 10_000);
const arrival = (arrives: number, change: Partial<Arrival> = {}): Arrival => ({
  description: 'Tube',
  kind: 'goods',
  closedShort: false,
  invoicesEnded: false,
  invoiced: q(0),
  keepOver: false,
  arrives: q(arrives),
  unit: 'MTR',
  factor: { many: 1, one: 1 },
  ordered: q(15),
  received: q(4),
  held: q(0),
  givenUp: q(0),
  rejected: q(0),
  inspected: false,
  overDelivery: 0,
  splits: [
    { splitId: 1, ordered: q(10), received: q(4) },
    { splitId: 2, ordered: q(5), received: q(0) },
  ],
  ...change,
});
const told = (a: Arrival) => {
  const result = receive(a);
  return result.ok ? result.value.allotted.map((p) => [p.splitId, p.quantity / 10_000]) : result.refusals[0]?.code;
};

describe('receive', () => {
  it.each([
    [3, [[1, 3]]],
    [6, [[1, 6]]],
    [
      8,
      [
        [1, 6],
        [2, 2],
      ],
    ],
    [
      11,
      [
        [1, 6],
        [2, 5],
      ],
    ],
  ] as const)('fills the earliest job first: %d', (n, expected) => expect(told(arrival(n))).toEqual(expected));

  it('asks before it keeps what is over', () => {
    const result = receive(arrival(13));
    expect(result.ok ? '' : result.refusals[0]?.message).toBe(
      '13 of Tube entered, 11 outstanding. Receive 11, or tick Keep the excess for the other 2.',
    );
    expect(told(arrival(13, { keepOver: true }))).toEqual([
      [1, 6],
      [2, 7],
    ]);
  });

  it.each([
    ['zero', arrival(0), 'quantity.low'],
    ['less than zero', arrival(-1), 'quantity.low'],
    ['a service', arrival(1, { kind: 'service' }), 'receive.kind'],
    ['a line closed short', arrival(1, { closedShort: true }), 'receive.closed'],
    ['a line charged to nothing', arrival(1, { splits: [], keepOver: true }), 'receive.split'],
  ] as const)('refuses %s', (_, a, code) => expect(told(a)).toBe(code));

  it('counts in the need’s unit: the first of two reels of 60 m brings 60 m of the 110 that are needed', () => {
    const reels = { unit: 'XRL', factor: { many: 60, one: 1 }, ordered: q(2), received: q(0) };
    const splits = [
      { splitId: 1, ordered: q(110), received: q(0) },
      { splitId: 2, ordered: q(10), received: q(0) },
    ];
    expect(told(arrival(1, { ...reels, splits }))).toEqual([[1, 60]]);
    expect(told(arrival(2, { ...reels, splits }))).toEqual([
      [1, 110],
      [2, 10],
    ]);
    expect(told(arrival(0.5, { ...reels, splits }))).toBe('quantity.whole');
  });

  it('allots what arrives in steps of any size to the same shares as at once', () => {
    const factor = fc.record({ many: fc.integer({ min: 1, max: 2000 }), one: fc.integer({ min: 1, max: 2000 }) });
    const steps = fc.array(fc.integer({ min: 1, max: 300_000 }), { minLength: 1, maxLength: 6 });
    fc.assert(
      fc.property(factor, steps, fc.integer({ min: 1, max: 5 }), (f, all, parts) => {
        const whole = all.reduce((a, b) => a + b, 0);
        const share = fromSupplierUnit(quantity(whole), f);
        fc.pre(share >= parts);
        const even = Math.floor(share / parts);
        const ordered = Array.from({ length: parts }, (_, k) => (k === 0 ? share - even * (parts - 1) : even));
        const came = ordered.map(() => 0);
        let received = 0;
        for (const step of all) {
          const result = receive({
            ...arrival(1, { unit: 'KGM', factor: f, ordered: quantity(whole), received: quantity(received) }),
            arrives: quantity(step),
            splits: ordered.map((o, k) => ({ splitId: k, ordered: quantity(o), received: quantity(came[k] ?? 0) })),
          });
          if (!result.ok) throw new Error(result.refusals[0]?.message);
          result.value.allotted.forEach((a) => (came[a.splitId] = (came[a.splitId] ?? 0) + a.quantity));
          received += step;
        }
        expect(came).toEqual(ordered);
      }),
    );
  });

  it('holds what the line holds, whichever receipts are taken back, and ends at nothing', () => {
    const factor = fc.record({ many: fc.integer({ min: 1, max: 2000 }), one: fc.integer({ min: 1, max: 2000 }) });
    const steps = fc.array(
      fc.record({ came: fc.integer({ min: 1, max: 30_000 }), order: fc.double({ noNaN: true }) }),
      {
        minLength: 1,
        maxLength: 6,
      },
    );
    fc.assert(
      fc.property(factor, steps, (f, all) => {
        const whole = all.reduce((sum, s) => sum + s.came, 0);
        const share = fromSupplierUnit(quantity(whole), f);
        const ordered = [Math.floor(share / 3), Math.floor(share / 3), share - 2 * Math.floor(share / 3)];
        const held = [0, 0, 0];
        let received = 0;
        const brought = all.map(({ came, order }) => {
          const splits = ordered.map((o, k) => ({
            splitId: k,
            ordered: quantity(o),
            received: quantity(held[k] ?? 0),
          }));
          const line = { unit: 'KGM', factor: f, ordered: quantity(whole), received: quantity(received), splits };
          const result = receive({ ...arrival(1, line), arrives: quantity(came) });
          if (!result.ok) throw new Error(result.refusals[0]?.message);
          result.value.allotted.forEach((a) => (held[a.splitId] = (held[a.splitId] ?? 0) + a.quantity));
          received += came;
          return { came, order, parts: result.value.allotted };
        });
        for (const { came, parts } of brought.sort((a, b) => a.order - b.order)) {
          const had = (k: number) => quantity(parts.find((p) => p.splitId === k)?.quantity ?? 0);
          const splits = held.map((h, k) => ({ splitId: k, received: quantity(h), came: had(k) }));
          const of = { factor: f, received: quantity(received), came: quantity(came), splits };
          for (const a of giveBack(of)) held[a.splitId] = (held[a.splitId] ?? 0) - a.quantity;
          received -= came;
          expect(Math.min(...held)).toBeGreaterThanOrEqual(0);
          expect(held.reduce((sum, h) => sum + h, 0)).toBe(fromSupplierUnit(quantity(received), f));
        }
        expect(held).toEqual([0, 0, 0]);
      }),
    );
  });

  it('keeps what is over only when told to', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 50 }), fc.boolean(), (n, keepOver) => {
        const result = receive(arrival(n, { keepOver }));
        expect(result.ok).toBe(keepOver || n <= 11);
        if (result.ok) expect(result.value.allotted.reduce((sum, a) => sum + a.quantity, 0)).toBe(q(n));
      }),
    );
  });
});
