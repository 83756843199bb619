import { TooLarge } from '@/core/limits';
import type { TaxCode } from '@/core/money/tax';
import { pricesOf } from '@/core/orders/charges';
import { orderTotals, valueOrder } from '@/core/orders/order';
import { shareWeight } from '@/core/quantity/weight';
import type { ItemTerms } from '@/queries/orders/terms';
import type { OrderView } from '@/queries/orders/order';
import { partsOf, type LineText } from '@/ui/orders/orderLineText';
import { type readOrder } from '@/ui/orders/orderText';

/**
 * What a typed order comes to, as far as it can be read: the same that saving it would work out.
 * @returns undefined while an amount is too large to be worked out
 */
export function worked(
  typed: readonly LineText[],
  { value }: ReturnType<typeof readOrder>,
  { order, companyCurrency }: OrderView,
  taxes: readonly TaxCode[],
  terms: ReadonlyMap<number, ItemTerms>,
) {
  const lines = value.lines.map((l, k) => {
    const { unit, factor } = partsOf(typed[k] as LineText);
    const known = terms.get(l.itemId ?? 0);
    const weight = known === undefined ? null : shareWeight(known.item, unit);
    return {
      shareUnit: unit,
      factor,
      weight,
      ...l,
      ...pricesOf(l),
      splits: l.splits.map((s) => ({ needId: null, ...s })),
    };
  });
  try {
    const { currency, rate } = order;
    return {
      totals: orderTotals(lines, taxes, currency),
      lines: valueOrder(lines, taxes, { currency, companyCurrency, rate }),
    };
  } catch (error) {
    if (error instanceof TooLarge || error instanceof RangeError) return undefined;
    throw error;
  }
}

export type Worked = NonNullable<ReturnType<typeof worked>>;
