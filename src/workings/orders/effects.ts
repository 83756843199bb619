import { groupBy } from '@/core/group';
import { minor } from '@/core/money/money';
import type { FromStock } from '@/core/needs/coverage';
import { valueOrder } from '@/core/orders/order';
import { NONE, quantity, type Quantity } from '@/core/quantity/quantity';
import { effects, moving, undoing, type Change, type Effect } from '@/core/tab/effect';
import { NOTHING, splitStages, type Amounts, type SplitState } from '@/core/tab/stages';
import type { Account } from '@/core/tab/postings';
import type { Day } from '@/core/calendar/workdays';
import { loadCompany, loadCostCodes } from '@/store/company';
import type { Db } from '@/store/db';
import { fromStockWith, type PartAnew } from './stockAnew';
import { planOrders, type Plan, type PlannedOrder, type StockPick } from './planOrders';
import type { Picked } from '@/store/gathering';
import { invoicingOf, type Comparison } from '@/store/invoices';
import { loadMoney, valuesOf, type Money, type StoredOrder } from '@/store/orders';
import { whereIn } from '@/store/rows';
import { loadNeedStates, plannedWith, type NeedState } from '@/store/tab/needs';
import { loadSplitStates, type ChargedSplit } from '@/store/tab/splits';
import { loadLevels } from '@/store/levels';

export type NamedEffect = Effect & { readonly job: string; readonly code: string; readonly codeName: string };

async function nameEffects(db: Db, found: readonly Effect[]): Promise<NamedEffect[]> {
  const codes = new Map((await loadCostCodes(db)).map((c) => [c.id, c]));
  const ids = found.map((e) => e.jobId);
  const jobs = new Map((await whereIn(db, 'job', 'id', ids)).map((j) => [j.id, j.number]));
  return found
    .map((e) => ({
      ...e,
      job: jobs.get(e.jobId) ?? '',
      code: codes.get(e.costCodeId)?.code ?? '',
      codeName: codes.get(e.costCodeId)?.name ?? '',
    }))
    .sort((x, y) => x.job.localeCompare(y.job) || x.code.localeCompare(y.code));
}

/** What an account gains when an amount is drafted or invoiced for it; nothing for stores, which has no budget. */
const gaining = ({ jobId, costCodeId }: Account, stage: 'drafted' | 'actual', amount: number): Change[] =>
  jobId === null || costCodeId === null || amount === 0
    ? []
    : [{ jobId, costCodeId, amounts: { ...NOTHING, [stage]: minor(amount) } }];

type Covered = { readonly splits: readonly SplitState[]; readonly fromStock: FromStock };

/** What is planned for needs now, and as it would be if these were what covers them. */
const replanning = (
  needs: readonly NeedState[],
  currency: string,
  then: (need: NeedState) => Covered,
): { need: NeedState; change: Change }[] =>
  needs.map((need) => {
    const [before, after] = [plannedWith(need, need, currency), plannedWith(need, then(need), currency)];
    return { need, change: moving(need.jobId, need.costCodeId, before, after) };
  });

const jobsOf = (changes: readonly Change[]) => [...new Set(changes.map((c) => c.jobId))];

const drafted = (ordered: Quantity): SplitState => ({
  commitment: 'drafted',
  ordered,
  value: minor(0),
  received: NONE,
  givenUp: NONE,
  invoiced: NONE,
  claimed: NONE,
  invoicedAmount: minor(0),
});

export type GatherPreview = { readonly plan: Plan; readonly effects: readonly NamedEffect[] };

/** What drafting these picks would make and do to every budget, without writing anything. */
export async function gatherEffects(
  db: Db,
  picks: readonly Picked[],
  today: Day,
  joined: readonly number[] = [],
  stock: readonly StockPick[] = [],
): Promise<GatherPreview> {
  const plan = await planOrders(db, picks, today, joined, stock);
  const money = await loadMoney(db);
  const states = await loadNeedStates(
    db,
    plan.needs.map((n) => n.id),
  );
  const covering = groupBy(
    plan.orders.flatMap((o) => o.goods.flatMap((l) => l.splits)),
    (s) => s.needId,
  );
  const replanned = replanning(states, money.companyCurrency, (n) => ({
    ...n,
    splits: [...n.splits, ...(covering.get(n.id) ?? []).map((s) => drafted(s.quantity))],
  }));
  const changes = [...plan.orders.flatMap((o) => changesOf(o, money)), ...replanned.map((r) => r.change)];
  return { plan, effects: await nameEffects(db, effects(await loadLevels(db, jobsOf(changes)), changes)) };
}

/** What an order gains each account when it is drafted, or when lines join it. */
function changesOf({ supplier, rate, into, lines }: PlannedOrder, { codes, companyCurrency }: Money): Change[] {
  const terms = { currency: into?.currency ?? supplier.currency, companyCurrency, rate };
  const after = valueOrder(lines, codes, terms).flatMap((l) => l.splits.flatMap((s) => gaining(s, 'drafted', s.value)));
  return into === undefined ? after : [...after, ...draftedBy(into).map(undoing)];
}

/** A line with what each of its parts comes to: stored, or worked out anew. */
type Draftable = {
  readonly splits: readonly (Account & {
    readonly needId: number | null;
    readonly quantity: Quantity;
    readonly value: number;
  })[];
};

const draftedBy = (order: { readonly lines: readonly Draftable[] }): Change[] =>
  valuesOf(order).flatMap((v) => gaining(v, 'drafted', v.value));

/**
 * What an order that is still being drafted does to every budget it touches: before it, and with it.
 * @param lines - as they are, or as they would be saved
 */
export async function orderEffects(
  db: Db,
  order: StoredOrder,
  lines: readonly Draftable[] = order.lines,
): Promise<NamedEffect[]> {
  const { currency } = await loadCompany(db);
  const own = new Set(order.lines.flatMap((l) => l.splits.map((s) => s.id)));
  const then = lines.flatMap((l) => l.splits);
  const needs = await loadNeedStates(
    db,
    [...order.lines.flatMap((l) => l.splits), ...then].flatMap((s) => s.needId ?? []),
  );
  const covering = groupBy(then, (s) => s.needId);
  const others = (need: NeedState) => ({ ...need, splits: need.splits.filter((s) => !own.has(s.id)) });
  const replanned = needs.map(others).map((n) => {
    const covers = (covering.get(n.id) ?? []).map((s) => drafted(s.quantity));
    const then = { ...n, splits: [...n.splits, ...covers] };
    return moving(n.jobId, n.costCodeId, plannedWith(n, n, currency), plannedWith(n, then, currency));
  });
  const changes = [...draftedBy({ lines }), ...replanned];
  // Without the order: what it holds now is taken away, and what it covers is planned again.
  const away = [...draftedBy(order).map(undoing), ...replanning(needs, currency, others).map((r) => r.change)];
  const levels = await loadLevels(db, jobsOf([...changes, ...away]));
  const without = effects(levels, away).map((e) => ({ ...e, ...e.after }));
  return nameEffects(db, effects([...levels, ...without], changes));
}

/** A part of an order as it stands, or as it would stand; a new one has no id yet. */
type MovedSplit = Omit<ChargedSplit, 'id' | 'lineId' | 'stored' | 'uncertified'> & { readonly id: number | undefined };

/** What every budget gains when parts of orders go from how they stand to how they would. */
async function movingParts(
  db: Db,
  before: readonly ChargedSplit[],
  after: readonly MovedSplit[],
  beside: readonly Change[] = [],
): Promise<NamedEffect[]> {
  const { currency } = await loadCompany(db);
  const own = new Set(before.map((s) => s.id));
  const stock = await fromStockWith(db, partsAnew(before, after));
  const needs = await loadNeedStates(db, [...[...before, ...after].flatMap((s) => s.needId ?? []), ...stock.keys()]);
  const covering = groupBy(after, (s) => s.needId);
  const then = (need: NeedState) => ({
    splits: [...need.splits.filter((s) => !own.has(s.id)), ...(covering.get(need.id) ?? [])],
    fromStock: stock.get(need.id) ?? need.fromStock,
  });
  const gained = (s: SplitState & Account, from: Amounts, to: Amounts): Change[] =>
    s.jobId === null || s.costCodeId === null ? [] : [moving(s.jobId, s.costCodeId, from, to)];
  const changes = [
    ...before.flatMap((s) => gained(s, splitStages(s), NOTHING)),
    ...after.flatMap((s) => gained(s, NOTHING, splitStages(s))),
    ...beside,
    ...replanning(needs, currency, then).map((r) => r.change),
  ];
  return nameEffects(db, effects(await loadLevels(db, jobsOf(changes)), changes));
}

/** Parts that were there as they would stand; one that would be left out brings nothing any more. */
const partsAnew = (before: readonly ChargedSplit[], after: readonly MovedSplit[]): ReadonlyMap<number, PartAnew> =>
  new Map<number, PartAnew>([
    ...before.map((s) => [s.id, { ...s, commitment: 'cancelled' }] as const),
    ...after.flatMap((s) => (s.id === undefined ? [] : [[s.id, s] as const])),
  ]);

type Movable = {
  readonly id?: number | undefined;
  readonly splits: readonly (Draftable['splits'][number] & { readonly id?: number | undefined })[];
};

/** What sending a revision moves: from what was last sent to what it says. */
export async function revisionEffects(db: Db, order: StoredOrder, lines: readonly Movable[]): Promise<NamedEffect[]> {
  const before = await loadSplitStates(
    db,
    'id',
    order.lines.flatMap((l) => l.splits.map((s) => s.id)),
  );
  const known = new Map(before.map((s) => [s.id, s]));
  const ofLine = new Map(before.map((s) => [s.lineId, s.commitment]));
  const after = lines.flatMap((l) =>
    l.splits.map(({ id, jobId, costCodeId, needId, quantity: ordered, value }): MovedSplit => {
      // A new part of a line that has ended is of a line that has ended.
      const was = known.get(id ?? 0) ?? { ...drafted(NONE), commitment: ofLine.get(l.id ?? 0) ?? 'sent' };
      return { ...was, id, jobId, costCodeId, needId, ordered, value: minor(value) };
    }),
  );
  return movingParts(db, before, after);
}

/** What ending lines of an order, or opening them again, moves on every budget it touches. */
export async function endingEffects(
  db: Db,
  order: StoredOrder,
  lineIds: readonly number[],
  commitment: SplitState['commitment'],
): Promise<NamedEffect[]> {
  const ids = order.lines.filter((l) => lineIds.includes(l.id)).flatMap((l) => l.splits.map((s) => s.id));
  const before = await loadSplitStates(db, 'id', ids, { claims: true });
  return movingParts(
    db,
    before,
    before.map((s) => ({ ...s, commitment })),
  );
}

/** What matching an invoice moves on every budget it touches. */
export async function matchEffects(db: Db, comparison: Comparison): Promise<NamedEffect[]> {
  const invoicing = await invoicingOf(db, comparison);
  const parts = new Map(invoicing.parts.map((p) => [p.splitId, p]));
  const matched = (s: ChargedSplit): ChargedSplit => {
    const part = parts.get(s.id);
    if (part === undefined) return s;
    return {
      ...s,
      invoiced: quantity(s.invoiced + part.quantity),
      // What it claimed while it waited, it has now.
      claimed: quantity(Math.max(s.claimed - part.quantity, 0)),
      invoicedAmount: minor(s.invoicedAmount + part.amount),
    };
  };
  const before = await loadSplitStates(db, 'id', [...parts.keys()]);
  const beside = invoicing.extras.flatMap((b) => gaining(b, 'actual', b.amount));
  return movingParts(db, before, before.map(matched), beside);
}

/** How the budgets that an order is charged to stand now: effects that change nothing. */
export async function standingOf(db: Db, order: StoredOrder): Promise<NamedEffect[]> {
  const still = draftedBy(order).map((c) => ({ ...c, amounts: NOTHING }));
  return nameEffects(db, effects(await loadLevels(db, jobsOf(still)), still));
}
