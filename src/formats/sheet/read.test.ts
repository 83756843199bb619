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
  it('is refused when it would unpack to more than can be held', async () => {
    const whole = Buffer.from(await workbook([{ what: 'Tube', many: 100, on: '2026-06-01' }]));
    const entry = whole.indexOf(Buffer.from([0x50, 0x4b, 0x01, 0x02]));
    whole.writeUInt32LE(0xf000_0000, entry + 24);
    expect(await code(whole)).toBe('file.workbook');
  });
});
