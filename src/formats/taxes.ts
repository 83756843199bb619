import SalesTax from 'sales-tax';
import { FULL_SHARE, type TaxCode } from '@/core/money/tax';
import { holidayCountries } from './holidays';

export type UsualTax = Omit<TaxCode, 'id'>;

const NAMES: Readonly<Record<string, string>> = { vat: 'VAT', gst: 'GST', igic: 'IGIC', qst: 'QST', hst: 'HST' };

/**
 * The taxes that a company of a country begins with: the standard rate as it can be recovered and as it cannot, and
 * none. Rates are those of the package sales-tax; reduced ones are for the company to add.
 *
 * @param country ISO 3166-1 code, with a region after a dash that is left out of account
 */
export async function usualTaxes(country: string): Promise<UsualTax[]> {
  const { type, rate } = await SalesTax.getSalesTax(country.slice(0, 2));
  // A share such as 0.081 is no exact number: it is rounded to the hundredth of a percent that it means.
  const hundredths = Math.round(rate * FULL_SHARE);
  if (hundredths === 0) return [{ name: 'No tax', category: 'O', rate: 0, recoverable: 0 }];
  const name = NAMES[type] ?? 'Tax';
  const standard = `${name} ${hundredths / 100} %`;
  return [
    { name: standard, category: 'S', rate: hundredths, recoverable: FULL_SHARE },
    { name: `${name} 0 %`, category: 'Z', rate: 0, recoverable: FULL_SHARE },
    { name: `${standard}, not recoverable`, category: 'S', rate: hundredths, recoverable: 0 },
  ];
}

/**
 * What the tax on sales of a company's country is called on its papers: VAT, GST …, or plainly tax.
 * @param country as of {@link usualTaxes}
 */
export async function taxNameOf(country: string): Promise<string> {
  const { type } = await SalesTax.getSalesTax(country.slice(0, 2));
  return NAMES[type] ?? 'tax';
}

/** A country that a company may be of, with what is paid there; none where that is not known. */
export type FoundingCountry = { readonly code: string; readonly name: string; readonly currency: string | null };

export const foundingCountries = (): Promise<FoundingCountry[]> =>
  Promise.all(
    holidayCountries().map(async (c) => ({
      ...c,
      currency: (await SalesTax.getSalesTax(c.code.slice(0, 2))).currency,
    })),
  );
