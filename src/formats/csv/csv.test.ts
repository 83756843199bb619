import { decodeText } from './decode';
import { LIMITS } from '@/core/limits';
import { readCsv } from './read';

const bytes = (text: string) => new TextEncoder().encode(text);
const latin = (text: string) => Uint8Array.from(text, (c) => (c === '€' ? 0x80 : c === '’' ? 0x92 : c.charCodeAt(0)));
const rows = (file: Uint8Array) => {
  const read = readCsv(file);
  return read.ok ? read.value.rows.map((r) => [r.row, ...r.cells]) : read.refusals[0]?.code;
};
const sheet = (file: Uint8Array) => {
  const read = readCsv(file);
  if (!read.ok) throw new Error(read.refusals[0]?.message);
  return read.value;
};

describe('the encoding of a file', () => {
  it.each([
    ['UTF-8', bytes('Rör,Ø 12'), 'UTF-8', 'Rör,Ø 12'],
    ['UTF-8 with a byte order mark', Uint8Array.of(0xef, 0xbb, 0xbf, ...bytes('a,b')), 'UTF-8', 'a,b'],
    ['Windows-1252', latin('Rör,€ 12,skipper’s'), 'Windows-1252', 'Rör,€ 12,skipper’s'],
    ['UTF-16', Uint8Array.of(0xff, 0xfe, 0x61, 0, 0x2c, 0, 0x62, 0), 'UTF-16', 'a,b'],
  ] as const)('%s', (_, file, encoding, text) =>
    expect(decodeText(file)).toEqual({ ok: true, value: { encoding, text } }),
  );

  it.each([
    ['an empty file', new Uint8Array(), 'file.empty'],
    ['a picture named .csv', Uint8Array.of(0x89, 0x50, 0x4e, 0x47, 1, 2), 'file.notText'],
    ['a workbook', Uint8Array.of(0x50, 0x4b, 3, 4), 'file.notText'],
    ['a PDF', bytes('%PDF-1.7'), 'file.notText'],
    ['a binary file', Uint8Array.of(65, 0, 66), 'file.notText'],
  ] as const)('refuses %s', (_, file, code) => {
    const read = decodeText(file);
    expect(read.ok ? 'taken' : read.refusals[0]?.code).toBe(code);
  });
});

/** RFC 4180, Common Format and MIME Type for CSV Files, section 2: rules 1 to 7 (rule numbers from memory). */
describe('RFC 4180', () => {
  it.each([
    [
      'rules 1 and 2: line breaks, with or without one at the end',
      'a,b\r\nc,d\r\ne,f',
      [
        [2, 'c', 'd'],
        [3, 'e', 'f'],
      ],
    ],
    ['rule 4: spaces belong to a field', 'a,b\r\nc , d', [[2, 'c ', ' d']]],
    ['rule 6: quoted commas and line breaks', 'a,b\r\n"x, y","two\r\nlines"', [[2, 'x, y', 'two\r\nlines']]],
    ['rule 7: doubled quotation marks', 'a,b\r\n"5"" pipe",z', [[2, '5" pipe', 'z']]],
  ] as const)('%s', (_, text, expected) => expect(rows(bytes(text))).toEqual(expected));
});

describe('files as people send them', () => {
  it.each([
    [';', 'semicolons'],
    ['\t', 'tabs'],
    ['|', 'bars'],
  ])('finds %j between columns', (mark) => expect(sheet(bytes(`a${mark}b\nc${mark}d\n`)).delimiter).toBe(mark));
  it('finds a decimal comma', () =>
    expect([
      sheet(bytes('q;p\n2;14,60\n3;1.250,00\n')).mark,
      sheet(bytes('q,p\n2,14.60\n3,"1,250.00"\n')).mark,
    ]).toEqual([',', '.']));
  it('counts rows as a spreadsheet does and passes over blank ones', () =>
    expect(rows(bytes('a,b\n\n1,2\n,\n3,4\n'))).toEqual([
      [3, '1', '2'],
      [5, '3', '4'],
    ]));
  it('names a column without a heading', () =>
    expect(sheet(bytes('a,,c\n1,2,3')).headings).toEqual(['a', 'Column 2', 'c']));
  it.each([
    ['only headings', 'a,b\n', 'file.noRows'],
    ['only blanks', ' \n \n', 'file.empty'],
    ['a quotation mark that is not closed', 'a,b\n"x,y\n1,2', 'file.quotes'],
  ])('refuses %s', (_, text, code) => expect(rows(bytes(text))).toBe(code));
  it('refuses a file that is too large', () =>
    expect(rows(new Uint8Array(LIMITS.file + 1).fill(65))).toBe('file.large'));
  it('reads 20,000 rows', () => expect(sheet(bytes(`a,b\n${'x,1\n'.repeat(20_000)}`)).rows).toHaveLength(20_000));
});

describe('how decimals are written', () => {
  const mark = (...cells: string[]) => sheet(bytes(['Qty;Cost', ...cells].join('\n'))).mark;
  it('is known from a number that can be read in one way only', () => {
    expect(mark('1,250;12,50')).toBe(',');
    expect(mark('1,250;12.50')).toBe('.');
    expect(mark('4;12')).toBe('.');
  });

  it('is left to a person when every number can be read in two', () => expect(mark('1,250;2,500')).toBeNull());
});
