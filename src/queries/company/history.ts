import { asDay, type Day } from '@/core/calendar/workdays';
import type { Changes } from '@/core/difference';
import { groupBy } from '@/core/group';
import { namedIn, tellChanges, type Look, type NamedKind, type ToldChange } from '@/core/history/tell';
import { may } from '@/core/people/rights';
import { loadCompany } from '@/store/company';
import type { Db } from '@/store/db';
import type { Person } from '@/store/people';
import { among, rowsOf, rowOf } from '@/store/rows';
import { permit } from '../permit';

/** What the record is about; settings are of the company. */
export const ABOUT = {
  job: 'Jobs',
  quote: 'Quotes',
  order: 'Orders',
  receipt: 'Deliveries',
  invoice: 'Invoices',
  supplier: 'Suppliers',
  item: 'Items',
  company: 'Settings',
  person: 'People',
} as const;
export type About = keyof typeof ABOUT;

const isAbout = (kind: string | undefined): kind is About => kind !== undefined && Object.hasOwn(ABOUT, kind);

export type HistoryFilter = {
  readonly about?: About;
  /** One thing of that kind. */
  readonly id?: number;
  readonly personId?: number;
  readonly from?: Day;
  readonly upTo?: Day;
  readonly words?: string;
};

/** The filters of the record as they stand in an address. */
export function historyFilterOf(query: Readonly<Record<string, string | undefined>>): HistoryFilter {
  const id = (text: string | undefined) => (/^\d{1,15}$/.test(text ?? '') ? Number(text) : undefined);
  return {
    about: isAbout(query.about) ? query.about : undefined,
    id: id(query.id),
    personId: id(query.who),
    from: asDay(query.from ?? ''),
    upTo: asDay(query.upTo ?? ''),
    words: query.words,
  };
}

export type HistoryRow = {
  readonly id: number;
  readonly at: string;
  readonly day: Day;
  readonly words: string;
  readonly who: string;
  /** Whether it says what stood there before and what stands there now. */
  readonly tells: boolean;
};

const HISTORY_PAGE = 100;

function found(db: Db, person: Person, filter: HistoryFilter) {
  permit(person, 'see money');
  const { about, id, personId, from, upTo, words } = filter;
  const query = db('audit as a').join('person as p', 'p.id', 'a.personId');
  if (about !== undefined && id !== undefined)
    void query.join('auditSubject as s', 's.auditId', 'a.id').where({ 's.kind': about, 's.subjectId': id });
  else if (about !== undefined)
    void query.whereExists(db('auditSubject as s').whereRaw('s.audit_id = a.id').where({ 's.kind': about }));
  // What is kept of people is for those who manage them.
  if (!may(person, 'manage people'))
    void query.whereNotExists(db('auditSubject as o').whereRaw('o.audit_id = a.id').where({ 'o.kind': 'person' }));
  if (personId !== undefined) void query.where('a.personId', personId);
  if (from !== undefined) void query.where('a.day', '>=', from);
  if (upTo !== undefined) void query.where('a.day', '<=', upTo);
  if (words !== undefined) void query.whereRaw('instr(lower(a.words), lower(?)) > 0', [words]);
  return query;
}

/** What happened, newest first; a page at a time. */
export async function loadHistory(
  db: Db,
  person: Person,
  filter: HistoryFilter,
  before?: number,
): Promise<{ rows: HistoryRow[]; more: boolean }> {
  const query = found(db, person, filter);
  if (before !== undefined) void query.where('a.id', '<', before);
  const rows = await rowsOf<Omit<HistoryRow, 'tells'> & { readonly tells: 0 | 1 }>(
    query
      .orderBy('a.id', 'desc')
      .limit(HISTORY_PAGE + 1)
      .select('a.id', 'a.at', 'a.day', 'a.words', { who: 'p.name' }, db.raw('a.changes is not null as tells')),
  );
  return {
    rows: rows.slice(0, HISTORY_PAGE).map((r) => ({ ...r, tells: r.tells === 1 })),
    more: rows.length > HISTORY_PAGE,
  };
}

export type HistoryRecord = HistoryRow & {
  readonly subjects: string;
  readonly changes: readonly ToldChange[];
  readonly seal: string;
};

type Stored = Omit<HistoryRow, 'tells'> & { readonly changes: string | null; readonly seal: string };

/** Whole records, with what changed told in words; as many as are asked for, and in the filter. */
export async function loadRecords(
  db: Db,
  person: Person,
  filter: HistoryFilter,
  ids: readonly number[],
): Promise<HistoryRecord[]> {
  const rows = await rowsOf<Stored>(
    found(db, person, filter)
      .whereIn('a.id', among(db, ids))
      .leftJoin('seal as l', (on) => on.on('l.rowId', 'a.id').onVal('l.source', 'audit'))
      .orderBy('a.id', 'desc')
      .select('a.id', 'a.at', 'a.day', 'a.words', 'a.changes', { who: 'p.name' }, { seal: 'l.hash' }),
  );
  const { currency } = await loadCompany(db);
  const about = groupBy(await db('auditSubject').whereIn('auditId', among(db, ids)), (s) => s.auditId);
  const all: HistoryRecord[] = [];
  for (const { changes, ...row } of rows) {
    const told = JSON.parse(changes ?? '{}') as Changes;
    const subjects = about.get(row.id) ?? [];
    const look = await lookOf(db, currency, told, subjects);
    all.push({
      ...row,
      tells: changes !== null,
      subjects: subjects
        .map((s) => look.name(s.kind as NamedKind, s.subjectId))
        .filter(Boolean)
        .join(', '),
      changes: tellChanges(told, look),
    });
  }
  return all;
}

export const loadRecord = async (db: Db, person: Person, id: number): Promise<HistoryRecord | undefined> =>
  (await loadRecords(db, person, {}, [id]))[0];

/** Where the name of each kind of thing stands. */
const NAMES: Readonly<Record<NamedKind, readonly [table: string, name: string]>> = {
  person: ['person', 'name'],
  job: ['job', 'number'],
  costCode: ['cost_code', "code || ' ' || name"],
  supplier: ['supplier', 'name'],
  item: ['item', "number || ' ' || name"],
  place: ['delivery_place', 'name'],
  tax: ['tax_code', 'name'],
  customer: ['customer', 'name'],
  order: ['purchase_order', 'number'],
  quote: ['quote', 'number'],
  invoice: ['invoice', 'number'],
};

/** What the one thing is called whose history is looked at. */
export async function nameSubject(db: Db, person: Person, { about, id }: HistoryFilter): Promise<string | undefined> {
  permit(person, about === 'person' ? 'manage people' : 'see money');
  if (about === undefined || id === undefined || about === 'company' || about === 'receipt') return undefined;
  const [table, name] = NAMES[about];
  const row = await rowOf<{ words: string }>(
    db(table)
      .where({ id })
      .first(db.raw(`${name} as words`)),
  );
  return row?.words;
}

/** Where the lines of a document stand, and what they are called. */
const LINES: Readonly<Record<string, string>> = {
  order: "select id, 'line ' || place || ', ' || description as words from order_line where order_id = ?",
  quote: "select id, 'line ' || place || ', ' || description as words from quote_line where quote_id = ?",
  invoice: "select id, 'line ' || place || ', ' || description as words from invoice_line where invoice_id = ?",
};

type Subject = { readonly kind: string; readonly subjectId: number };

async function lookOf(db: Db, own: string, changes: Changes, subjects: readonly Subject[]): Promise<Look> {
  const wanted = new Map([...namedIn(changes)].map(([kind, ids]) => [kind, new Set(ids)]));
  for (const { kind, subjectId } of subjects)
    if (Object.hasOwn(NAMES, kind))
      wanted.set(kind as NamedKind, (wanted.get(kind as NamedKind) ?? new Set()).add(subjectId));
  const names = new Map<string, string>();
  for (const [kind, ids] of wanted) {
    const [table, name] = NAMES[kind];
    const rows = await rowsOf<{ id: number; words: string }>(
      db(table)
        .whereIn('id', among(db, [...ids]))
        .select('id', db.raw(`${name} as words`)),
    );
    for (const { id, words } of rows) names.set(`${kind}/${id}`, words);
  }
  const lines = new Map<number, string>();
  const document = subjects.find((s) => Object.hasOwn(LINES, s.kind));
  if (document !== undefined && Object.keys(changes).some((path) => path.includes('#'))) {
    const rows = await rowsOf<{ id: number; words: string }>(db.raw(LINES[document.kind] ?? '', [document.subjectId]));
    for (const { id, words } of rows) lines.set(id, words);
  }
  return {
    own,
    document: (await currencyOf(db, subjects)) ?? own,
    name: (kind, id) => names.get(`${kind}/${id}`),
    line: (id) => lines.get(id),
  };
}

/** The currency of the order, or of the supplier where no order is spoken of; a job’s is the company’s. */
async function currencyOf(db: Db, subjects: readonly Subject[]): Promise<string | undefined> {
  const idOf = (kind: string) => subjects.find((s) => s.kind === kind)?.subjectId;
  const [orderId, supplierId] = [idOf('order'), idOf('supplier')];
  if (orderId !== undefined) return (await db('purchaseOrder').where({ id: orderId }).first('currency'))?.currency;
  return supplierId === undefined
    ? undefined
    : (await db('supplier').where({ id: supplierId }).first('currency'))?.currency;
}
