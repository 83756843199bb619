import type { UnitPrice } from '../money/money';
import type { Quantity } from '../quantity/quantity';
import { priceFor, type PartTerms } from './terms';

type Priced = {
  readonly quantity: Quantity;
  readonly unit: string;
  readonly price: UnitPrice | null;
  readonly priceQuantity: number;
  readonly grossPrice: UnitPrice | null;
  readonly discount: number;
};
type Price = Pick<Priced, 'price' | 'priceQuantity' | 'grossPrice' | 'discount'>;

/**
 * What a line that was bought before costs today: its supplier's price for so many where that is listed in the line's
 * unit, else what was paid, with the discount that was given.
 *
 * @param sameCurrency - whether what was paid is in the currency that its supplier sells in now
 * @returns no price where none is listed and what was paid is in another currency
 */
export function todaysPrice(line: Priced, terms: PartTerms | undefined, sameCurrency: boolean): Price {
  const listed = terms?.unit === line.unit ? priceFor(line.quantity, terms.prices) : undefined;
  if (listed !== undefined)
    return { price: listed.price, priceQuantity: listed.priceQuantity, grossPrice: null, discount: 0 };
  const { price, priceQuantity, grossPrice, discount } = line;
  return sameCurrency
    ? { price, priceQuantity, grossPrice, discount }
    : { price: null, priceQuantity: 1, grossPrice: null, discount: 0 };
}
