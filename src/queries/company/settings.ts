import { rowsOf } from '@/store/rows';
import { may, type Right } from '@/core/people/rights';
import { UNITS, type Unit } from '@/core/quantity/units';
import { counted } from '@/core/words';
import { loadCompany } from '@/store/company';
import type { Db } from '@/store/db';
import type { Person } from '@/store/people';
import type { Bin, CostCode, DeliveryPlace, ReasonRow, TaxCodeRow } from '@/store/tables';
import { permit } from '../permit';
import { countOf } from '../sql';

export type CodeRow = CostCode & {
  /** On how many jobs' budgets and tabs it stands. */
  readonly jobs: number;
};

export type CodesView = { readonly codes: readonly CodeRow[]; readonly freightCodeId: number | null };

/** The cost codes, with what stands on them, and the one that carriage is charged to. */
export async function loadCodesPage(db: Db, person: Person): Promise<CodesView> {
  permit(person, 'manage people');
  const { freightCodeId } = await loadCompany(db);
  const codes = await rowsOf<CodeRow>(
    db('costCode as c')
      .orderBy('c.code')
      .select('c.*', db.raw('(select count(distinct job_id) from code_sum where cost_code_id = c.id) as jobs')),
  );
  return { codes, freightCodeId };
}

export type TaxRow = TaxCodeRow & {
  readonly suppliers: number;
  /** Whether an order or an invoice has it, so that only its name may change. */
  readonly carried: 0 | 1;
};

export async function loadTaxesPage(db: Db, person: Person): Promise<readonly TaxRow[]> {
  permit(person, 'manage people');
  return await rowsOf<TaxRow>(
    db('taxCode as t')
      .orderBy('t.id')
      .select(
        't.*',
        db.raw('(select count(*) from supplier where tax_code_id = t.id) as suppliers'),
        db.raw(
          '(exists (select 1 from order_line where tax_code_id = t.id) or exists (select 1 from invoice_line where tax_code_id = t.id)) as carried',
        ),
      ),
  );
}

export type PlaceRow = Pick<DeliveryPlace, 'id' | 'name' | 'address' | 'instructions' | 'version'> & {
  readonly gone: 0 | 1;
  /** How many parts lie there. */
  readonly items: number;
  readonly bins: readonly Pick<Bin, 'id' | 'name' | 'version'>[];
};

/** Our own places, where goods come in and lie. */
export async function loadPlacesPage(db: Db, person: Person): Promise<readonly PlaceRow[]> {
  permit(person, 'manage people');
  const bins = await db('bin').where({ closed: 0 }).orderBy('name');
  const places = await rowsOf<Omit<PlaceRow, 'bins'>>(
    db('deliveryPlace as p')
      .where({ kind: 'own' })
      .orderBy('p.id')
      .select(
        ...(['p.id', 'p.name', 'p.address', 'p.instructions', 'p.version'] as const),
        db.raw('p.closed as gone'),
        db.raw('(select count(*) from stock_sum s where s.place_id = p.id and s.quantity <> 0) as items'),
      ),
  );
  return places.map((p) => ({ ...p, bins: bins.filter((b) => b.placeId === p.id) }));
}

export type ReasonSetting = ReasonRow & {
  /** On how many lines of deliveries and inspections it stands. */
  readonly given: number;
};

/** Why deliveries are not as ordered. */
export async function loadReasonsPage(db: Db, person: Person): Promise<readonly ReasonSetting[]> {
  permit(person, 'manage people');
  return await rowsOf<ReasonSetting>(
    db('reason as r')
      .orderBy(['r.does', 'r.name'])
      .select(
        'r.*',
        db.raw(
          '(select count(*) from rest where reason_id = r.id) + (select count(*) from receipt_line where reason_id = r.id) as given',
        ),
      ),
  );
}

export type UnitRow = Unit & { readonly offered: boolean; readonly items: number };

export async function loadUnitsPage(db: Db, person: Person): Promise<readonly UnitRow[]> {
  permit(person, 'manage people');
  const unused = new Set((await db('unitUnused')).map((u) => u.code));
  const used = new Map(
    (await rowsOf<{ unit: string; n: number }>(db('item').groupBy('unit').select('unit').count({ n: '*' }))).map(
      (r) => [r.unit, r.n],
    ),
  );
  return UNITS.map((u) => ({ ...u, offered: !unused.has(u.code), items: used.get(u.code) ?? 0 }));
}

/** A page of settings: what it holds now, in a few words. */
export type SettingsPage = { readonly href: string; readonly name: string; readonly now: string };

/** The pages of settings that a person may open, with how each stands. */
export async function loadSettings(db: Db, person: Person): Promise<readonly SettingsPage[]> {
  permit(person, 'see money');
  const company = await loadCompany(db);
  const count = (table: string, where: Readonly<Record<string, unknown>> = {}) => countOf(db(table).where(where));
  const pages: readonly (SettingsPage & { readonly right: Right })[] = [
    { href: '/company', name: 'Company and calendar', right: 'manage people', now: company.name },
    {
      href: '/people',
      name: 'People and roles',
      right: 'manage people',
      now: `${await count('person', { active: 1 })} with access`,
    },
    {
      href: '/ladder',
      name: 'Sign-off',
      right: 'manage people',
      now: `ladder of ${counted(await count('ladderStep', { gone: 0 }), 'step')}, rules, limits`,
    },
    {
      href: '/codes',
      name: 'Cost codes',
      right: 'manage people',
      now: `${await count('costCode', { gone: 0 })} in use`,
    },
    { href: '/taxes', name: 'Taxes', right: 'manage people', now: `${await count('taxCode', { gone: 0 })} in use` },
    {
      href: '/places',
      name: 'Locations',
      right: 'manage people',
      now: `${await count('deliveryPlace', { kind: 'own', closed: 0 })} in use`,
    },
    {
      href: '/reasons',
      name: 'Delivery reasons',
      right: 'manage people',
      now: `${await count('reason', { gone: 0 })} in use`,
    },
    {
      href: '/units',
      name: 'Units',
      right: 'manage people',
      now: `${UNITS.length - (await count('unitUnused'))} in use`,
    },
    {
      href: '/words',
      name: 'Order and email wording',
      right: 'keep suppliers',
      now: counted(await count('textBlock'), 'order text'),
    },
    { href: '/rates', name: 'Exchange rates', right: 'see money', now: counted(await count('exchangeRate'), 'rate') },
  ];
  return pages.filter((p) => may(person, p.right));
}
