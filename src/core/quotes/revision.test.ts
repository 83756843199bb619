import { minor } from '../money/money';
import { quantity } from '../quantity/quantity';
import { budgetChange, revisionChanges, type BoughtLine, type RevisedLine } from './revision';

const bought = (id: number, many: number, change: Partial<BoughtLine> = {}): BoughtLine => ({
  id,
  description: `line ${id}`,
  unit: 'MTR',
  quantity: quantity(many),
  neededOn: null,
  ...change,
});
const revised = (
  id: number,
  fromLineId: number | null,
  many: number,
  change: Partial<BoughtLine> = {},
): RevisedLine => ({
  ...bought(id, many, change),
  fromLineId,
});

it('tells what is of another quantity or day, what is new and what is gone, and leaves out what stays', () =>
  expect(
    revisionChanges(
      [bought(1, 5), bought(2, 5), bought(3, 5), bought(4, 5)],
      [
        revised(11, 1, 5),
        revised(12, 2, 6),
        revised(13, 3, 5, { neededOn: '2026-05-01' as never }),
        revised(14, null, 1),
      ],
    ).map((c) => [c.key, c.was?.quantity, c.is?.quantity]),
  ).toEqual([
    ['line 2', 5, 6],
    ['line 3', 5, 5],
    ['new 14', undefined, 1],
    ['line 4', 5, undefined],
  ]));

it('takes a line in another unit for another line', () =>
  expect(revisionChanges([bought(1, 5)], [revised(11, 1, 5, { unit: 'KGM' })]).map((c) => c.key)).toEqual([
    'new 11',
    'line 1',
  ]));

it('moves a budget by what differs', () => {
  const before = new Map([
    [1, minor(500)],
    [2, minor(300)],
    [3, minor(100)],
  ]);
  const after = new Map([
    [1, minor(500)],
    [2, minor(250)],
    [4, minor(70)],
  ]);
  expect([...budgetChange(before, after)]).toEqual([
    [2, -50],
    [3, -100],
    [4, 70],
  ]);
});
