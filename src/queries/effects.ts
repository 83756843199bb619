import { plannedOf } from '@/core/needs/coverage';
import { ZERO } from '@/core/money/money';
import { splitValues, withCharges } from '@/core/orders/order';
import { drafting, effects, planning, undoing, type Change, type Effect } from '@/core/tab/effect';
import { quantity } from '@/core/quantity/quantity';
import type { TaxCode } from '@/core/money/tax';
import { loadCompany, loadCostCodes, loadTaxCodes } from '@/store/company';
import type { Db } from '@/store/connection';
import { planOrders, type Plan, type PlannedOrder } from '@/store/drafts';
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
export async function previewGather(db: Db, person: Person, picks: readonly Picked[]): Promise<GatherPreview> {
  permit(person, 'draft orders');
  const plan = await planOrders(db, picks);
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
    return planning(n.jobId, n.costCodeId, plannedOf(n.coverage, n, currency), plannedOf(then, n, currency));
  });
  const changes = [...draftedNow, ...plannedNow];
  const levels = await loadLevels(db, [...new Set(changes.map((c) => c.jobId))]);
  return { plan, effects: await nameEffects(db, effects(levels, changes)) };
}

function changesOf({ supplier, lines }: PlannedOrder, codes: readonly TaxCode[], companyCurrency: string): Change[] {
  const terms = { currency: supplier.currency, companyCurrency, rate: supplier.rate };
  const whole = withCharges(lines, codes, terms);
  const values = splitValues(whole, codes, terms);
  return whole.flatMap((l, k) =>
    l.splits.flatMap((s, j) =>
      s.jobId === null || s.costCodeId === null ? [] : [drafting(s.jobId, s.costCodeId, values[k]?.[j] ?? ZERO)],
    ),
  );
}

/** What an order that is still being drafted does to every budget it touches: before it, and with it. */
export async function orderEffects(db: Db, order: StoredOrder): Promise<NamedEffect[]> {
  const { currency } = await loadCompany(db);
  const splits = order.lines.flatMap((l) => l.splits);
  const own = new Set(splits.map((s) => s.id));
  const drafted = splits.flatMap((s) =>
    s.jobId === null || s.costCodeId === null ? [] : [drafting(s.jobId, s.costCodeId, s.value)],
  );
  const needIds = splits.flatMap((s) => s.needId ?? []);
  const covering = groupBy(await loadSplitStates(db, 'needId', needIds), (s) => s.needId);
  const planned = (await loadNeedStates(db, needIds)).map((n) => {
    const without = coverage(
      n.quantity,
      (covering.get(n.id) ?? []).filter((s) => !own.has(s.id)),
    );
    return planning(n.jobId, n.costCodeId, plannedOf(without, n, currency), plannedOf(n.coverage, n, currency));
  });
  const changes = [...drafted, ...planned];
  const now = await loadLevels(db, [...new Set(changes.map((c) => c.jobId))]);
  const before = effects(now, changes.map(undoing)).map((e) => ({
    jobId: e.jobId,
    costCodeId: e.costCodeId,
    ...e.after,
  }));
  return nameEffects(db, effects(before, changes));
}
