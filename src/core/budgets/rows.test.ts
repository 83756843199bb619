import { minor, type Minor } from '../money/money';
import { readBudget, type Known } from './rows';

const known: Known = {
  codes: [
    { id: 1, code: '01', name: 'Hull' },
    { id: 2, code: '02', name: 'Machinery' },
    { id: 3, code: '03', name: 'Electrical' },
  ],
  budgets: new Map<number, Minor>([
    [1, minor(10_000)],
    [2, minor(5000)],
  ]),
  contingency: minor(2000),
  mark: '.',
  currency: 'GBP',
};
const read = (headings: string[], rows: string[][], change: Partial<Known> = {}) =>
  readBudget(
    headings,
    rows.map((cells, k) => ({ row: k + 2, cells })),
    { ...known, ...change },
  );

describe('a file of a budget', () => {
  it('is read as what each cost code is to come to: by how much it moves is worked out', () => {
    const rows = [
      ['01', 'Hull', '150.00'],
      ['02', 'Machinery', '50'],
      ['3', 'Electrical', '12.50'],
      ['', 'Contingency', '0'],
    ];
    expect(read(['Cost code', 'Name', 'Budget GBP'], rows)).toEqual({
      ok: true,
      value: {
        lines: [
          { costCodeId: 1, amount: 5000 },
          { costCodeId: null, amount: -2000 },
        ],
        left: [{ row: 4, message: 'Cost code “3” doesn’t exist. Choose one of the company’s codes.' }],
      },
    });
  });

  it('is read as changes where it has no budgets', () => {
    const read2 = read(
      ['Cost code', 'Plus or minus'],
      [
        ['02 Machinery', '-12.00'],
        ['hull', '1,000.00'],
      ],
    );
    expect(read2).toMatchObject({
      value: {
        lines: [
          { costCodeId: 2, amount: -1200 },
          { costCodeId: 1, amount: 100_000 },
        ],
        left: [],
      },
    });
  });

  it.each([
    ['no cost code', ['', '5'], 'Enter a cost code.'],
    ['a cost code that is not there', ['77', '5'], 'Cost code “77” doesn’t exist. Choose one of the company’s codes.'],
    ['no amount', ['01', ''], '“” isn’t an amount. Type it like 1250.00.'],
    ['words for an amount', ['01', 'much'], '“much” isn’t an amount. Type it like 1250.00.'],
    ['more decimals than the currency has', ['01', '1.005'], '“1.005” isn’t an amount. Type it like 1250.00.'],
    ['a budget below zero', ['01', '-1'], 'Enter 0 or more.'],
    [
      'an amount that is too large',
      ['01', '9'.repeat(20)],
      `“${'9'.repeat(20)}” isn’t an amount. Type it like 1250.00.`,
    ],
  ])('leaves a row out with %s, and says why', (_, row, message) =>
    expect(read(['Cost code', 'Budget'], [row])).toMatchObject({ value: { lines: [], left: [{ row: 2, message }] } }),
  );

  it('leaves the second row of a cost code out', () =>
    expect(
      read(
        ['Cost code', 'Budget'],
        [
          ['01', '5'],
          ['Hull', '6'],
        ],
      ),
    ).toMatchObject({
      value: { lines: [{ amount: -9500 }], left: [{ row: 3, message: 'Hull is already in row 2.' }] },
    }));

  it('reads amounts by the file’s mark, and by what the currency has of decimals', () => {
    expect(read(['Cost code', 'Budget'], [['01', '1.250,50']], { mark: ',' })).toMatchObject({
      value: { lines: [{ amount: 115_050 }] },
    });
    expect(read(['Cost code', 'Budget'], [['03', '1250']], { currency: 'JPY' })).toMatchObject({
      value: { lines: [{ amount: 1250 }] },
    });
    expect(read(['Cost code', 'Budget'], [['03', '1.250']], { currency: 'KWD' })).toMatchObject({
      value: { lines: [{ amount: 1250 }] },
    });
  });

  it.each([[['Name']], [['Code', 'Note']], [['Budget']], [[]]])('is refused with the columns %j', (headings) =>
    expect(read(headings, [])).toMatchObject({ ok: false, refusals: [{ code: 'budget.columns' }] }),
  );
});
