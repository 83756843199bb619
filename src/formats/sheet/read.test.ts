import JSZip from 'jszip';
import { writeXlsx } from './xlsx';
import { readSheet } from './read';

const bytes = (text: string) => new TextEncoder().encode(text);
const code = async (file: Uint8Array) => {
  const read = await readSheet(file);
  return read.ok ? 'read' : read.refusals[0]?.code;
};

type Row = { readonly what: string; readonly many: number; readonly on: string };
const workbook = (rows: readonly Row[]) =>
  writeXlsx<Row>(
    'Lines',
    [
      { head: 'Description', cell: (r) => ({ text: r.what }) },
      { head: 'Qty', cell: (r) => ({ scaled: r.many, places: 2 }) },
      { head: 'Needed', cell: (r) => ({ day: r.on as never }) },
    ],
    rows,
  );

describe('a sheet that is brought in', () => {
  it('is the same from a workbook as from a CSV file', async () => {
    const fromCsv = await readSheet(bytes('Description,Qty,Needed\nTube 38 × 2,12.5,2026-06-01\nBar,3,2026-06-02'));
    const fromXlsx = await readSheet(
      await workbook([
        { what: 'Tube 38 × 2', many: 1250, on: '2026-06-01' },
        { what: 'Bar', many: 300, on: '2026-06-02' },
      ]),
    );
    if (!fromCsv.ok || !fromXlsx.ok) throw new Error('One of them cannot be read.');
    expect(fromXlsx.value.headings).toEqual(fromCsv.value.headings);
    expect(fromXlsx.value.rows).toEqual(fromCsv.value.rows);
    expect(fromXlsx.value).toMatchObject({ encoding: 'XLSX', mark: '.' });
  });
  it('is refused where it is no workbook, or a broken one', async () => {
    const whole = await workbook([{ what: 'Tube', many: 100, on: '2026-06-01' }]);
    expect(await code(whole.subarray(0, whole.length / 2))).toBe('file.workbook');
    expect(await code(bytes('PK\u0003\u0004 and nothing else'))).toBe('file.workbook');
    expect(await code(await workbook([]))).toBe('file.noRows');
    expect(await code(new Uint8Array())).toBe('file.empty');
  });
  it('is read from an archive whose sizes stand after its files, as some programs write them', async () => {
    const packed = await JSZip.loadAsync(await workbook([{ what: 'Tube', many: 100, on: '2026-06-01' }]));
    expect(await code(await packed.generateAsync({ type: 'uint8array', streamFiles: true }))).toBe('read');
  });

  /** A workbook whose one sheet was changed by hand, packed as small as it can be. */
  const changed = async (change: (xml: string) => string) => {
    const packed = await JSZip.loadAsync(await workbook([{ what: 'Tube', many: 100, on: '2026-06-01' }]));
    const name = 'xl/worksheets/sheet1.xml';
    packed.file(name, change((await packed.file(name)?.async('string')) ?? ''));
    return packed.generateAsync({ type: 'uint8array', compression: 'DEFLATE', compressionOptions: { level: 9 } });
  };
  const before = (more: string) => (xml: string) => xml.replace('</sheetData>', `${more}</sheetData>`);
  it.each<[string, (xml: string) => string, string]>([
    ['a cell far to the right', (xml) => xml.replace('r="B2"', 'r="ZZZZZZ2"'), 'file.far'],
    ['a cell in the first column that is not read', (xml) => xml.replace('r="B2"', 'r="GS2"'), 'file.far'],
    ['a cell far down', (xml) => xml.replace('r="A2"', 'r="A99999999"'), 'file.far'],
    ['a row far down', before('<row r="99999999"/>'), 'file.far'],
    ['a cell that is none', (xml) => xml.replace('r="A2"', 'r="A-2"'), 'file.far'],
    ['blanks that pack a thousand times', before(' '.repeat(12e6)), 'file.workbook'],
    ['a tag without an end', before(`<c r="${' '.repeat(12e6)}"/>`), 'file.workbook'],
  ])('is refused with %s', async (_, change, refused) => expect(await code(await changed(change))).toBe(refused));
});
