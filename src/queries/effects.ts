import { plannedOf } from '@/core/needs/coverage';
import { minor, ZERO } from '@/core/money/money';
import { splitValues, withCharges } from '@/core/orders/order';
import { drafting, effects, moving, undoing, type Change, type Effect } from '@/core/tab/effect';
import { quantity } from '@/core/quantity/quantity';
import { NOTHING, splitStages } from '@/core/tab/stages';
import type { TaxCode } from '@/core/money/tax';
import { loadCompany, loadCostCodes, loadTaxCodes } from '@/store/company';
import type { Db } from '@/store/connection';
import { planOrders, type Plan, type PlannedOrder } from '@/store/drafts';
import { billedParts, type Comparison } from '@/store/invoices';
import { loadNeedStates, loadSplitStates } from '@/store/ledger';
import type { StoredOrder } from '@/store/orders';
import type { Picked } from '@/store/gathering';
import type { Person } from '@/store/people';
import { groupBy } from '@/core/group';
import { coverage } from '@/core/needs/coverage';
import { whereIn } from '@/store/rows';
import { loadLevels } from './levels';
import { permit } from './permit';

export type NamedEffect = Effect & { readonly job: string; readonly code: string; readonly codeName: string };

export async function nameEffects(db: Db, found: readonly Effect[]): Promise<NamedEffect[]> {
  const codes = new Map((await loadCostCodes(db)).map((c) => [c.id, c]));
  const jobs = new Map(
    (
      await whereIn<{ id: number; number: string }>(
        db,
        'job',
        'id',
        found.map((e) => e.jobId),
      )
    ).map((j) => [j.id, j.number]),
  );
  return found
    .map((e) => ({
      ...e,
      job: jobs.get(e.jobId) ?? '',
      code: codes.get(e.costCodeId)?.code ?? '',
      codeName: codes.get(e.costCodeId)?.name ?? '',
    }))
    .sort((a, b) => a.job.localeCompare(b.job) || a.code.localeCompare(b.code));
}

export type GatherPreview = { readonly plan: Plan; readonly effects: readonly NamedEffect[] };

/** What drafting these picks would make and do to every budget, without writing anything. */
export async function previewGather(
  db: Db,
  person: Person,
  picks: readonly Picked[],
  joined: readonly number[] = [],
): Promise<GatherPreview> {
  permit(person, 'draft orders');
  const plan = await planOrders(db, picks, joined);
  const { currency } = await loadCompany(db);
  const codes = await loadTaxCodes(db);
  const draftedNow = plan.orders.flatMap((o) => changesOf(o, codes, currency));
  const states = await loadNeedStates(
    db,
    plan.needs.map((n) => n.id),
  );
  const buying = new Map(plan.needs.map((n) => [n.id, n.buy]));
  const plannedNow = states.map((n) => {
    const then = { ...n.coverage, drafted: quantity(n.coverage.drafted + (buying.get(n.id) ?? 0)) };
    return moving(n.jobId, n.costCodeId, plannedOf(n.coverage, n, currency), plannedOf(then, n, currency));
  });
  const changes = [...draftedNow, ...plannedNow];
  const levels = await loadLevels(db, jobsOf(changes));
  return { plan, effects: await nameEffects(db, effects(levels, changes)) };
}

/** What an order gains each account when it is drafted, or when lines join it. */
function changesOf(
  { supplier, into, lines }: PlannedOrder,
  codes: readonly TaxCode[],
  companyCurrency: string,
): Change[] {
  const { currency, rate } = into ?? supplier;
  const terms = { currency, companyCurrency, rate };
  const whole = withCharges(lines, codes, terms);
  const values = splitValues(whole, codes, terms);
  const drafted = whole.flatMap((l, k) =>
    l.splits.flatMap((s, j) =>
      s.jobId === null || s.costCodeId === null ? [] : [drafting(s.jobId, s.costCodeId, values[k]?.[j] ?? ZERO)],
    ),
  );
  return into === undefined ? drafted : [...drafted, ...draftedBy(into).map(undoing)];
}

type Covering = Awaited<ReturnType<typeof loadSplitStates>>[number];

/** What is planned for needs as things stand, and as it would be if the splits that cover them were these. */
async function plannedIf(db: Db, needIds: readonly number[], then: (splits: readonly Covering[]) => Covering[]) {
  const { currency } = await loadCompany(db);
  const covering = groupBy(await loadSplitStates(db, 'needId', needIds), (s) => s.needId);
  return (await loadNeedStates(db, needIds)).map((n) => ({
    need: n,
    now: plannedOf(n.coverage, n, currency),
    then: plannedOf(coverage(n.quantity, then(covering.get(n.id) ?? [])), n, currency),
  }));
}

const jobsOf = (changes: readonly Change[]) => [...new Set(changes.map((c) => c.jobId))];

const draftedBy = (order: StoredOrder) =>
  order.lines
    .flatMap((l) => l.splits)
    .flatMap((s) => (s.jobId === null || s.costCodeId === null ? [] : [drafting(s.jobId, s.costCodeId, s.value)]));

/** What an order that is still being drafted does to every budget it touches: before it, and with it. */
export async function orderEffects(db: Db, order: StoredOrder): Promise<NamedEffect[]> {
  const splits = order.lines.flatMap((l) => l.splits);
  const own = new Set(splits.map((s) => s.id));
  const planned = await plannedIf(
    db,
    splits.flatMap((s) => s.needId ?? []),
    (covering) => covering.filter((s) => !own.has(s.id)),
  );
  const changes = [
    ...draftedBy(order),
    ...planned.map(({ need, now, then }) => moving(need.jobId, need.costCodeId, then, now)),
  ];
  const levels = await loadLevels(db, jobsOf(changes));
  const before = effects(levels, changes.map(undoing)).map((e) => ({
    jobId: e.jobId,
    costCodeId: e.costCodeId,
    ...e.after,
  }));
  return nameEffects(db, effects(before, changes));
}

/** What matching an invoice moves on every budget it touches. */
export async function matchEffects(db: Db, comparison: Comparison): Promise<NamedEffect[]> {
  const parts = new Map((await billedParts(db, comparison)).map((p) => [p.splitId, p]));
  const matched = (s: Covering): Covering => ({
    ...s,
    billed: quantity(s.billed + (parts.get(s.id)?.quantity ?? 0)),
    billedAmount: minor(s.billedAmount + (parts.get(s.id)?.amount ?? 0)),
  });
  const splits = await loadSplitStates(db, 'id', [...parts.keys()]);
  const planned = await plannedIf(
    db,
    splits.flatMap((s) => s.needId ?? []),
    (covering) => covering.map(matched),
  );
  const changes = [
    ...splits.flatMap((s) =>
      s.jobId === null || s.costCodeId === null
        ? []
        : [moving(s.jobId, s.costCodeId, splitStages(s), splitStages(matched(s)))],
    ),
    ...planned.map(({ need, now, then }) => moving(need.jobId, need.costCodeId, now, then)),
  ];
  return nameEffects(db, effects(await loadLevels(db, jobsOf(changes)), changes));
}

/** How the budgets that an order is charged to stand now: effects that change nothing. */
export async function standingOf(db: Db, order: StoredOrder): Promise<NamedEffect[]> {
  const still = draftedBy(order).map((c) => ({ ...c, amounts: NOTHING }));
  return nameEffects(db, effects(await loadLevels(db, jobsOf(still)), still));
}
