import Papa from 'papaparse';
import { LIMITS } from '@/core/limits';
import { isUndecided } from '@/core/money/decimal';
import type { DecimalMark } from '@/core/locale/locale';
import { done, refusal, refused, type Refusal, type Result } from '@/core/result';
import { decodeText, type Decoded } from './decode';
import { counted, grouped } from '@/core/words';

export const MOST_ROWS = 50_000;
export const MOST_COLUMNS = 200;
/** Letters of one cell. */
export const MOST_LETTERS = 4000;

export type Sheet = {
  readonly encoding: Decoded['encoding'] | 'XLSX';
  /** Empty for a workbook. */
  readonly delimiter: string;
  /** null when every number with a mark can be read in two ways, so that a person has to say. */
  readonly mark: DecimalMark | null;
  readonly headings: readonly string[];
  /** Data rows; `row` counts as a spreadsheet does, the headings being row 1. Blank rows are passed over. */
  readonly rows: readonly { readonly row: number; readonly cells: readonly string[] }[];
};

const isBlank = (cells: readonly string[]) => cells.every((c) => c.trim() === '');

const DELIMITERS = [',', ';', '\t', '|'];

/** The character that parts the headings into the most columns. */
function guessDelimiter(text: string): string {
  const columns = (delimiter: string) => Papa.parse<string[]>(text, { delimiter, preview: 1 }).data[0]?.length ?? 0;
  return DELIMITERS.reduce((best, d) => (columns(d) > columns(best) ? d : best));
}

/** The decimal mark that the file's numbers use: that of the cells that can only be read in one way. */
function guessMark(rows: readonly { readonly cells: readonly string[] }[]): DecimalMark | null {
  const cells = rows.slice(0, 500).flatMap((r) => r.cells.map((c) => c.replaceAll(/[\s+\-£€]/g, '')));
  const commas = cells.filter((c) => /^[\d.]*\d,\d{1,2}$/.test(c) || /^\d+,\d{4}$/.test(c)).length;
  const points = cells.filter((c) => /^[\d,]*\d\.\d{1,2}$/.test(c)).length;
  if (commas + points === 0 && cells.some(isUndecided)) return null;
  return commas > points ? ',' : '.';
}

/**
 * Reads a CSV file (RFC 4180, and the same with semicolons or tabs) whose first row holds the headings.
 *
 * @returns its rows as text, or why the file cannot be used
 */
export function readCsv(bytes: Uint8Array): Result<Sheet> {
  if (bytes.length > LIMITS.file)
    return refused(refusal('file.large', 'The file is over 8 MB. Split it and import the parts one after the other.'));
  const decoded = decodeText(bytes);
  if (!decoded.ok) return decoded;
  const { text, encoding } = decoded.value;
  if (text.trim() === '') return refused(refusal('file.empty', 'The file is empty.'));
  const delimiter = guessDelimiter(text);
  const all = rowsOf(text, delimiter);
  if (!all.ok) return all;
  const [first, ...rows] = all.value;
  if (first === undefined || rows.length === 0)
    return refused(refusal('file.noRows', 'The file has headings but no rows under them.'));
  const headings = first.cells.map((h, k) => h.trim() || `Column ${k + 1}`);
  return done({ encoding, delimiter, mark: guessMark(rows), headings, rows });
}

/** Why a row ends the reading of its file. */
function rowFault(row: number, cells: readonly string[], broken: boolean): Refusal | undefined {
  if (broken) return refusal('file.quotes', `Row ${row} has an unclosed quotation mark. Correct it and import again.`);
  if (cells.length > MOST_COLUMNS)
    return refusal('file.columns', `Row ${row} has ${counted(cells.length, 'column')}; the most is ${MOST_COLUMNS}.`);
  if (cells.some((c) => c.length > MOST_LETTERS))
    return refusal('file.cell', `A cell of row ${row} is longer than ${grouped(MOST_LETTERS)} letters.`);
  return undefined;
}

/** Reads row by row, and stops at the first that cannot be taken. */
function rowsOf(text: string, delimiter: string): Result<Sheet['rows']> {
  const rows: Sheet['rows'][number][] = [];
  let row = 0;
  let fault: Refusal | undefined;
  Papa.parse<string[]>(text, {
    delimiter,
    step: ({ data: cells, errors }, parser) => {
      row += 1;
      fault = rowFault(
        row,
        cells,
        errors.some((e) => e.type === 'Quotes'),
      );
      if (fault !== undefined) parser.abort();
      else if (!isBlank(cells)) rows.push({ row, cells });
      if (rows.length > MOST_ROWS + 1) {
        fault = refusal('file.rows', `The file has more than ${grouped(MOST_ROWS)} rows.`);
        parser.abort();
      }
    },
  });
  return fault === undefined ? done(rows) : refused(fault);
}
