import { formatDay } from '@/core/calendar/workdays';
import { formatMoney, formatPrice, signOf, type UnitPrice } from '@/core/money/money';
import { formatQuantity } from '@/core/quantity/quantity';
import { unitOf } from '@/core/quantity/units';
import { counted } from '@/core/words';
import type { LineToSign } from '@/queries/signoff/toSign';
import { FirstOf } from '@/ui/kit/FirstOf';
import { useYard } from '@/ui/frame/YardContext';

const MOST = 20;

const priced = (price: UnitPrice, per: number, unit: string, currency: string) =>
  `${signOf(currency)}\u202f${formatPrice(price, currency)}${perUnit(per, unitOf(unit).short)}`;

/** @example perUnit(100, 'm') // ' per 100 m' */
const perUnit = (per: number, unit: string): string => {
  const of = [per > 1 ? String(per) : '', unit].filter(Boolean).join(' ');
  return of === '' ? '' : ` per ${of}`;
};

/** What is bought line by line, what was paid for it before, and what others would ask. */
export function LinesToSign({ lines, currency }: { readonly lines: readonly LineToSign[]; readonly currency: string }) {
  const { currency: own, today } = useYard();
  return (
    <section aria-label="Lines" className="mt-4 max-w-[720px]">
      <h2 className="text-[16px]">Lines</h2>
      <ul>
        <FirstOf all={lines} most={MOST} more={(n) => counted(n, 'more line')}>
          {(l) => (
            <li key={l.place} className="border-b border-line-2 py-2">
              <div className="flex justify-between gap-4">
                <span className="min-w-0">
                  <b className="font-semibold">{l.description}</b> <span className="mono text-ink-2">{l.number}</span>
                </span>
                <b className="whitespace-nowrap">{formatMoney(l.net, own)}</b>
              </div>
              <div className="text-[12.5px] text-ink-2">
                {formatQuantity(l.quantity)} {unitOf(l.unit).short}
                {l.price !== null && ` at ${priced(l.price, l.priceQuantity, l.unit, currency)}`}
                {l.past.length > 0 && (
                  <span className="block">
                    Last paid:{' '}
                    {l.past
                      .map(
                        (p) =>
                          `${priced(p.price, p.priceQuantity, p.unit, p.currency)} ${formatDay(p.on, today)} to ${p.supplier}`,
                      )
                      .join(' · ')}
                  </span>
                )}
                {l.elsewhere.length > 0 && (
                  <span className="block">
                    Not chosen:{' '}
                    {l.elsewhere
                      .map((e) => `${e.supplier}, ${formatMoney(e.value, own)}, ${counted(e.leadDays, 'working day')}`)
                      .join(' · ')}
                  </span>
                )}
              </div>
            </li>
          )}
        </FirstOf>
      </ul>
    </section>
  );
}
