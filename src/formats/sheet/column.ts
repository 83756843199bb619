import { dayInFigures, type Day } from '@/core/calendar/workdays';
import { ungrouped } from '@/core/locale/locale';
import { formatDecimal } from '@/core/money/decimal';

/** What a cell of a list holds: words, a day, a whole number, or an integer scaled by ten to its places. */
export type Cell =
  | { readonly text: string }
  | { readonly day: Day }
  | { readonly whole: number }
  | { readonly scaled: number; readonly places: number }
  | undefined;

export type Column<R> = {
  readonly head: string;
  readonly cell: (row: R) => Cell;
  /** Amounts of one currency, which a workbook adds up below its rows. */
  readonly total?: true;
};

/** A spreadsheet runs what begins with one of these. */
const RUNS = /^[=+\-@\t\r]/;

/** Words that a spreadsheet takes for words. */
export const harmless = (text: string): string => (RUNS.test(text) ? `'${text}` : text);

/** A cell as it is written in a file of text, the company's way; a number can be calculated with. */
export function cellText(cell: Cell): string {
  if (cell === undefined) return '';
  if ('text' in cell) return harmless(cell.text);
  if ('day' in cell) return dayInFigures(cell.day);
  if ('whole' in cell) return String(cell.whole);
  return ungrouped(formatDecimal(cell.scaled, cell.places)).replace('\u2212', '-');
}
