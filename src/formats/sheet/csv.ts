import Papa from 'papaparse';
import { locale } from '@/core/locale/locale';
import { cellText, type Column } from './column';

const BOM = '\ufeff';
const LINE = '\r\n';

/**
 * Writes a list as CSV (RFC 4180) page by page, in UTF-8 with a mark that spreadsheets look for. Columns are parted by
 * semicolons where the company writes decimals with a comma, as its spreadsheets expect.
 */
export async function* writeCsv<R>(columns: readonly Column<R>[], pages: AsyncIterable<readonly R[]>) {
  const delimiter = locale().decimalMark === ',' ? ';' : ',';
  const lines = (rows: string[][]) => Papa.unparse(rows, { delimiter, newline: LINE }) + LINE;
  yield BOM + lines([columns.map((c) => c.head)]);
  for await (const page of pages)
    if (page.length > 0) yield lines(page.map((row) => columns.map((c) => cellText(c.cell(row)))));
}
