import fc from 'fast-check';
import type { Day } from '../calendar/workdays';
import { minor, type UnitPrice } from '../money/money';
import { quantity } from '../quantity/quantity';
import { guessMapping, missingFields } from './fields';
import { readRows, type Knowledge } from './rows';
import { budgetOf, win } from './winning';

const known: Knowledge = {
  costCodes: [
    { id: 1, code: '01', name: 'Hull and structure' },
    { id: 2, code: '02', name: 'Machinery' },
  ],
  suppliers: [{ id: 5, name: 'Pellam Bearings' }],
  items: [{ id: 9, number: 'BE-6208', name: 'Ball bearing 6208 2RS', unit: 'C62', costCodeId: 2, supplierId: 5 }],
  mark: '.',
  today: '2026-05-12' as Day,
  chosen: { costCode: {}, supplier: {}, unit: {} },
};
const mapping = {
  item: 0,
  description: 1,
  quantity: 2,
  unit: 3,
  cost: 4,
  price: 5,
  costCode: 6,
  supplier: 7,
  neededOn: 8,
  kind: 9,
  markup: 10,
  optional: 11,
  per: 12,
};
const good = ['', 'Shaft', '2', 'm', '45.50', '60', '02', 'Pellam Bearings', '2026-05-27', 'bought', '', '', ''];
const cellsWith = (change: Readonly<Record<number, string>>) => good.map((c, k) => change[k] ?? c);
const check = (change: Readonly<Record<number, string>>, knowledge = known) =>
  readRows([{ row: 2, cells: cellsWith(change) }], mapping, knowledge);
const messages = (change: Readonly<Record<number, string>>, knowledge = known) =>
  check(change, knowledge).problems.map((p) => `${p.weight} ${p.field}: ${p.message}`);

describe('rows of a quote file', () => {
  it('reads a good row', () =>
    expect(check({})).toEqual({
      problems: [],
      lines: [
        {
          row: 2,
          kind: 'bought',
          itemId: null,
          description: 'Shaft',
          quantity: 20_000,
          unit: 'MTR',
          cost: 455_000,
          price: 600_000,
          costCodeId: 2,
          supplierId: 5,
          neededOn: '2026-05-27',
          markup: null,
          optional: false,
          per: 'piece',
        },
      ],
    }));

  it('reads a mark-up, what is optional and what is had once', () => {
    const [line] = check({ 5: '', 10: '25 %', 11: 'yes', 12: 'once' }).lines;
    expect(line).toMatchObject({ price: null, markup: 2500, optional: true, per: 'batch' });
    expect(check({ 5: '56.875', 10: '25' }).lines[0]).toMatchObject({ price: 568_750, markup: 2500 });
    // A price that is another than its mark-up gives stands for itself.
    expect(check({ 5: '60', 10: '25' }).lines[0]).toMatchObject({ price: 600_000, markup: null });
    expect(messages({ 10: '-101', 11: 'perhaps', 12: 'twice' })).toEqual([
      'stop markup: Mark-up % “-101”: Enter 0 or more.',
      'stop optional: Optional “perhaps”: it isn’t one of the allowed words.',
      'stop per: Charged each or once “twice”: it isn’t one of the allowed words.',
    ]);
  });

  it('takes what is left out from the item', () => {
    const { lines } = check({ 0: 'be-6208', 1: '', 3: '', 6: '', 7: '' });
    expect(lines[0]).toMatchObject({
      itemId: 9,
      description: 'Ball bearing 6208 2RS',
      unit: 'C62',
      costCodeId: 2,
      supplierId: 5,
    });
  });

  it.each([
    ['no quantity', { 2: '' }, 'stop quantity: Quantity is missing.'],
    ['a negative quantity', { 2: '-2' }, 'stop quantity: Quantity “-2”: Enter a quantity above zero.'],
    ['zero', { 2: '0' }, 'stop quantity: Quantity “0”: Enter a quantity above zero.'],
    ['too many decimals', { 2: '2.12345' }, 'stop quantity: Quantity “2.12345”: “2.12345” has more than 4 decimals.'],
    [
      'an absurd number',
      { 2: '900000000' },
      'stop quantity: Quantity “900000000”: “900000000” is too large: the most is 10,000,000.',
    ],
    ['words for a number', { 4: 'about ten' }, 'stop cost: Unit cost “about ten”: “about ten” isn’t a number.'],
    ['a cost below zero', { 4: '-1' }, 'stop cost: Unit cost “-1”: Enter 0 or more.'],
    [
      'a decimal comma where points are used',
      { 4: '45,5' },
      'stop cost: Unit cost “45,5”: “45,5” is ambiguous: use “.” for decimals.',
    ],
    [
      'half a piece',
      { 2: '2.5', 3: 'pcs' },
      'stop quantity: Shaft: a piece can’t be divided. Enter a whole number, not 2.5.',
    ],
    [
      'an unknown unit',
      { 3: 'furlong' },
      'stop unit: “furlong” isn’t a unit in use. Type one like m, kg, h, piece or sheet.',
    ],
    [
      'another unit than the item’s',
      { 0: 'BE-6208', 3: 'kg' },
      'stop unit: BE-6208 is held in pieces; kilograms can’t be converted. Enter it in pieces.',
    ],
    [
      'an unknown cost code',
      { 6: '77' },
      'stop costCode: Cost code “77” doesn’t exist. Choose one of the company’s codes.',
    ],
    ['no cost code', { 6: '' }, 'stop costCode: Enter a cost code.'],
    [
      'an unknown supplier',
      { 7: 'Unknown Works' },
      'stop supplier: Supplier “Unknown Works” doesn’t exist. Choose one, or leave it empty.',
    ],
    [
      'a day that is none',
      { 8: '31/02/2026' },
      'stop neededOn: “31/02/2026” isn’t a date. Type it like 2026-03-31 or 31/03/2026.',
    ],
    ['a date that has passed', { 8: '01/05/2026' }, 'care neededOn: The needed-by date has passed.'],
    ['an unknown item', { 0: 'XX-1' }, 'care item: Item XX-1 isn’t in your items. The line is imported as text.'],
    [
      'an unknown kind',
      { 9: 'magic' },
      'stop kind: “magic” isn’t a line type. Enter bought, allowance, made, labour or free issue.',
    ],
    ['neither item nor words', { 0: '', 1: '' }, 'stop description: Enter an item number or a description.'],
  ] as const)('tells of %s', (_, change, message) => expect(messages(change)).toContain(message));

  it('tells all that is wrong with a row at once, and takes no line from it', () => {
    const { lines, problems } = check({ 2: '-1', 4: 'x', 6: '77' });
    expect(lines).toEqual([]);
    expect(problems.map((p) => p.field)).toEqual(['quantity', 'cost', 'costCode']);
  });

  it('reads cost codes as people write them', () =>
    expect(['2', '02', 'machinery', '02 Machinery'].map((c) => check({ 6: c }).lines[0]?.costCodeId)).toEqual([
      2, 2, 2, 2,
    ]));
  it.each(['27/05/2026', '27.5.2026', '27-05-2026', '27 May 2026', '27/05/26', '2026-05-27'])(
    'reads the day %s',
    (day) => expect(check({ 8: day }).lines[0]?.neededOn).toBe('2026-05-27'),
  );
  it('reads decimal commas when told to', () =>
    expect(check({ 2: '1,5', 4: '1.045,50', 5: '' }, { ...known, mark: ',' }).lines[0]).toMatchObject({
      quantity: 15_000,
      cost: 10_455_000,
      price: null,
    }));

  it('takes what was chosen for unknown names', () => {
    const chosen = { costCode: { '77': 1 }, supplier: { 'Unknown Works': null }, unit: {} };
    expect(check({ 6: '77', 7: 'Unknown Works' }, { ...known, chosen }).lines[0]).toMatchObject({
      costCodeId: 1,
      supplierId: null,
    });
  });

  it.each(['constructor', '__proto__', 'toString'])('takes “%s” for a name like any other', (name) => {
    expect(messages({ 6: name })).toEqual([
      `stop costCode: Cost code “${name}” doesn’t exist. Choose one of the company’s codes.`,
    ]);
    expect(messages({ 7: name })[0]).toContain(`Supplier “${name}” doesn’t exist.`);
    const chosen = { costCode: Object.fromEntries([[name, 2]]), supplier: Object.fromEntries([[name, 5]]), unit: {} };
    expect(check({ 6: name, 7: name }, { ...known, chosen }).lines[0]).toMatchObject({ costCodeId: 2, supplierId: 5 });
  });

  it('does not take an empty cell for the cost code 00', () => {
    const knowledge = { ...known, costCodes: [...known.costCodes, { id: 3, code: '00', name: 'Preliminaries' }] };
    expect(messages({ 6: '' }, knowledge)).toEqual(['stop costCode: Enter a cost code.']);
    expect(check({ 6: '00' }, knowledge).lines[0]?.costCodeId).toBe(3);
  });

  it('notices a line that stands twice', () => {
    const { lines, problems } = readRows(
      [2, 3].map((row) => ({ row, cells: good })),
      mapping,
      known,
    );
    expect(lines).toHaveLength(2);
    expect(problems).toEqual([
      {
        row: 3,
        field: 'description',
        weight: 'care',
        message: 'The same as row 2. Skip it if it was entered twice by mistake.',
      },
    ]);
  });

  it('never throws, whatever stands in the cells', () => {
    fc.assert(
      fc.property(
        fc.array(fc.oneof(fc.string(), fc.constantFrom('=cmd|calc', '1e400', '٣', '‮', '0x1F', '-0')), {
          minLength: 0,
          maxLength: 12,
        }),
        (cells) => {
          const { lines, problems } = readRows([{ row: 2, cells }], mapping, known);
          expect(lines.length === 1 || problems.some((p) => p.weight === 'stop')).toBe(true);
        },
      ),
    );
  });
});

describe('columns', () => {
  it('are guessed from their headings', () => {
    expect(
      guessMapping(['Part', 'Description', 'Qty', 'UoM', 'Our cost', 'Sell', 'Cost code', 'Vendor', 'Needed by']),
    ).toEqual({
      item: 0,
      description: 1,
      quantity: 2,
      unit: 3,
      cost: 4,
      price: 5,
      costCode: 6,
      supplier: 7,
      neededOn: 8,
    });
    expect(
      guessMapping([
        'Item no.',
        'Text',
        'Quantity',
        'Unit',
        'Cost',
        'Customer price',
        'Cost code',
        'Supplier',
        'Date',
        'Type',
      ]),
    ).toMatchObject({ item: 0, description: 1, cost: 4, price: 5, costCode: 6, kind: 9 });
    expect(guessMapping(['foo', 'bar'])).toEqual({});
  });
  it('that are missing are named', () => {
    expect(missingFields({})).toEqual(['Item number or description', 'Quantity', 'Unit cost', 'Cost code']);
    expect(missingFields({ description: 0, quantity: 1, cost: 2, costCode: 3 })).toEqual([]);
  });
});

describe('winning a quote', () => {
  const line = (kind: 'bought' | 'allowance' | 'made' | 'labour', cost: number, costCodeId: number) => ({
    kind,
    quantity: quantity(20_000),
    cost: cost as UnitPrice,
    costCodeId,
    tax: null,
  });
  it('opens the budget with the cost side of what is bought or allowed', () =>
    expect([
      ...budgetOf(
        [
          line('bought', 10_000, 1),
          line('allowance', 5000, 1),
          line('labour', 99_999, 1),
          line('made', 1, 2),
          line('bought', 25_000, 2),
        ],
        'GBP',
      ),
    ]).toEqual([
      [1, minor(300)],
      [2, minor(500)],
    ]));

  it('opens it with the tax that cannot be recovered, for which a job pays like for the rest', () => {
    const tax = { rate: 2000, recoverable: 5000 };
    expect([...budgetOf([{ ...line('bought', 10_000, 1), tax }, line('bought', 10_000, 1)], 'GBP')]).toEqual([
      [1, minor(420)],
    ]);
  });
  it.each([
    ['writing', 3, 'Hester Lowe', 'won'],
    ['withCustomer', 3, 'Hester Lowe', 'won'],
    ['won', 3, 'x', 'quote.won'],
    ['lost', 3, 'x', 'quote.lost'],
    ['writing', 0, 'x', 'quote.empty'],
    ['writing', 3, ' ', 'quote.who'],
  ] as const)('from %s with %d lines by “%s”: %s', (state, lines, by, expected) => {
    const result = win({ state, lines }, by);
    expect(result.ok ? result.value : result.refusals[0]?.code).toBe(expected);
  });
});
