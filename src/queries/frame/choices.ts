import { isLive } from '@/core/jobs/states';
import type { Day } from '@/core/calendar/workdays';
import { closeness } from '@/core/find/words';
import { groupBy } from '@/core/group';
import type { UnitPrice } from '@/core/money/money';
import { may, ROLE_NAMES, type Right, type Role } from '@/core/people/rights';
import { quantity } from '@/core/quantity/quantity';
import type { Db } from '@/store/db';
import { loadEstimates } from '@/store/estimates';
import { findIds, idsByNumber, idsCalled, lastUsedIds, soughtFor, soughtNear } from '@/store/find';
import { loadItems, loadSuppliers } from '@/store/gathering';
import type { Person } from '@/store/people';
import type { CostCode } from '@/store/tables';
import { whereIn } from '@/store/rows';
import { permit } from '../permit';

/** A thing of the company, as it is picked. */
export type Choice = {
  readonly id: number;
  /** Its number or code, where it has one. */
  readonly number: string;
  readonly name: string;
  readonly detail: string;
  /** Not offered any more; what has it keeps it. */
  readonly gone?: true;
};

export type ItemChoice = Choice & {
  readonly unit: string;
  readonly costCode: Choice | null;
  readonly supplier: Choice | null;
  /** What its usual supplier asks for one of its units where the least is had, in the company's currency; null when unknown or not to be seen. */
  readonly price: UnitPrice | null;
  /** Whether a bill of materials says how it is made. */
  readonly made: boolean;
};

type Kind = {
  readonly right: Right;
  /** Things by their ids, in any order. */
  readonly load: (db: Db, ids: readonly number[], person: Person, today: Day) => Promise<Choice[]>;
  /** Where its number stands, if it has one. */
  readonly numbers?: readonly [table: 'item' | 'job' | 'costCode', column: 'number' | 'code'];
  /** Few enough to be looked through by name. */
  readonly byName?: true;
};

const named = (row: { id: number; name: string }, detail = ''): Choice => ({
  id: row.id,
  number: '',
  name: row.name,
  detail,
});

const codeThing = (c: CostCode): Choice => ({
  id: c.id,
  number: c.code,
  name: c.name,
  detail: '',
  ...(c.gone === 1 ? { gone: true } : {}),
});

const LEAST = quantity(1);

async function loadItemThings(db: Db, ids: readonly number[], person: Person, today: Day): Promise<ItemChoice[]> {
  const items = [...(await loadItems(db, ids)).values()];
  const suppliers = await loadSuppliers(
    db,
    items.flatMap((i) => i.supplierId ?? []),
  );
  const codes = new Map(
    (
      await whereIn(
        db,
        'costCode',
        'id',
        items.flatMap((i) => i.costCodeId ?? []),
      )
    ).map((c) => [c.id, codeThing(c)]),
  );
  const estimate = may(person, 'see money') ? await loadEstimates(db, ids, today) : undefined;
  const made = new Set((await whereIn(db, 'bom', 'itemId', ids)).map((b) => b.itemId));
  return items.map((i) => {
    const supplier = suppliers.get(i.supplierId ?? 0);
    const price = estimate?.({ itemId: i.id, unit: i.unit, quantity: LEAST }).price ?? null;
    return {
      id: i.id,
      number: i.number,
      name: i.name,
      detail: supplier?.name ?? '',
      unit: i.unit,
      costCode: codes.get(i.costCodeId ?? 0) ?? null,
      supplier: supplier === undefined ? null : named(supplier),
      price,
      made: made.has(i.id),
    };
  });
}

const KINDS = {
  item: { right: 'see jobs', numbers: ['item', 'number'], load: loadItemThings },
  job: {
    right: 'see jobs',
    numbers: ['job', 'number'],
    load: async (db, ids) =>
      (await whereIn(db, 'job', 'id', ids)).map((j) => ({
        id: j.id,
        number: j.number,
        name: j.name,
        detail: isLive(j) ? '' : j.state,
      })),
  },
  costCode: {
    right: 'see jobs',
    numbers: ['costCode', 'code'],
    byName: true,
    load: async (db, ids) => (await whereIn(db, 'costCode', 'id', ids)).map(codeThing),
  },
  supplier: {
    right: 'see jobs',
    byName: true,
    load: async (db, ids) => [...(await loadSuppliers(db, ids)).values()].map((s) => named(s, s.contact)),
  },
  customer: {
    right: 'open jobs',
    byName: true,
    load: async (db, ids) => (await whereIn(db, 'customer', 'id', ids)).map((c) => named(c)),
  },
  place: {
    right: 'see jobs',
    byName: true,
    load: async (db, ids) =>
      (await whereIn(db, 'deliveryPlace', 'id', ids)).map((p) => named(p, p.address.split('\n')[0] ?? '')),
  },
  person: {
    right: 'see money',
    byName: true,
    load: async (db, ids) => {
      const roles = new Map<number, Role[]>();
      for (const { personId, role } of await whereIn(db, 'personRole', 'personId', ids))
        roles.set(personId, [...(roles.get(personId) ?? []), role]);
      const people = await whereIn(db, 'person', 'id', ids);
      return people
        .filter((p) => p.active === 1)
        .map((p) => named(p, (roles.get(p.id) ?? []).map((r) => ROLE_NAMES[r]).join(', ')));
    },
  },
} as const satisfies Readonly<Record<string, Kind>>;

export type ChoiceKind = keyof typeof KINDS;
export const CHOICE_KINDS = Object.keys(KINDS) as ChoiceKind[];

const SHOWN = 12;
const LOOKED_THROUGH = 200;

/**
 * Things of a kind for what is typed: those with that number first, then what the person used last, then the rest, the
 * newest first, or by name where there are few.
 */
export async function listChoices(
  db: Db,
  person: Person,
  kind: ChoiceKind,
  text: string,
  today: Day,
): Promise<Choice[]> {
  const { right, load, numbers, byName }: Kind = KINDS[kind];
  permit(person, right);
  const numbered = numbers === undefined ? [] : await idsByNumber(db, ...numbers, text, SHOWN);
  const used = await lastUsedIds(db, person.id, kind, text, SHOWN);
  const most = byName === true ? LOOKED_THROUGH : SHOWN * 2;
  const exactly = await findIds(db, kind, soughtFor(text), most);
  const near = exactly.length + numbered.length > 0 ? undefined : await soughtNear(db, text);
  const found = near === undefined ? exactly : await findIds(db, kind, near, most);
  const things = (await load(db, [...new Set([...numbered, ...used, ...found])], person, today)).filter((t) => !t.gone);
  const place = new Map(used.map((id, k) => [id, k]));
  const newest = new Map(found.map((id, k) => [id, k]));
  // What its number or its name begins with stands before what merely has it.
  const fits = (t: Choice) => Math.min(closeness(text, t.number || t.name), closeness(text, t.name));
  const rank = (t: Choice) => [fits(t), place.get(t.id) ?? SHOWN, byName ? 0 : (newest.get(t.id) ?? 0)] as const;
  return things
    .map((thing) => ({ thing, rank: rank(thing) }))
    .sort((a, b) => {
      const differs = a.rank.findIndex((r, k) => r !== b.rank[k]);
      const [x, y] = [a.thing, b.thing];
      return differs < 0
        ? (x.number || x.name).localeCompare(y.number || y.name, 'en-GB', { numeric: true })
        : (a.rank[differs] ?? 0) - (b.rank[differs] ?? 0);
    })
    .slice(0, byName ? 50 : SHOWN)
    .map(({ thing }) => thing);
}

/** One thing by its id, as it is picked; null for none. */
export async function loadChoice(
  db: Db,
  person: Person,
  kind: ChoiceKind,
  id: number | null | undefined,
  today: Day,
): Promise<Choice | null> {
  const { right, load }: Kind = KINDS[kind];
  permit(person, right);
  return id == null || !Number.isSafeInteger(id) ? null : ((await load(db, [id], person, today))[0] ?? null);
}

/** A job by its number. */
export async function findJobChoice(
  db: Db,
  person: Person,
  number: string | undefined,
  today: Day,
): Promise<Choice | null> {
  const job = number === undefined ? undefined : await db('job').where({ number }).first('id');
  return loadChoice(db, person, 'job', job?.id, today);
}

const spoken = (text: string): string => text.trim().replace(/\s+/g, ' ').toLowerCase();

/** What words stand for, each for itself: a thing called exactly so, by number or name; null where none or several are. */
export async function nameChoices(
  db: Db,
  person: Person,
  kind: ChoiceKind,
  words: readonly string[],
  today: Day,
): Promise<(Choice | null)[]> {
  const { right, load }: Kind = KINDS[kind];
  permit(person, right);
  const asked = [...new Set(words.map(spoken).filter((w) => w !== ''))];
  const called = await idsCalled(db, kind, asked);
  const things = new Map(
    (await load(db, [...new Set(called.map((c) => c.id))], person, today)).flatMap((t) => (t.gone ? [] : [[t.id, t]])),
  );
  // A number says more than a name, and that more than the number a supplier gives it.
  const known = groupBy(
    called.filter((c) => things.has(c.id)),
    (c) => spoken(c.word),
  );
  return words.map((word) => {
    const found = known.get(spoken(word)) ?? [];
    const best = Math.min(...found.map((f) => f.rank));
    const fits = new Set(found.filter((f) => f.rank === best).map((f) => f.id));
    const [id] = fits;
    return fits.size === 1 ? (things.get(id ?? 0) ?? null) : null;
  });
}
