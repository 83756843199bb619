import type { Day } from '@/core/calendar/workdays';
import type { Db } from '@/store/connection';
import type { Person } from '@/store/people';
import { contextFor, joined, NEED_COLUMNS, tagged, type NeedLine, type RawNeed } from './needLine';
import { permit } from './permit';

/** By what lines to buy stand together, and the order of SQL that brings them so. */
export const GATHER_GROUPS = {
  supplier: 'n.supplier_id, n.needed_on, n.id',
  job: 'j.number, n.needed_on, n.id',
  item: "coalesce(i.number, ''), n.description, n.unit, n.needed_on, n.id",
  code: 'c.code, n.needed_on, n.id',
  day: "coalesce(n.needed_on, '9999'), n.id",
} as const;
export type GatherGroup = keyof typeof GATHER_GROUPS;

export type GatherFilter = {
  readonly group?: GatherGroup | undefined;
  readonly job?: string | undefined;
  readonly supplierId?: number | undefined;
  readonly by?: Day | undefined;
  readonly words?: string | undefined;
};
export const GATHER_SHOWN = 120;
const PAGE = 500;

const chosen = (query: ReturnType<Db>, { job, supplierId, by, words }: GatherFilter) => {
  void query.whereRaw('n.open > 0').where('j.state', 'live');
  if (job) void query.where('j.number', job);
  if (supplierId !== undefined)
    void (supplierId === 0 ? query.whereNull('n.supplierId') : query.where('n.supplierId', supplierId));
  if (by) void query.where((w) => w.where('n.neededOn', '<=', by).orWhereNull('n.neededOn'));
  if (words) void query.where((w) => w.whereLike('n.description', `%${words}%`).orWhereLike('i.number', `%${words}%`));
  return query;
};

const lines = async (db: Db, rows: readonly RawNeed[], today: Day): Promise<NeedLine[]> => {
  const context = await contextFor(db, rows, today);
  return rows.map((r) => tagged(r, context));
};

/** What is still to buy over all live jobs, by supplier and needed date. */
export async function listOpenNeeds(
  db: Db,
  person: Person,
  today: Day,
  filter: GatherFilter,
): Promise<{ rows: NeedLine[]; total: number }> {
  permit(person, 'draft orders');
  const counted = db('need as n').join('job as j', 'j.id', 'n.jobId');
  if (filter.words) void counted.leftJoin('item as i', 'i.id', 'n.itemId');
  const [count] = (await chosen(counted, filter).count({ n: '*' })) as { n: number }[];
  // Lines without a supplier stand last; asked for apart, both parts come out in the order of the index.
  const part = async (limit: number, named: boolean): Promise<RawNeed[]> =>
    limit <= 0
      ? []
      : ((await chosen(joined(db), filter)
          .whereRaw(`n.supplier_id is ${named ? 'not ' : ''}null`)
          .orderByRaw('n.supplier_id, n.needed_on, n.id')
          .limit(limit)
          .select(...NEED_COLUMNS)) as RawNeed[]);
  const { group = 'supplier' } = filter;
  const bySupplier = async () => {
    const named = await part(GATHER_SHOWN, true);
    return [...named, ...(await part(GATHER_SHOWN - named.length, false))];
  };
  const rows =
    group === 'supplier'
      ? await bySupplier()
      : ((await chosen(joined(db), filter)
          .orderByRaw(GATHER_GROUPS[group])
          .limit(GATHER_SHOWN)
          .select(...NEED_COLUMNS)) as RawNeed[]);
  return { rows: await lines(db, rows, today), total: count?.n ?? 0 };
}

/** A page of the same lines in the same order, however many there are. */
export async function pageOfOpenNeeds(
  db: Db,
  person: Person,
  today: Day,
  filter: GatherFilter,
  after: string | undefined,
  size = PAGE,
): Promise<{ rows: NeedLine[]; next: string | undefined }> {
  permit(person, 'draft orders');
  const query = chosen(joined(db), filter);
  const [supplierId, neededOn, id] = (after ?? '').split(' ');
  if (after !== undefined)
    void query.whereRaw(`(${PLACE}) > (?, ?, ?)`, [Number(supplierId), neededOn ?? '', Number(id)]);
  const rows = (await query
    .orderByRaw(PLACE)
    .limit(size)
    .select(...NEED_COLUMNS)) as RawNeed[];
  const last = rows.length < size ? undefined : rows.at(-1);
  const next = last && `${last.supplierId ?? LAST} ${last.neededOn ?? ''} ${last.id}`;
  return { rows: await lines(db, rows, today), next };
}

/** Behind every supplier there is. */
const LAST = Number.MAX_SAFE_INTEGER;
const PLACE = `coalesce(n.supplier_id, ${LAST}), coalesce(n.needed_on, ''), n.id`;
