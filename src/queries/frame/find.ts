import { listed, rowsOf } from '@/store/rows';
import { OPEN_QUOTE_STATES } from '@/core/quotes/winning';
import { OPEN_JOB_STATES } from '@/core/jobs/states';
import { closeness } from '@/core/find/words';
import { may, type Right } from '@/core/people/rights';
import type { Db } from '@/store/db';
import { findIds, listLastUsed, soughtFor, soughtNear, type FindKind, type Sought } from '@/store/find';
import type { Person } from '@/store/people';

export type Found = {
  readonly kind: FindKind;
  readonly id: number;
  readonly label: string;
  readonly detail: string;
  readonly href: string;
};

type Row = {
  readonly id: number;
  readonly label: string;
  readonly detail: string;
  readonly href: string;
  /** Still in work: stands before what is done with. */
  readonly open: number;
};

type Kind = {
  readonly kind: FindKind;
  readonly right: Right;
  /** Rows with label, detail, address and whether it is open, of the table `t`. */
  readonly from: (person: Person) => string;
};

const order = (person: Person) => (may(person, 'see money') ? `'/orders/'` : `'/dock/'`);

/** In the order in which kinds are shown. */
const KINDS: readonly Kind[] = [
  {
    kind: 'job',
    right: 'see jobs',
    from: () =>
      `t.number as label, t.name as detail, '/jobs/' || t.number as href, t.state in (${listed(OPEN_JOB_STATES)}) as open from job t`,
  },
  {
    kind: 'order',
    right: 'see orders',
    from: (p) =>
      `t.number as label, s.name as detail, ${order(p)} || t.number as href, t.state not in ('settled', 'cancelled') as open
       from purchase_order t join supplier s on s.id = t.supplier_id`,
  },
  {
    kind: 'need',
    right: 'see jobs',
    from: () =>
      `t.description as label, j.number || ' ' || j.short_name as detail, '/jobs/' || j.number || '/buy-list\\?need=' || t.id as href, t.open > 0 as open
       from need t join job j on j.id = t.job_id`,
  },
  {
    kind: 'item',
    right: 'see money',
    from: () => `t.number as label, t.name as detail, '/items/' || t.id as href, 1 as open from item t`,
  },
  {
    kind: 'supplier',
    right: 'see money',
    from: () => `t.name as label, t.contact as detail, '/suppliers/' || t.id as href, 1 as open from supplier t`,
  },
  {
    kind: 'invoice',
    right: 'see invoices',
    from: () =>
      `t.number as label, s.name as detail, '/invoices/' || t.id as href, t.state in ('entered', 'held') as open
       from invoice t join supplier s on s.id = t.supplier_id`,
  },
  {
    kind: 'receipt',
    right: 'see dock',
    from: () =>
      `t.number as label, o.number || coalesce(' · ' || nullif(t.note, ''), '') as detail, '/dock/' || o.number as href, 1 as open
       from receipt t join purchase_order o on o.id = t.order_id`,
  },
  {
    kind: 'lot',
    right: 'see stores',
    from: () =>
      `t.number as label, i.number || ' ' || i.name as detail, '/stores/numbers/' || t.id as href,
       exists (select 1 from stock_spot s where s.lot_id = t.id and s.quantity > 0) as open from lot t join item i on i.id = t.item_id`,
  },
  {
    kind: 'quote',
    right: 'see money',
    from: () =>
      `t.number as label, j.name as detail, '/jobs/' || j.number || '/quote' as href, t.state in (${listed(OPEN_QUOTE_STATES)}) as open
       from quote t join job j on j.id = t.job_id`,
  },
  {
    kind: 'person',
    right: 'manage people',
    from: () => `t.name as label, t.email as detail, '/people/' || t.id as href, t.active as open from person t`,
  },
];

const EACH = 6;
/** So many of the newest are looked at, to put the open ones first. */
const NEWEST = 60;
const BEFORE_TYPING = 8;

async function foundOf(db: Db, person: Person, { kind, from }: Kind, ids: readonly number[]): Promise<(Row & Found)[]> {
  const rows = await rowsOf<Row>(
    db.raw(`select t.id, ${from(person)} where t.id in (select value from json_each(?))`, [JSON.stringify(ids)]),
  );
  return rows.map((row) => ({ kind, ...row }));
}

const bare = ({ open: _, ...found }: Row & Found): Found => found;

/** What a person opened or picked last, the latest first. */
async function lastUsed(db: Db, person: Person, kinds: readonly Kind[]): Promise<Found[]> {
  const used = await listLastUsed(db, person.id, BEFORE_TYPING * 3);
  const rows: (Row & Found)[] = [];
  for (const kind of kinds) {
    const ids = used.filter((u) => u.kind === kind.kind).map((u) => u.thingId);
    if (ids.length > 0) rows.push(...(await foundOf(db, person, kind, ids)));
  }
  const place = new Map(used.map((u, k) => [`${u.kind}/${u.thingId}`, k]));
  const at = (row: Found) => place.get(`${row.kind}/${row.id}`) ?? 0;
  return rows
    .sort((a, b) => at(a) - at(b))
    .slice(0, BEFORE_TYPING)
    .map(bare);
}

/**
 * Looks for anything by its number or words, whatever its kind: what is called so first, then what is open, then the
 * newest; with a slip forgiven where nothing is found as it is typed. Before anything is typed, what the person used last.
 * Only what the person may see.
 */
export async function find(db: Db, person: Person, words: string): Promise<Found[]> {
  const kinds = KINDS.filter((k) => may(person, k.right));
  if (words.trim() === '') return lastUsed(db, person, kinds);
  const exactly = await findAmong(db, person, kinds, soughtFor(words), words);
  if (exactly.length > 0) return exactly;
  const near = await soughtNear(db, words);
  return near === undefined ? [] : findAmong(db, person, kinds, near, words);
}

async function findAmong(
  db: Db,
  person: Person,
  kinds: readonly Kind[],
  sought: Sought,
  words: string,
): Promise<Found[]> {
  const all: Found[] = [];
  for (const kind of kinds) {
    const ids = await findIds(db, kind.kind, sought, NEWEST);
    if (ids.length === 0) continue;
    const place = new Map(ids.map((id, k) => [id, k]));
    const rows = (await foundOf(db, person, kind, ids)).sort(
      (a, b) =>
        closeness(words, a.label) - closeness(words, b.label) ||
        b.open - a.open ||
        (place.get(a.id) ?? 0) - (place.get(b.id) ?? 0),
    );
    all.push(...rows.slice(0, EACH).map(bare));
  }
  // What bears exactly this number or name comes before all else, whatever its kind.
  const others = (f: Found) => Number(closeness(words, f.label) > 0);
  return all.sort((a, b) => others(a) - others(b));
}
