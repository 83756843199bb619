import type { GotBy } from '@/core/boms/bom';
import type { Day } from '@/core/calendar/workdays';
import { groupBy } from '@/core/group';
import { readinessOf, type Awaited, type Readiness } from '@/core/planning/ready';
import { GONE, branchesInPlan, type PlannedWork } from '@/core/planning/plan';
import type { Planning } from '@/core/planning/netting';
import type { Quantity } from '@/core/quantity/quantity';
import { loadCalendar, loadCompany } from '@/store/company';
import type { Db } from '@/store/db';
import { loadItems, loadParts, partKey } from '@/store/gathering';
import { loadLeads } from '@/store/leads';
import type { Person } from '@/store/people';
import { loadPlan } from '@/workings/buying/plans';
import { among, whereIn, rowsOf } from '@/store/rows';
import type { PlanLineRow } from '@/store/tables';
import { joined, NEED_COLUMNS, type RawNeed } from './needLine';
import { withProgress, type BuyListLine } from './buyList';
import { isToOrder, listMissing, type MissingRow } from './material';
import { permit } from '../permit';
import type { Choice } from '../frame/choices';
import { LINES_PAGE } from '../sql';

export type PlanRow = {
  /** Of the branch, or of a line to buy that stands in no BOM. */
  readonly key: string;
  readonly parent: string | null;
  readonly lineId: number | null;
  readonly level: number;
  readonly description: string;
  readonly number: string | null;
  readonly gotBy: GotBy;
  readonly work: PlannedWork;
  /** The number of the piece of work that it begins: 421-1. */
  readonly piece: string | null;
  readonly leftOut: string | null;
  readonly isIn: boolean;
  readonly quantity: Quantity;
  readonly unit: string;
  readonly neededOn: Day | null;
  /** The line to buy; null for what is made, for labour, and for what is left out. */
  readonly need: BuyListLine | null;
};

/** A piece of work, and whether its material is there. */
export type PieceOfWork = {
  readonly number: string;
  readonly name: string;
  readonly startsOn: Day | null;
  readonly ready: Readiness;
};

export type PlanView = {
  readonly version: number;
  readonly planning: Planning;
  /** What the job makes by BOMs, and how many of each. */
  readonly roots: readonly {
    readonly lineId: number;
    readonly itemId: number;
    readonly number: string;
    readonly quantity: Quantity;
    readonly unit: string;
    /** Since when the BOM that it is planned by holds. */
    readonly since: Day | null;
  }[];
  readonly rows: readonly PlanRow[];
  /** How many rows there are; a page of them is shown. */
  readonly of: number;
  readonly work: readonly PieceOfWork[];
  /** What lines of a won quote say is made, by an item that has a BOM, and is not planned yet. */
  readonly toMake: readonly { readonly item: Choice; readonly quantity: Quantity; readonly unit: string }[];
};

/** The pieces of work of a plan, each with its number: the job's own for the first, 421-1, 421-2 for what is made apart. */
function numbersOf(lines: readonly PlanLineRow[], job: string): Map<number, string> {
  const own = lines.filter((l) => l.parentId !== null && l.gotBy === 'made' && l.work === 'own');
  return new Map([
    ...lines.filter((l) => l.parentId === null).map((l) => [l.id, job] as const),
    ...own.map((l, k) => [l.id, `${job}-${k + 1}`] as const),
  ]);
}

/** How a job's material is planned: its BOMs with every branch, what else is to buy, and when work can start. */
export async function loadPlanView(
  db: Db,
  person: Person,
  job: { readonly id: number; readonly number: string; readonly name: string; readonly startsOn: Day | null },
  today: Day,
  from = 0,
): Promise<PlanView> {
  permit(person, 'see jobs');
  const { version = 0, planning = 'inFull' } =
    (await db('job').where({ id: job.id }).first('version', 'planning')) ?? {};
  const all = await loadPlan(db, job.id);
  const lines = all.filter((l) => l.leftOut !== GONE);
  const standing = branchesInPlan(lines);
  const numbers = numbersOf(lines, job.number);
  const others = (await db('need').where({ jobId: job.id }).whereNull('planLineId').select('id')).map((n) => n.id);
  const page = lines.slice(from, from + LINES_PAGE);
  const own = await db('need')
    .whereIn(
      'planLineId',
      among(
        db,
        page.map((l) => l.id),
      ),
    )
    .select('id');
  const rest = others.slice(Math.max(from - lines.length, 0), Math.max(from + LINES_PAGE - lines.length, 0));
  const needs = await needLines(db, person, [...own.map((n) => n.id), ...rest], today);
  const byLine = new Map(
    (
      await whereIn(
        db,
        'need',
        'planLineId',
        page.map((l) => l.id),
      )
    ).map((n) => [n.planLineId ?? 0, n.id]),
  );
  const items = await loadItems(
    db,
    page.flatMap((l) => l.itemId ?? []),
  );
  const rows = page.map((l): PlanRow => {
    const at = standing.get(l.id);
    const need = needs.get(byLine.get(l.id) ?? 0);
    return {
      key: `line ${l.id}`,
      parent: l.parentId === null ? null : `line ${l.parentId}`,
      lineId: l.id,
      level: at?.level ?? 0,
      number: items.get(l.itemId ?? 0)?.number ?? null,
      piece: numbers.get(l.id) ?? null,
      isIn: at?.isIn ?? true,
      need: need ?? null,
      ...{ description: l.description, gotBy: l.gotBy, work: l.work, leftOut: l.leftOut },
      ...{ quantity: l.quantity, unit: l.unit, neededOn: l.neededOn },
    };
  });
  const beside = rest.flatMap((id): PlanRow[] => {
    const need = needs.get(id);
    return need === undefined ? [] : [besideBoms(need)];
  });
  return {
    version,
    planning,
    roots: await rootsOf(db, lines),
    rows: [...rows, ...beside],
    of: lines.length + others.length,
    work: await workOf(db, job, lines, numbers, today),
    toMake: await toMakeOf(db, job.id),
  };
}

async function toMakeOf(db: Db, jobId: number): Promise<PlanView['toMake']> {
  const rows = await rowsOf<{
    id: number;
    number: string;
    name: string;
    quantity: Quantity;
    unit: string;
  }>(
    db('quoteLine as l')
      .join('quote as q', 'q.id', 'l.quoteId')
      .join('item as i', 'i.id', 'l.itemId')
      .where({ 'q.jobId': jobId, 'q.state': 'won', 'l.kind': 'made', 'l.agreed': 1 })
      .whereNull('q.revisedAs')
      .whereRaw('exists (select 1 from bom b where b.item_id = i.id)')
      .whereRaw(
        'not exists (select 1 from plan_line p where p.job_id = q.job_id and p.item_id = i.id and p.parent_id is null)',
      )
      .orderBy('l.place')
      .select('i.id', 'i.number', 'i.name', 'l.quantity', 'l.unit'),
  );
  return rows.map(({ id, number, name, quantity, unit }) => ({
    item: { id, number, name, detail: '' },
    quantity,
    unit,
  }));
}

const besideBoms = (need: BuyListLine): PlanRow => ({
  key: `need ${need.id}`,
  parent: null,
  lineId: null,
  level: 0,
  gotBy: 'bought',
  work: 'within',
  piece: null,
  leftOut: null,
  isIn: true,
  need,
  ...{ description: need.description, number: need.number },
  ...{ quantity: need.quantity, unit: need.unit, neededOn: need.neededOn },
});

async function needLines(
  db: Db,
  person: Person,
  ids: readonly number[],
  today: Day,
): Promise<Map<number, BuyListLine>> {
  const raws = await rowsOf<RawNeed>(
    joined(db)
      .whereIn('n.id', among(db, ids))
      .select(...NEED_COLUMNS),
  );
  return new Map((await withProgress(db, person, raws, today)).map((n) => [n.id, n]));
}

async function rootsOf(db: Db, lines: readonly PlanLineRow[]): Promise<PlanView['roots']> {
  const roots = lines.filter((l) => l.parentId === null);
  const items = await loadItems(
    db,
    roots.flatMap((l) => l.itemId ?? []),
  );
  const boms = new Map(
    (
      await whereIn(
        db,
        'bom',
        'id',
        roots.flatMap((l) => l.bomId ?? []),
      )
    ).map((b) => [b.id, b]),
  );
  return roots.map(({ id, itemId, quantity, unit, bomId }) => ({
    lineId: id,
    itemId: itemId ?? 0,
    number: items.get(itemId ?? 0)?.number ?? '',
    quantity,
    unit,
    since: boms.get(bomId ?? 0)?.fromDay ?? null,
  }));
}

async function workOf(
  db: Db,
  job: { readonly id: number; readonly number: string; readonly name: string; readonly startsOn: Day | null },
  lines: readonly PlanLineRow[],
  numbers: ReadonlyMap<number, string>,
  today: Day,
): Promise<PieceOfWork[]> {
  const calendar = await loadCalendar(db);
  const { receivingDays } = await loadCompany(db);
  const rows = await listMissing(db, [job.id]);
  const parts = await loadParts(
    db,
    rows.flatMap((r) => r.itemId ?? []),
    today,
  );
  const leads = await loadLeads(
    db,
    rows.map((r) => r.supplierId),
  );
  const standing = branchesInPlan(lines);
  // What stands in no BOM belongs to the job's own work.
  const first = lines.find((l) => l.parentId === null)?.id ?? 0;
  const pieceOf = (row: MissingRow) => {
    const piece = standing.get(row.planLineId ?? 0)?.piece ?? first;
    return lines.find((l) => l.id === piece)?.parentId === null ? first : piece;
  };
  const awaited = groupBy(rows, pieceOf);
  const asAwaited = (r: MissingRow): Awaited => ({
    description: r.description,
    promisedOn: r.promisedOn,
    toOrder: isToOrder(r),
    lead: leads(r.supplierId, parts.get(partKey(r.supplierId, r.itemId))),
  });
  const ready = (id: number) => readinessOf((awaited.get(id) ?? []).map(asAwaited), today, receivingDays, calendar);
  const own = lines.filter((l) => l.parentId !== null && numbers.has(l.id) && standing.get(l.id)?.isIn === true);
  const top = lines.find((l) => l.id === first);
  return [
    // What is made first is told first: the deepest.
    ...own.toReversed().map((l) => ({
      number: numbers.get(l.id) ?? '',
      name: l.description,
      startsOn: l.startsOn,
      ready: ready(l.id),
    })),
    {
      number: job.number,
      name: top?.description ?? job.name,
      startsOn: top?.startsOn ?? job.startsOn,
      ready: ready(first),
    },
  ];
}
