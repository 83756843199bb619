import { LIVE } from '@/core/jobs/states';
import { z } from 'zod';
import { keyIn } from '@/core/keyIn';
import { asDay, plusDays, type Day } from '@/core/calendar/workdays';
import { CONVERTIBLE } from '@/core/quantity/units';
import type { Db } from '@/store/db';
import type { Person } from '@/store/people';
import { among, rowsOf } from '@/store/rows';
import { contextFor, joined, NEED_COLUMNS, tagged, type NeedLine, type RawNeed } from './needLine';
import { permit } from '../permit';
import { countOf } from '../sql';
import { countToBuy } from './buyList';

/** Behind every supplier and every day there is. */
const LAST = Number.MAX_SAFE_INTEGER;
const NEVER = "'9999'";

/** By what lines to buy stand together, and what they are ordered by in SQL, where nothing is null; ids come last. */
export const GATHER_GROUPS = {
  supplier: [`coalesce(n.supplier_id, ${LAST})`, `coalesce(n.needed_on, '')`],
  job: ['j.number', `coalesce(n.needed_on, '')`],
  item: [`coalesce(i.number, '')`, 'n.description', 'n.unit', `coalesce(n.needed_on, '')`],
  code: ['c.code', `coalesce(n.needed_on, '')`],
  order: [`coalesce(n.order_by, ${NEVER})`],
  day: [`coalesce(n.needed_on, ${NEVER})`],
} as const satisfies Record<string, readonly string[]>;
export type GatherGroup = keyof typeof GATHER_GROUPS;

/** Price of what a need's supplier sells today. */
const HAS_PRICE = `EXISTS (
  SELECT 1 FROM supplier_part p JOIN price_break b ON b.part_id = p.id
  WHERE p.supplier_id = n.supplier_id AND p.item_id = n.item_id
    AND b.from_day <= :today AND coalesce(b.until_day, ${NEVER}) >= :today)`;

/**
 * What lines can be looked for by, as the facts of SQL that the core's obstacles are worked out from. That both mean the
 * same is tested over lines with every obstacle.
 */
export const GATHER_SHOWS = {
  late: 'n.order_by < :today',
  week: 'n.order_by <= :week',
  trouble: `(n.order_by < :today OR n.supplier_id IS NULL OR i.bought = 0 OR (q.id IS NOT NULL AND q.agreed IS NOT 1)
    OR (n.price IS NULL AND NOT ${HAS_PRICE})
    OR (s.currency <> (SELECT currency FROM company) AND NOT EXISTS (SELECT 1 FROM exchange_rate r WHERE r.currency = s.currency AND r.day <= :today))
    OR EXISTS (SELECT 1 FROM supplier_part p WHERE p.supplier_id = n.supplier_id AND p.item_id = n.item_id
      AND p.unit <> n.unit AND i.unit <> n.unit AND i.unit || ' ' || n.unit NOT IN (SELECT value FROM json_each(:convertible))))`,
  unpriced: `n.price IS NULL AND NOT ${HAS_PRICE}`,
} as const;
export type GatherShow = keyof typeof GATHER_SHOWS;

/** How long suppliers take, in their working days, both ends with it. */
export const GATHER_LEADS = { short: [0, 5], middle: [6, 15], long: [16, LAST] } as const;
export type GatherLead = keyof typeof GATHER_LEADS;

const LEAD = `coalesce((SELECT p.lead_days FROM supplier_part p WHERE p.supplier_id = n.supplier_id AND p.item_id = n.item_id), s.lead_days)`;

export type GatherFilter = {
  readonly group?: GatherGroup | undefined;
  readonly job?: string | undefined;
  readonly supplierId?: number | undefined;
  readonly by?: Day | undefined;
  readonly words?: string | undefined;
  readonly show?: GatherShow | undefined;
  readonly lead?: GatherLead | undefined;
};

/** What an address asks of Gather. */
export const gatherFilterOf = (query: Readonly<Record<string, string | undefined>>): GatherFilter => ({
  group: keyIn(GATHER_GROUPS, query.group),
  job: query.job,
  supplierId: query.supplier === undefined ? undefined : Number(query.supplier),
  by: asDay(query.by ?? ''),
  words: query.words,
  show: keyIn(GATHER_SHOWS, query.show),
  lead: keyIn(GATHER_LEADS, query.lead),
});

export const GATHER_SHOWN = 120;

/** Groups whose order an index of lines has, so that a page of them is read without sorting all. */
const BY_INDEX: readonly GatherGroup[] = ['supplier', 'order', 'day'];

function chosen(db: Db, { group, job, supplierId, by, words, show, lead }: GatherFilter, today: Day) {
  const linesFirst = job === undefined && BY_INDEX.includes(group ?? 'supplier');
  const query = joined(db, linesFirst ? 'crossJoin' : 'join')
    .whereRaw('n.open > 0')
    .where('j.state', LIVE);
  if (job) void query.where('j.number', job);
  if (supplierId !== undefined)
    void (supplierId === 0 ? query.whereNull('n.supplierId') : query.where('n.supplierId', supplierId));
  if (by) void query.where((w) => w.where('n.neededOn', '<=', by).orWhereNull('n.neededOn'));
  if (words) void query.where((w) => w.whereLike('n.description', `%${words}%`).orWhereLike('i.number', `%${words}%`));
  if (show)
    void query.whereRaw(GATHER_SHOWS[show], {
      today,
      week: plusDays(today, 7),
      convertible: JSON.stringify(CONVERTIBLE),
    });
  if (lead) void query.whereRaw(`${LEAD} BETWEEN ? AND ?`, [...GATHER_LEADS[lead]]);
  return query;
}

const cursor = z.array(z.union([z.string(), z.number()]));

/** Where a page begins, by what its lines are ordered by; nothing for what is no such place. */
function placeOf(after: string, length: number): (string | number)[] | undefined {
  try {
    const read = cursor.length(length).safeParse(JSON.parse(after));
    return read.data;
  } catch {
    return undefined;
  }
}

/**
 * A page of what is still to buy over all live jobs, in the order of its groups.
 * @param after - where the page before ended
 * @returns its lines, and where the next one begins; undefined after the last
 */
export async function pageOfOpenNeeds(
  db: Db,
  person: Person,
  today: Day,
  filter: GatherFilter,
  after: string | undefined,
  size = 500,
): Promise<{ rows: NeedLine[]; next: string | undefined }> {
  permit(person, 'draft orders');
  const keys = [...GATHER_GROUPS[filter.group ?? 'supplier'], 'n.id'];
  const query = chosen(db, filter, today);
  const place = after === undefined ? undefined : placeOf(after, keys.length);
  if (place !== undefined)
    void query.whereRaw(`(${keys.join(', ')}) > (${keys.map(() => '?').join(', ')})`, place as string[]);
  // What they are ordered by is read by itself: sorting is of little, and the lines are read after.
  const found = await rowsOf<{ id: number; place: string }>(
    query
      .orderByRaw(keys.join(', '))
      .limit(size)
      .select({ id: 'n.id' }, db.raw(`json_array(${keys.join(', ')}) as place`)),
  );
  const ids = found.map((f) => f.id);
  const raw = new Map(
    (
      await rowsOf<RawNeed>(
        joined(db)
          .whereIn('n.id', among(db, ids))
          .select(...NEED_COLUMNS),
      )
    ).map((r) => [r.id, r]),
  );
  const rows = ids.flatMap((id) => raw.get(id) ?? []);
  const context = await contextFor(db, rows, today);
  return { rows: rows.map((r) => tagged(r, context)), next: found.length < size ? undefined : found.at(-1)?.place };
}

/** Lines of live jobs that should have been ordered before today, the latest first. */
export async function listLate(db: Db, person: Person, today: Day, most: number): Promise<NeedLine[]> {
  return (await pageOfOpenNeeds(db, person, today, { group: 'order', show: 'late' }, undefined, most)).rows;
}

/** The first page of what is still to buy, and how many lines there are in all. */
export async function listOpenNeeds(
  db: Db,
  person: Person,
  today: Day,
  filter: GatherFilter,
): Promise<{ rows: NeedLine[]; next: string | undefined; total: number }> {
  const page = await pageOfOpenNeeds(db, person, today, filter, undefined, GATHER_SHOWN);
  const { group: _, ...narrowed } = filter;
  const all = Object.values(narrowed).every((f) => f === undefined);
  return { ...page, total: all ? await countToBuy(db) : await countOf(chosen(db, filter, today)) };
}
