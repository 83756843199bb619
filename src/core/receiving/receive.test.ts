import fc from 'fast-check';
import { quantity } from '../quantity/quantity';
import { outstanding, receive, type Arrival } from './receive';

const q = (n: number) => quantity(n * 10_000);
const arrival = (arrives: number, change: Partial<Arrival> = {}): Arrival => ({
  description: 'Tube',
  kind: 'goods',
  closedShort: false,
  keepOver: false,
  arrives: q(arrives),
  splits: [
    { splitId: 1, ordered: q(10), received: q(4) },
    { splitId: 2, ordered: q(5), received: q(0) },
  ],
  ...change,
});
const told = (a: Arrival) => {
  const result = receive(a);
  return result.ok ? result.value.map((p) => [p.splitId, p.quantity / 10_000]) : result.refusals[0]?.code;
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
      '13 of Tube arrive, but only 11 are still due. Take in 11, or say that the 2 over stay here.',
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

  it('allots exactly what arrives, and no more than is due unless told to keep it', () => {
    const splits = fc.array(
      fc.record({ ordered: fc.integer({ min: 1, max: 1e6 }), received: fc.integer({ min: 0, max: 1.2e6 }) }),
      { minLength: 1, maxLength: 6 },
    );
    fc.assert(
      fc.property(splits, fc.integer({ min: 1, max: 5e6 }), fc.boolean(), (all, n, keepOver) => {
        const own = all.map((s, k) => ({ splitId: k, ordered: quantity(s.ordered), received: quantity(s.received) }));
        const result = receive({
          description: 'x',
          kind: 'goods',
          closedShort: false,
          splits: own,
          arrives: quantity(n),
          keepOver,
        });
        const due = outstanding(own);
        expect(result.ok).toBe(keepOver || n <= due);
        if (result.ok) expect(result.value.reduce((sum, a) => sum + a.quantity, 0)).toBe(n);
      }),
    );
  });
});
