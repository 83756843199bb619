import type { Day } from '@/core/calendar/workdays';
import { may } from '@/core/people/rights';
import { holidayCountries } from '@/formats/holidays';
import { loadCompany } from '@/store/company';
import type { Db } from '@/store/db';
import type { Person } from '@/store/people';
import type { Company, DayOff, ExchangeRate } from '@/store/tables';
import { permit } from '../permit';

export type CompanyView = {
  readonly company: Company;
  /** From last year on. */
  readonly off: readonly DayOff[];
  readonly countries: readonly { readonly code: string; readonly name: string }[];
};

/** How the company works: its week and days off, and what is passed without a question. */
export async function loadCompanyForm(db: Db, person: Person, today: Day): Promise<CompanyView> {
  permit(person, 'manage people');
  const since = `${Number(today.slice(0, 4)) - 1}-01-01` as Day;
  return {
    company: await loadCompany(db),
    off: await db('dayOff').where('day', '>=', since).orderBy('day'),
    countries: holidayCountries(),
  };
}

export type RatesView = {
  readonly companyCurrency: string;
  readonly rates: readonly ExchangeRate[];
  /** Currencies that suppliers sell in and that have no rate today. */
  readonly missing: readonly { readonly currency: string; readonly suppliers: string }[];
  readonly mayKeep: boolean;
};

const RATES_SHOWN = 400;

/** Exchange rates, the newest of each currency first, and the currencies that still need one. */
export async function loadRatesPage(db: Db, person: Person, today: Day): Promise<RatesView> {
  permit(person, 'see money');
  const { currency } = await loadCompany(db);
  const rates = await db('exchangeRate').orderBy('currency').orderBy('day', 'desc').limit(RATES_SHOWN);
  const missing = (await db('supplier as s')
    .whereNot('s.currency', currency)
    .whereNotExists(db('exchangeRate as r').whereRaw('r.currency = s.currency').where('r.day', '<=', today))
    .groupBy('s.currency')
    .select('s.currency', db.raw("group_concat(s.name, ', ') as suppliers"))) as RatesView['missing'];
  return { companyCurrency: currency, rates, missing, mayKeep: may(person, 'keep suppliers') };
}
