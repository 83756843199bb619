import type { Day } from '../calendar/workdays';
import { closedRefusal } from '../jobs/closing';
import { formatMoney, minor, type Minor } from '../money/money';
import { refusal, type Refusal } from '../result';

/** By how much a change moves one cost code, or, without one, what is held back. In minor units; negative takes away. */
export type ChangeLine = { readonly costCodeId: number | null; readonly amount: Minor };

/** How a job's money stands before a change. */
export type BudgetsBefore = {
  readonly job: string;
  readonly closed: boolean;
  /** The day its budget was opened; null before. */
  readonly openedOn: Day | null;
  /** The least that each cost code's budget comes to from the day of the change on, and what is held back likewise. */
  readonly budgets: ReadonlyMap<number, Minor>;
  readonly contingency: Minor;
  readonly currency: string;
};

export type ChangeKind = 'change' | 'move' | 'holdBack' | 'release';

export const CHANGE_KIND_NAMES: Readonly<Record<ChangeKind, string>> = {
  change: 'Change',
  move: 'Transfer',
  holdBack: 'To contingency',
  release: 'From contingency',
};

const sum = (lines: readonly ChangeLine[]): Minor => minor(lines.reduce((all, l) => all + l.amount, 0));

/** By how much something moved on a day. */
export type Moved = { readonly day: Day; readonly amount: Minor };

/**
 * The least that movements come to at the end of a day or of any later one.
 * @example leastFrom([{ day: '2026-03-01', amount: 100 }, { day: '2026-03-09', amount: -60 }], '2026-03-02') // 40
 */
export function leastFrom(moved: readonly Moved[], from: Day): Minor {
  const before = moved.filter((m) => m.day <= from).reduce((all, m) => all + m.amount, 0);
  const after = moved.filter((m) => m.day > from).sort((a, b) => a.day.localeCompare(b.day));
  let [now, least] = [before, before];
  for (const { amount } of after) {
    now += amount;
    least = Math.min(least, now);
  }
  return minor(least);
}

/** What a change adds to the job's money, held back or not. */
export const totalOf = sum;

/** What a change adds to the budgets of cost codes, and to what is held back. */
export const partsOf = (lines: readonly ChangeLine[]): { readonly budget: Minor; readonly contingency: Minor } => ({
  budget: sum(lines.filter((l) => l.costCodeId !== null)),
  contingency: sum(lines.filter((l) => l.costCodeId === null)),
});

/**
 * What a change is: money that comes or goes; or, where it adds nothing, a move between cost codes, money that is held
 * back, or money that is released from that.
 */
export function kindOf(lines: readonly ChangeLine[]): ChangeKind {
  if (sum(lines) !== 0) return 'change';
  const { contingency } = partsOf(lines);
  if (contingency === 0) return 'move';
  return contingency > 0 ? 'holdBack' : 'release';
}

/** What stands against a change of a job's budget: nothing of it may fall below zero. */
export function changeFaults(
  { lines, day }: { readonly lines: readonly ChangeLine[]; readonly day: Day },
  { job, closed, openedOn, budgets, contingency, currency }: BudgetsBefore,
  today: Day,
  nameOf: (costCodeId: number) => string,
): Refusal[] {
  if (closed) return [closedRefusal(job)];
  const faults: Refusal[] = [];
  if (lines.length === 0) faults.push(refusal('change.empty', 'Enter a cost code and an amount.', 'lines'));
  if (new Set(lines.map((l) => l.costCodeId)).size < lines.length)
    faults.push(refusal('change.twice', 'A cost code appears twice.', 'lines'));
  if (day > today) faults.push(refusal('change.day', 'The date can’t be in the future.', 'day'));
  if (openedOn !== null && day < openedOn)
    faults.push(refusal('change.day', 'The date can’t be before the budget was opened.', 'day'));
  for (const [k, { costCodeId, amount }] of lines.entries()) {
    const before = costCodeId === null ? contingency : (budgets.get(costCodeId) ?? 0);
    if (before + amount >= 0 || amount >= 0) continue;
    const what = costCodeId === null ? 'The contingency' : `${nameOf(costCodeId)}`;
    faults.push(
      refusal(
        'change.below',
        `${what} ${day < today ? 'falls to' : 'is'} ${formatMoney(minor(before), currency)}${day < today ? ' after that date' : ''}: you can’t take away more than that.`,
        `lines.${k}.amount`,
      ),
    );
  }
  return faults;
}
