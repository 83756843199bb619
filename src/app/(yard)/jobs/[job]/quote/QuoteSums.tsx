import { add, formatAmount, signOf, subtract, ZERO, type Minor } from '@/core/money/money';
import { marginWords } from '@/core/quotes/margin';
import type { CodeSum } from '@/queries/jobs/job';
import { Wide } from '@/ui/kit/Sheet';

type Props = { readonly codes: readonly CodeSum[]; readonly currency: string };

/** What a quote costs, is sold for and leaves, by cost code and in all. */
export function QuoteSums({ codes, currency }: Props) {
  if (codes.length === 0) return null;
  const cost = add(ZERO, ...codes.map((c) => c.cost));
  const price = add(ZERO, ...codes.map((c) => c.price));
  const row = (key: string, name: React.ReactNode, of: { cost: Minor; price: Minor }, whole = false) => (
    <tr key={key} className={whole ? 'whole' : ''}>
      <th scope="row" className="text-left !font-normal">
        {name}
      </th>
      <td className="num">{formatAmount(of.cost, currency)}</td>
      <td className="num">{formatAmount(of.price, currency)}</td>
      <td className="num">{formatAmount(subtract(of.price, of.cost), currency)}</td>
      <td className="num">{marginWords(of.cost, of.price)}</td>
    </tr>
  );
  return (
    <Wide label="Quote total">
      <table className="ledger mt-6 max-w-[640px]">
        <thead>
          <tr>
            <th scope="col">Cost code</th>
            <th scope="col" className="num">
              Cost {signOf(currency)}
            </th>
            <th scope="col" className="num">
              Price
            </th>
            <th scope="col" className="num">
              Margin
            </th>
            <th scope="col" className="num">
              Margin %
            </th>
          </tr>
        </thead>
        <tbody>
          {codes.map((c) =>
            row(
              c.code,
              <>
                <b>{c.code}</b> {c.name}
              </>,
              c,
            ),
          )}
          {row('all', <b>Total</b>, { cost, price }, true)}
        </tbody>
      </table>
    </Wide>
  );
}
