import type { Choice } from '@/queries/frame/choices';
import { copied, type EntryColumn } from './column';
import { below, nextFilled, step, type Shape } from './moves';
import { moved, nextNew, put } from './rows';
import { layOut, meaningsOf, putRow, readPasted, wordsOf } from './paste';

type Row = {
  part: string;
  partId: number | null;
  quantity: string;
  code: Choice | null;
  codeWords: string;
  day: string;
};
const EMPTY: Row = { part: '', partId: null, quantity: '1', code: null, codeWords: '', day: '' };
const thing = (id: number, number: string, name: string): Choice => ({ id, number, name, detail: '' });
const CODES = [thing(3, '03', 'Electrical'), thing(4, '04', 'Paint')];

const columns: EntryColumn<Row>[] = [
  {
    key: 'part',
    title: 'Part',
    width: '1fr',
    entry: {
      kind: 'pick',
      of: 'item',
      free: true,
      heads: /part|desc/i,
      text: (r) => r.part,
      put: (r, part) => ({ ...r, part }),
      thing: (r) => (r.partId === null ? null : { id: r.partId, number: '', name: r.part }),
      take: (r, t) => ({ ...r, part: t?.name ?? '', partId: t?.id ?? null, quantity: '10' }),
    },
  },
  { key: 'shown', title: 'Shown', width: '1fr', show: (r) => r.part },
  {
    key: 'quantity',
    title: 'Quantity',
    width: '1fr',
    entry: { kind: 'number', heads: /^qty/i, text: (r) => r.quantity, put: (r, quantity) => ({ ...r, quantity }) },
  },
  {
    key: 'code',
    title: 'Cost code',
    width: '1fr',
    entry: {
      kind: 'pick',
      of: () => CODES,
      heads: /code/i,
      text: (r) => r.code?.name ?? r.codeWords,
      put: (r, codeWords) => ({ ...r, code: null, codeWords }),
      thing: (r) => r.code,
      take: (r, code) => ({ ...r, code, codeWords: '' }),
    },
  },
  {
    key: 'day',
    title: 'Required by',
    width: '1fr',
    entry: { kind: 'day', heads: /want/i, text: (r) => r.day, put: (r, day) => ({ ...r, day }) },
  },
];

const lookUp = (kind: string, words: readonly string[]) =>
  Promise.resolve(words.map((w) => (kind === 'item' && w === 'T-1' ? thing(9, 'T-1', 'Tube') : null)));

async function paste(text: string, from = 'part', row = EMPTY): Promise<Row[]> {
  const laid = layOut(readPasted(text), columns, from);
  const meanings = await meaningsOf(wordsOf(laid, columns), columns, lookUp);
  return laid.rows.map((cells) => putRow(row, cells, laid, columns, meanings, (day) => `day ${day}`));
}

describe('rows pasted from a spreadsheet', () => {
  it('are read with line breaks and marks in their cells', () =>
    expect(readPasted('a\t"two\nlines"\r\nb\t"6"" pipe"\r\n')).toEqual([
      ['a', 'two lines'],
      ['b', '6" pipe'],
    ]));

  it('go to the columns that their headings name, in any order', async () =>
    expect(await paste('Code\tnotes\tQty\tPart no.\n03\tx\t4\tT-1')).toEqual([
      { ...EMPTY, part: 'Tube', partId: 9, quantity: '4', code: CODES[0] },
    ]));

  it('without headings go on from the cell they are pasted into, past what is only looked at', async () =>
    expect(await paste('5\tPaint\t15 May', 'quantity')).toEqual([
      { ...EMPTY, quantity: '5', code: CODES[1], day: 'day 15 May' },
    ]));

  it('keep words that stand for nothing as they were written', async () =>
    expect(await paste('Bilge pump\t\t77')).toEqual([{ ...EMPTY, part: 'Bilge pump', codeWords: '77' }]));

  it('leave alone what an empty cell is pasted over', async () =>
    expect(await paste('\t\t03', 'part', { ...EMPTY, part: 'Pump', quantity: '7' })).toEqual([
      { ...EMPTY, part: 'Pump', quantity: '7', code: CODES[0] },
    ]));

  it('take one word for no heading', async () =>
    expect((await paste('Part\tfoo')).map((r) => [r.part, r.quantity])).toEqual([['Part', 'foo']]));

  it('drop what lies beyond the last column', async () =>
    expect(await paste('15 May\tx\ty', 'day')).toEqual([{ ...EMPTY, day: 'day 15 May' }]));
});

describe('moving about a sheet', () => {
  // Column 1 is only looked at; row 2 has nothing to fill in.
  const shape: Shape = { rows: 4, cols: 3, fills: ({ row, col }) => col !== 1 && row !== 2 };
  it.each([
    ['ArrowDown', false, { row: 1, col: 0 }, { row: 2, col: 0 }],
    ['ArrowUp', false, { row: 0, col: 2 }, { row: 0, col: 2 }],
    ['ArrowRight', false, { row: 1, col: 2 }, { row: 1, col: 2 }],
    ['Home', false, { row: 3, col: 2 }, { row: 3, col: 0 }],
    ['End', true, { row: 0, col: 0 }, { row: 3, col: 2 }],
    ['x', false, { row: 0, col: 0 }, undefined],
  ] as const)('%s (far: %s) from %j', (key, far, from, to) => expect(step(shape, from, key, far)).toEqual(to));

  it('Tab goes to what is filled in, over rows that are not', () => {
    expect(nextFilled(shape, { row: 0, col: 0 }, 1)).toEqual({ row: 0, col: 2 });
    expect(nextFilled(shape, { row: 1, col: 2 }, 1)).toEqual({ row: 3, col: 0 });
    expect(nextFilled(shape, { row: 3, col: 0 }, -1)).toEqual({ row: 1, col: 2 });
  });
  it('Tab leaves the sheet behind its last cell and before its first', () => {
    expect(nextFilled(shape, { row: 3, col: 2 }, 1)).toBeUndefined();
    expect(nextFilled(shape, { row: 0, col: 0 }, -1)).toBeUndefined();
  });
  it('Enter goes on below', () => {
    expect(below(shape, { row: 1, col: 2 })).toEqual({ row: 3, col: 2 });
    expect(below(shape, { row: 3, col: 2 })).toBeUndefined();
  });
});

it('a ditto mark brings a thing along, or its words', () => {
  const [part, , quantity, code] = columns;
  const above = { ...EMPTY, part: 'Tube', partId: 9, quantity: '3', codeWords: '77' };
  expect(copied(part as never, above, EMPTY)).toMatchObject({ part: 'Tube', partId: 9 });
  expect(copied(quantity as never, above, EMPTY)).toEqual({ ...EMPTY, quantity: '3' });
  expect(copied(code as never, above, EMPTY)).toEqual({ ...EMPTY, codeWords: '77' });
});

describe('the rows of a sheet', () => {
  const rows = [
    { key: 'line 7', text: 'a' },
    { key: 'new 4', text: 'b' },
    { key: 'line 9', text: 'c' },
  ];
  const texts = (of: readonly { text: string }[]) => of.map((r) => r.text).join('');
  it('have keys of their own', () => expect([nextNew([]), nextNew(rows)]).toEqual([0, 5]));
  it.each([
    ['line 7', 'line 9', 'bca'],
    ['line 9', 'line 7', 'cab'],
    ['new 4', 'new 4', 'abc'],
    ['line 7', 'line 8', 'abc'],
    ['line 8', 'line 7', 'abc'],
  ])('moved from %s to %s', (key, to, read) => expect(texts(moved(rows, key, to))).toBe(read));
  const blank = () => ({ key: '', text: '' });
  const typed = (text: string) => (r: (typeof rows)[number]) => ({ ...r, text });
  it('are changed, and begun by the first change to the blank one', () => {
    expect(texts(put(rows, 'new 4', typed('x'), blank))).toBe('axc');
    expect(put(rows, 'new 5', typed('y'), blank).at(-1)).toEqual({ key: 'new 5', text: 'y' });
    expect(put(rows, 'new 5', typed(''), blank)).toBe(rows);
  });
});
