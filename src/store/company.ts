import type { Calendar, Day } from '@/core/calendar/workdays';
import { PAR, type Rate } from '@/core/money/rate';
import { writeAs } from '@/core/locale/locale';
import type { LostTax, TaxCode } from '@/core/money/tax';
import type { Db } from './db';
import { among, rowsOf } from './rows';
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

/** What suppliers charge, as far as it says how much of it cannot be recovered; by supplier. */
export async function loadSupplierTaxes(db: Db, suppliers: readonly (number | null)[]): Promise<Map<number, LostTax>> {
  const rows = await rowsOf<LostTax & { id: number }>(
    db('supplier as s')
      .join('taxCode as t', 't.id', 's.taxCodeId')
      .whereIn('s.id', among(db, [...new Set(suppliers.flatMap((id) => id ?? []))]))
      .select('s.id', 't.rate', 't.recoverable'),
  );
  return new Map(rows.map(({ id, rate, recoverable }) => [id, { rate, recoverable }]));
}

/** Lines with the tax that buying them from their supplier bears. */
export async function withTaxes<T extends { readonly supplierId: number | null }>(
  db: Db,
  lines: readonly T[],
): Promise<(T & { readonly tax: LostTax | null })[]> {
  const taxes = await loadSupplierTaxes(
    db,
    lines.map((l) => l.supplierId),
  );
  return lines.map((l) => ({ ...l, tax: taxes.get(l.supplierId ?? 0) ?? null }));
}

/**
 * As SQL: what of a net amount's tax cannot be recovered, as the core's `costOf` adds it.
 * @param t - alias of the tax code; where there is none, nothing
 */
export const lostTax = (net: string, t: string): string => {
  const share = (of: string, by: string) => `(sign(${of}) * ((abs(${of}) * 2 * (${by}) + 10000) / 20000))`;
  return `coalesce(${share(share(net, `${t}.rate`), `10000 - ${t}.recoverable`)}, 0)`;
};

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
