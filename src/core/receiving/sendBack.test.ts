import { quantity } from '../quantity/quantity';
import { returned, wentFurther, type GoingBack } from './sendBack';

const q = (n: number) => quantity(n * 10_000);
/** 15 m for two jobs, 9 in, 3 rejected at the door. */
const line = {
  ...({ description: 'Tube', kind: 'goods', closedShort: false, invoicesEnded: false, unit: 'MTR' } as const),
  ...{ factor: { many: 1, one: 1 }, ordered: q(15), received: q(9), invoiced: q(0), held: q(0), givenUp: q(0) },
  rejected: q(3),
  splits: [
    { splitId: 1, ordered: q(10), received: q(8) },
    { splitId: 2, ordered: q(5), received: q(1) },
  ],
};
const back = (n: number, from: GoingBack['from'], wants: GoingBack['wants'], of: Partial<typeof line> = {}) => {
  const result = returned({ ...line, ...of }, { quantity: q(n), from, wants });
  return result.ok
    ? result.value.map((g) => [g.splitId, g.quantity / 10_000, g.givenUp / 10_000])
    : result.refusals[0]?.code;
};

describe('what goes back', () => {
  it('is given back first by who needs it last, and wanted again unless it is credited', () => {
    expect(back(3, 'accepted', 'replacement')).toEqual([
      [2, 1, 0],
      [1, 2, 0],
    ]);
    expect(back(1, 'accepted', 'credit')).toEqual([[2, 1, 1]]);
  });

  it('is not wanted any more where rejected goods are credited: who needs it last gives up first', () => {
    expect(back(3, 'rejected', 'credit')).toEqual([[2, 0, 3]]);
    expect(back(3, 'rejected', 'credit', { splits: line.splits.slice(0, 1) })).toEqual([[1, 0, 3]]);
    expect(back(3, 'rejected', 'replacement')).toEqual([]);
  });

  it('is no more than is there, whole where it is counted, and credited where nothing more may come', () => {
    expect(back(10, 'accepted', 'credit')).toBe('return.more');
    expect(back(4, 'rejected', 'credit')).toBe('return.more');
    expect(back(1.5, 'rejected', 'credit', { unit: 'C62' } as never)).toBe('quantity.whole');
    expect(back(1, 'accepted', 'replacement', { closedShort: true } as never)).toBe('return.closed');
    expect(back(1, 'accepted', 'credit', { closedShort: true } as never)).toEqual([[2, 1, 1]]);
  });
});

describe('a receipt of which something went further', () => {
  const came = { held: q(2), rejected: q(1), received: q(4) };
  it.each([
    [came, undefined],
    [{ ...came, held: q(1) }, 'Some Tube was released or rejected since. Reverse that first, then R-1.'],
    [{ ...came, rejected: q(0) }, 'Some Tube was returned since. Reverse that first, then R-1.'],
    [{ ...came, received: q(3) }, 'Some Tube was returned since. Reverse that first, then R-1.'],
    [{ held: q(9), rejected: q(9), received: q(9) }, undefined],
  ])('is not reversed before that', (now, words) => {
    expect(wentFurther('Tube', now, came, 'R-1')?.message).toBe(words);
  });
});
