import writeExcelFile from 'write-excel-file/node';
import { WAYS, locale } from '@/core/locale/locale';
import { harmless, type Cell, type Column } from './column';

const LETTERS = { least: 8, most: 48 };

function xlsxCell(cell: Cell) {
  if (cell === undefined) return null;
  if ('text' in cell) return { type: String, value: harmless(cell.text) };
  if ('day' in cell)
    return {
      type: Date,
      value: new Date(`${cell.day}T00:00:00Z`),
      format: WAYS[locale().language].figures.toLowerCase(),
    };
  if ('whole' in cell) return { type: Number, value: cell.whole, format: '0' };
  const format = cell.places === 0 ? '#,##0' : `#,##0.${'0'.repeat(cell.places)}`;
  return { type: Number, value: cell.scaled / 10 ** cell.places, format };
}

/** What a column comes to; nothing where it is not added up. */
function totalOf<R>({ total, cell }: Column<R>, rows: readonly R[]): Cell {
  const amounts = total === true ? rows.flatMap((row) => cell(row) ?? []) : [];
  const scaled = amounts.flatMap((a) => ('scaled' in a ? a : []));
  const [first] = scaled;
  return first && { scaled: scaled.reduce((sum, a) => sum + a.scaled, 0), places: first.places };
}

/**
 * Writes a list as a workbook (Office Open XML) of one sheet: amounts are numbers with their decimals, days are dates, and
 * below the rows stands what they come to.
 */
export function writeXlsx<R>(name: string, columns: readonly Column<R>[], rows: readonly R[]): Promise<Buffer> {
  const cells = rows.map((row) => columns.map((c) => xlsxCell(c.cell(row))));
  const width = (k: number) =>
    Math.min(
      LETTERS.most,
      cells.reduce(
        (most, row) => Math.max(most, typeof row[k]?.value === 'string' ? row[k].value.length : LETTERS.least),
        columns[k]?.head.length ?? 0,
      ) + 2,
    );
  const head = columns.map((c) => ({ value: c.head, fontWeight: 'bold' as const }));
  const totals = columns.map((c) => xlsxCell(totalOf(c, rows)));
  const foot = totals.map((cell, k) => {
    const shown = k === 0 ? { type: String, value: 'Total' } : cell;
    return shown && { ...shown, fontWeight: 'bold' as const };
  });
  return writeExcelFile([head, ...cells, ...(totals.some(Boolean) ? [foot] : [])] as never, {
    sheet: name,
    columns: columns.map((_, k) => ({ width: width(k) })),
    stickyRowsCount: 1,
  }).toBuffer();
}
