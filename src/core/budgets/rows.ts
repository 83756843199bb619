import { columnsOf, folded, type Row, type RowLeft } from '../columns';
import { LIMITS } from '../limits';
import { parseDecimal } from '../money/decimal';
import type { DecimalMark } from '../locale/locale';
import { decimalsOf } from '../money/currencies';
import { minor, ZERO, type Minor } from '../money/money';
import { done, refusal, refused, type Result } from '../result';
import type { ChangeLine } from './change';

const HEADINGS = {
  code: /^(cost )?code|^number/i,
  name: /^name|description/i,
  budget: /^(new )?budget|^now|^amount/i,
  change: /^change|plus|difference/i,
} as const;
type Field = keyof typeof HEADINGS;

/** How what is held back is called where a cost code would stand. */
export const HELD_NAME = 'Contingency';

export type Known = {
  readonly codes: readonly { readonly id: number; readonly code: string; readonly name: string }[];
  /** How the budget of each cost code stands. */
  readonly budgets: ReadonlyMap<number, Minor>;
  readonly contingency: Minor;
  readonly mark: DecimalMark;
  readonly currency: string;
};

/**
 * Reads a budget by cost code: what each is to come to, or by how much it changes.
 *
 * @returns by how much each cost code moves, those that stay left out, and the rows that cannot be read; refused without
 * the columns it needs
 */
export function readBudget(
  headings: readonly string[],
  rows: readonly Row[],
  { codes, budgets, contingency, mark, currency }: Known,
): Result<{ readonly lines: readonly ChangeLine[]; readonly left: readonly RowLeft[] }> {
  const columns = columnsOf<Field>(headings, HEADINGS);
  const amounts = columns.budget === undefined ? 'change' : 'budget';
  if ((columns.code ?? columns.name) === undefined || columns[amounts] === undefined)
    return refused(
      refusal(
        'budget.columns',
        'The file needs columns for the cost code and for its budget or change. Add them and choose the file again.',
      ),
    );
  const ids = new Map<string, number>();
  for (const { id, code, name } of codes) for (const word of [name, `${code} ${name}`, code]) ids.set(folded(word), id);
  const seen = new Map<number | null, number>();
  const [lines, left]: [ChangeLine[], RowLeft[]] = [[], []];
  for (const { row, cells } of rows) {
    const cell = (field: Field) => (columns[field] === undefined ? '' : (cells[columns[field]] ?? '').trim());
    const words = cell('code') || cell('name');
    const costCodeId = folded(words) === folded(HELD_NAME) ? null : ids.get(folded(words));
    const written = cell(amounts);
    const read = parseDecimal(written, { places: decimalsOf(currency), mark, most: LIMITS.line / 100 });
    const twin = costCodeId === undefined ? undefined : seen.get(costCodeId);
    if (costCodeId === undefined)
      left.push({
        row,
        message:
          words === ''
            ? 'Enter a cost code.'
            : `Cost code “${words}” doesn’t exist. Choose one of the company’s codes.`,
      });
    else if (twin !== undefined) left.push({ row, message: `${words} is already in row ${twin}.` });
    else if (!read.ok) left.push({ row, message: `“${written}” isn’t an amount. Type it like 1250.00.` });
    else if (amounts === 'budget' && read.value < 0) left.push({ row, message: 'Enter 0 or more.' });
    else {
      seen.set(costCodeId, row);
      const now = costCodeId === null ? contingency : (budgets.get(costCodeId) ?? ZERO);
      const amount = minor(amounts === 'budget' ? read.value - now : read.value);
      if (amount !== 0) lines.push({ costCodeId, amount });
    }
  }
  return done({ lines, left });
}
