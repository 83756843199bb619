import readXlsxFile from 'read-excel-file/node';
import { LIMITS } from '@/core/limits';
import { done, refusal, refused, type Result } from '@/core/result';
import { MOST_COLUMNS, MOST_LETTERS, MOST_ROWS, readCsv, type Sheet } from '../csv/read';
import { counted, grouped } from '@/core/words';

/** A workbook is a zip file (Office Open XML, ECMA-376). */
const ZIP = [0x50, 0x4b, 0x03, 0x04];
const isZip = (bytes: Uint8Array) => ZIP.every((b, k) => bytes[k] === b);

/** What a workbook may come to once it is unpacked. */
const MOST_UNPACKED = 128 * 1024 * 1024;
const ENTRY = 0x02014b50;
const ENTRY_HEAD = 46;

/**
 * What a zip file says it comes to unpacked: the sum over its central directory (PKWARE APPNOTE, 4.3.12).
 * @returns undefined when it has no such directory
 */
function unpackedSize(bytes: Uint8Array): number | undefined {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  let size: number | undefined;
  for (let at = 0; at + ENTRY_HEAD <= bytes.length; at += 1)
    if (view.getUint32(at, true) === ENTRY) {
      size = (size ?? 0) + view.getUint32(at + 24, true);
      at += ENTRY_HEAD - 1;
    }
  return size;
}

type Value = string | number | boolean | Date | null | undefined;

/** A cell as the text that a CSV file would have for it: decimals with a point, days as ISO text. */
function textOf(value: Value): string {
  if (value === null || value === undefined) return '';
  if (value instanceof Date) return value.toISOString().slice(0, 10);
  return String(value).replace(/\s+/g, ' ').trim();
}

async function readXlsx(bytes: Uint8Array): Promise<Result<Sheet>> {
  const size = unpackedSize(bytes);
  if (size === undefined || size > MOST_UNPACKED)
    return refused(
      refusal('file.workbook', 'This workbook is damaged or too large. Save it again as XLSX, or as CSV.'),
    );
  let values: readonly (readonly Value[])[];
  try {
    const read = (await readXlsxFile(Buffer.from(bytes))) as unknown as readonly unknown[];
    // One sheet is given as its rows, several by name: the first is taken.
    const [first] = read;
    values = (
      Array.isArray(first) || first === undefined ? read : (first as { data: unknown[] }).data
    ) as typeof values;
  } catch {
    return refused(refusal('file.workbook', 'This file can’t be read as a workbook. Save it as XLSX or CSV.'));
  }
  if (values.length > MOST_ROWS + 1)
    return refused(refusal('file.rows', `The file has more than ${grouped(MOST_ROWS)} rows.`));
  const rows = values.map((cells, k) => ({ row: k + 1, cells: cells.map(textOf) }));
  const wide = rows.find((r) => r.cells.length > MOST_COLUMNS);
  if (wide !== undefined)
    return refused(
      refusal(
        'file.columns',
        `Row ${wide.row} has ${counted(wide.cells.length, 'column')}; the most is ${MOST_COLUMNS}.`,
      ),
    );
  const long = rows.find((r) => r.cells.some((c) => c.length > MOST_LETTERS));
  if (long !== undefined)
    return refused(refusal('file.cell', `A cell of row ${long.row} is longer than ${grouped(MOST_LETTERS)} letters.`));
  const [first, ...rest] = rows.filter((r) => r.cells.some((c) => c !== ''));
  if (first === undefined || rest.length === 0)
    return refused(refusal('file.noRows', 'The file has headings but no rows under them.'));
  const headings = first.cells.map((h, k) => h || `Column ${k + 1}`);
  return done({ encoding: 'XLSX', delimiter: '', mark: '.', headings, rows: rest });
}

/** Reads a sheet whose first row holds the headings: a CSV file, or the first sheet of a workbook (XLSX). */
export async function readSheet(bytes: Uint8Array): Promise<Result<Sheet>> {
  if (bytes.length > LIMITS.file)
    return refused(refusal('file.large', 'The file is over 8 MB. Split it and import the parts one after the other.'));
  return isZip(bytes) ? readXlsx(bytes) : readCsv(bytes);
}
