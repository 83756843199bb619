import readXlsxFile from 'read-excel-file/node';
import { LIMITS } from '@/core/limits';
import { done, refusal, refused, type Result } from '@/core/result';
import { grouped } from '@/core/words';
import { MOST_LETTERS, readCsv, type Sheet } from '../csv/read';
import { checkWorkbook } from './workbook';

/** A workbook is a zip file (Office Open XML, ECMA-376). */
const ZIP = [0x50, 0x4b, 0x03, 0x04];
const isZip = (bytes: Uint8Array) => ZIP.every((b, k) => bytes[k] === b);

type Value = string | number | boolean | Date | null | undefined;

/** A cell as the text that a CSV file would have for it: decimals with a point, days as ISO text. */
function textOf(value: Value): string {
  if (value === null || value === undefined) return '';
  if (value instanceof Date) return value.toISOString().slice(0, 10);
  return String(value).replace(/\s+/g, ' ').trim();
}

async function readXlsx(bytes: Uint8Array): Promise<Result<Sheet>> {
  const checked = checkWorkbook(bytes);
  if (!checked.ok) return checked;
  let values: readonly (readonly Value[])[];
  try {
    const read = (await readXlsxFile(Buffer.from(checked.value))) as unknown as readonly unknown[];
    // One sheet is given as its rows, several by name: the first is taken.
    const [first] = read;
    values = (
      Array.isArray(first) || first === undefined ? read : (first as { data: unknown[] }).data
    ) as typeof values;
  } catch {
    return refused(refusal('file.workbook', 'This file can’t be read as a workbook. Save it as XLSX or CSV.'));
  }
  const tooLong = (v: Value) => typeof v === 'string' && v.length > MOST_LETTERS;
  const long = values.findIndex((cells) => cells.some(tooLong));
  if (long >= 0)
    return refused(refusal('file.cell', `A cell of row ${long + 1} is longer than ${grouped(MOST_LETTERS)} letters.`));
  const rows = values.map((cells, k) => ({ row: k + 1, cells: cells.map(textOf) }));
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
