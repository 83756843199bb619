import { readBudget } from '@/core/budgets/rows';
import type { RowLeft } from '@/core/columns';
import { formatAmount, type Minor } from '@/core/money/money';
import { HELD, type ChangeLineText } from '@/core/records/budget';
import { refusal, refused, done, type Result } from '@/core/result';
import { readSheet } from '@/formats/sheet/read';
import { loadCompany } from '@/store/company';
import type { Db } from '@/store/db';
import type { Person } from '@/store/people';
import { loadBudget } from './budgets';
import { permit } from '../permit';

export type BudgetFile = {
  /** By how much each cost code moves, as the form of a budget change begins with it. */
  readonly lines: readonly ChangeLineText[];
  readonly left: readonly RowLeft[];
};

/** What a file says of a job's budget, beside what it is now. */
export async function readBudgetFile(
  db: Db,
  person: Person,
  number: string,
  bytes: Uint8Array,
): Promise<Result<BudgetFile>> {
  permit(person, 'write budget changes');
  const job = await db('job').where({ number }).first('id');
  if (job === undefined) return refused(refusal('missing', `Job ${number} doesn’t exist.`));
  const sheet = await readSheet(bytes);
  if (!sheet.ok) return sheet;
  const { decimalMark, currency } = await loadCompany(db);
  const { rows: budget, contingency } = await loadBudget(db, person, job.id);
  const codes = (await db('costCode').where({ gone: 0 })).map(({ id, code, name }) => ({ id, code, name }));
  const { headings, rows, mark } = sheet.value;
  const read = readBudget(headings, rows, {
    codes,
    budgets: new Map<number, Minor>(budget.map((r) => [r.code.id, r.now])),
    contingency: contingency.now,
    mark: mark ?? decimalMark,
    currency,
  });
  if (!read.ok) return read;
  const named = new Map(codes.map((c) => [c.id, { id: c.id, number: c.code, name: c.name }]));
  return done({
    lines: read.value.lines.map(({ costCodeId, amount }) => ({
      code: costCodeId === null ? HELD : (named.get(costCodeId) ?? null),
      amount: formatAmount(amount, currency),
    })),
    left: read.value.left,
  });
}
