import type { Calendar } from '@/core/calendar/workdays';
import type { Minor } from '@/core/money/money';
import type { TaxCode } from '@/core/money/tax';
import type { Db } from './connection';

export type Company = {
  readonly name: string;
  readonly address: string;
  readonly email: string;
  readonly taxNumber: string;
  readonly currency: string;
  readonly week: string;
  readonly receivingDays: number;
  readonly orderPattern: string;
  readonly orderTerms: string;
  readonly freightCodeId: number | null;
  readonly priceToleranceShare: number;
  readonly priceToleranceMost: Minor;
  readonly version: number;
};

export type CostCode = { readonly id: number; readonly code: string; readonly name: string };

/** The company, or undefined in a file that was never set up. */
export const findCompany = async (db: Db): Promise<Company | undefined> =>
  (await db('company').first()) as Company | undefined;

/** @throws Error in a file that was never set up */
export async function loadCompany(db: Db): Promise<Company> {
  const company = await findCompany(db);
  if (company === undefined) throw new Error('The company has not been set up.');
  return company;
}

export async function loadCalendar(db: Db): Promise<Calendar> {
  const { week } = await loadCompany(db);
  const off = (await db('dayOff').select('day')) as { day: string }[];
  return { week: new Set(week.split(',').map(Number)), off: new Set(off.map((d) => d.day)) };
}

export const loadCostCodes = async (db: Db): Promise<CostCode[]> =>
  (await db('costCode').orderBy('code')) as CostCode[];

export const loadTaxCodes = async (db: Db): Promise<TaxCode[]> => (await db('taxCode').orderBy('id')) as TaxCode[];
