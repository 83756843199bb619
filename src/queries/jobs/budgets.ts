import { kindOf, totalOf, type ChangeKind } from '@/core/budgets/change';
import type { Day } from '@/core/calendar/workdays';
import { groupBy } from '@/core/group';
import { minor, type Minor } from '@/core/money/money';
import { may } from '@/core/people/rights';
import { loadContingency } from '@/store/budgets';
import { loadCostCodes } from '@/store/company';
import type { Db } from '@/store/db';
import type { Person } from '@/store/people';
import { whereIn, rowsOf } from '@/store/rows';
import type { BudgetChange, CostCode } from '@/store/tables';
import { permit } from '../permit';

/** The budget of one cost code: as it was opened, what changed it, and what waits to. */
export type BudgetRow = {
  readonly code: CostCode;
  readonly opening: Minor;
  readonly changed: Minor;
  readonly now: Minor;
  readonly pending: Minor;
  readonly note: string;
};

export type ChangeView = Omit<BudgetChange, 'jobId' | 'personId' | 'decidedBy' | 'at'> & {
  readonly kind: ChangeKind;
  readonly total: Minor;
  readonly lines: readonly { readonly code: CostCode | null; readonly amount: Minor }[];
  readonly who: string;
  readonly decider: string | null;
  /** Whether this person may drop it. */
  readonly mayDrop: boolean;
};

/** What moved the budget without a number of its own: a quote that was won or revised. */
export type QuotedBudget = { readonly day: Day; readonly reason: string; readonly amount: Minor; readonly who: string };

export type BudgetView = {
  readonly rows: readonly BudgetRow[];
  readonly contingency: { readonly now: Minor; readonly pending: Minor };
  readonly whole: Omit<BudgetRow, 'code' | 'note'>;
  readonly changes: readonly ChangeView[];
  readonly quoted: readonly QuotedBudget[];
  /** What the customer pays by the quote, and what agreed changes add to that; null without a won quote. */
  readonly price: { readonly quoted: Minor; readonly changed: Minor } | null;
};

/** The budget of a job by cost code, with what moved it; as it stands, or as it stood at the end of a day. */
export async function loadBudget(db: Db, person: Person, jobId: number, on?: Day): Promise<BudgetView> {
  permit(person, 'see money');
  const until = on ?? ('9999-12-31' as Day);
  const codes = await loadCostCodes(db);
  const sums = await rowsOf<{ costCodeId: number; kind: 'opening' | 'change'; amount: Minor }>(
    db('budgetEntry')
      .where({ jobId })
      .where('day', '<=', until)
      .groupBy('costCodeId', 'kind')
      .select('costCodeId', 'kind')
      .sum({ amount: 'amount' }),
  );
  const notes = new Map((await db('budgetNote').where({ jobId })).map((n) => [n.costCodeId, n.words]));
  const changes = await loadChanges(db, person, jobId, codes, until);
  const waiting = changes.filter((c) => c.state === 'pending').flatMap((c) => c.lines);
  const add = (amounts: readonly Minor[]): Minor => minor(amounts.reduce((all, a) => all + a, 0));
  const pendingOf = (id: number | undefined) => add(waiting.filter((l) => l.code?.id === id).map((l) => l.amount));
  const rows = codes.flatMap((code): BudgetRow[] => {
    const of = (kind: string) =>
      add(sums.filter((s) => s.costCodeId === code.id && s.kind === kind).map((s) => s.amount));
    const [opening, changed, pending] = [of('opening'), of('change'), pendingOf(code.id)];
    const note = notes.get(code.id) ?? '';
    const empty = opening === 0 && changed === 0 && pending === 0 && note === '';
    return empty ? [] : [{ code, opening, changed, now: add([opening, changed]), pending, note }];
  });
  return {
    rows,
    contingency: { now: await loadContingency(db, jobId, on), pending: pendingOf(undefined) },
    whole: {
      opening: add(rows.map((r) => r.opening)),
      changed: add(rows.map((r) => r.changed)),
      now: add(rows.map((r) => r.now)),
      pending: add(rows.map((r) => r.pending)),
    },
    changes,
    quoted: await rowsOf<QuotedBudget>(
      db('budgetEntry as b')
        .join('person as p', 'p.id', 'b.personId')
        .where('b.jobId', jobId)
        .where('b.day', '<=', until)
        .whereNull('b.changeId')
        .groupBy('b.at', 'b.reason')
        .orderBy('b.at')
        .select('b.day', 'b.reason', { who: 'p.name' })
        .sum({ amount: 'b.amount' }),
    ),
    price: await loadPrice(db, jobId, changes),
  };
}

async function loadChanges(
  db: Db,
  person: Person,
  jobId: number,
  codes: readonly CostCode[],
  until: Day,
): Promise<ChangeView[]> {
  const found = await rowsOf<BudgetChange & { who: string; decider: string | null }>(
    db('budgetChange as c')
      .join('person as p', 'p.id', 'c.personId')
      .leftJoin('person as d', 'd.id', 'c.decidedBy')
      .where('c.jobId', jobId)
      .where('c.day', '<=', until)
      .orderBy('c.number', 'desc')
      .select('c.*', { who: 'p.name', decider: 'd.name' }),
  );
  const ids = found.map((c) => c.id);
  const lines = groupBy(await whereIn(db, 'budgetChangeLine', 'changeId', ids), (l) => l.changeId);
  const code = new Map(codes.map((c) => [c.id, c]));
  return found.map(({ jobId: _, personId, decidedBy: __, at: ___, ...change }) => {
    const own = [...(lines.get(change.id) ?? [])].sort((a, b) => a.place - b.place);
    return {
      kind: kindOf(own),
      total: totalOf(own),
      lines: own.map((l) => ({ code: code.get(l.costCodeId ?? 0) ?? null, amount: l.amount })),
      mayDrop: may(person, 'agree budget changes') || (may(person, 'write budget changes') && personId === person.id),
      ...change,
    };
  });
}

async function loadPrice(db: Db, jobId: number, changes: readonly ChangeView[]): Promise<BudgetView['price']> {
  const [won] = await rowsOf<{ price: Minor | null }>(
    db('quoteLine as l')
      .join('quote as q', 'q.id', 'l.quoteId')
      .where({ 'q.jobId': jobId, 'q.state': 'won', 'l.agreed': 1 })
      .groupBy('q.id')
      .orderBy('q.id', 'desc')
      .limit(1)
      .select('q.id')
      .sum({ price: 'l.priceNet' }),
  );
  if (won === undefined) return null;
  const agreed = changes.filter((c) => c.state === 'agreed');
  return { quoted: won.price ?? minor(0), changed: minor(agreed.reduce((sum, c) => sum + (c.quoteChange ?? 0), 0)) };
}

/** What of a job's money is in no budget: what is held back, and what pending changes would add in all. */
export async function loadContingencyOf(
  db: Db,
  person: Person,
  jobId: number,
  on?: Day,
): Promise<{ readonly contingency: Minor; readonly pending: Minor }> {
  permit(person, 'see money');
  const [row] =
    on === undefined
      ? await rowsOf<{ amount: Minor | null }>(
          db('budgetChangeLine as l')
            .join('budgetChange as c', 'c.id', 'l.changeId')
            .where({ 'c.jobId': jobId, 'c.state': 'pending' })
            .sum({ amount: 'l.amount' }),
        )
      : [];
  return { contingency: await loadContingency(db, jobId, on), pending: row?.amount ?? minor(0) };
}
