import type { Calendar, Day } from '@/core/calendar/workdays';
import { PAR, type Rate } from '@/core/money/rate';
import { writeAs } from '@/core/locale/locale';
import type { TaxCode } from '@/core/money/tax';
import type { Db } from './db';
import type { Company, CostCode } from './tables';

/** The company, or undefined in a file that was never set up. */
export const findCompany = async (db: Db): Promise<Company | undefined> => db('company').first();

/**
 * The company; days and numbers are written its way from here on.
 * @throws Error in a file that was never set up
 */
export async function loadCompany(db: Db): Promise<Company> {
  const company = await findCompany(db);
  if (company === undefined) throw new Error('The company has not been set up.');
  writeAs(company);
  return company;
}

export async function loadCalendar(db: Db): Promise<Calendar> {
  const { week } = await loadCompany(db);
  const off = await db('dayOff').select('day');
  return { week: new Set(week.split(',').map(Number)), off: new Set(off.map((d) => d.day)) };
}

export const loadCostCodes = async (db: Db): Promise<CostCode[]> => db('costCode').orderBy('code');

export const loadTaxCodes = async (db: Db): Promise<TaxCode[]> => db('taxCode').orderBy('id');

/** The taxes that are offered, and those that something has already. */
export const loadOfferedTaxes = async (db: Db, had: readonly number[] = []): Promise<TaxCode[]> =>
  db('taxCode').where({ gone: 0 }).orWhereIn('id', had).orderBy('id');

/**
 * The rates that hold on a day, by currency: for each the last one entered up to it, and par for the company's own.
 * A currency without one is not in the map.
 */
export async function loadRates(db: Db, on: Day): Promise<ReadonlyMap<string, Rate>> {
  const { currency } = await loadCompany(db);
  const rows = await db('exchangeRate').where('day', '<=', on).orderBy('day').select('currency', 'rate');
  return new Map([...rows.map((r) => [r.currency, r.rate] as const), [currency, PAR]]);
}
