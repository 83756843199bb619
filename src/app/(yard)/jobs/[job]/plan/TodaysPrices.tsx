import { add, formatAmount, subtract, ZERO } from '@/core/money/money';
import { todayByCode } from '@/core/needs/today';
import type { BuyListLine } from '@/queries/buying/buyList';
import { useYard } from '@/ui/frame/YardContext';

/** What is left to buy, by cost code, as it is planned and at what its suppliers ask today, where that differs. */
export function TodaysPrices({ needs }: { readonly needs: readonly BuyListLine[] }) {
  const { currency } = useYard();
  const codes = todayByCode(needs, currency);
  if (codes.length === 0) return null;
  return (
    <section aria-labelledby="todays-prices" className="mt-6 max-w-[640px]">
      <h2 id="todays-prices" className="mb-1 text-[16px]">
        At today’s prices
      </h2>
      <ul>
        {codes.map(({ code, name, planned, more }) => (
          <li key={code} className="flex justify-between gap-4 border-b border-line-2 py-1">
            <span>
              <b>{code}</b> {name}
            </span>
            <span className="tabular-nums">
              <span className="text-ink-2">Still to buy {formatAmount(planned, currency)} → </span>
              {formatAmount(add(planned, more), currency)}{' '}
              <b className={more > 0 ? 'text-brick' : 'text-enamel'}>
                {more > 0
                  ? `${formatAmount(more, currency)} more`
                  : `${formatAmount(subtract(ZERO, more), currency)} less`}
              </b>
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
