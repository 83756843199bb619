'use client';

import { formatDecimal } from '@/core/money/decimal';
import { formatPrice } from '@/core/money/money';
import { formatQuantity } from '@/core/quantity/quantity';
import { unitOf } from '@/core/quantity/units';
import { counted } from '@/core/words';
import type { PriceFile } from '@/queries/items/priceLists';
import { FileSlip, RowsTold } from '@/ui/kit/FileSlip';

type Told = Omit<PriceFile, 'taken'>;
type Price = Told['changes'][number]['prices'][number];

/** A share as people say it: “+4.5 %”. */
const told = (share: number): string =>
  `${share > 0 ? '+' : '−'}${formatDecimal(Math.abs(Math.round(share * 1000)), 1, 0)} %`;

/** A supplier's price list brought in: what each part costs now and then, before anything is taken. */
export const PriceList = ({ supplierId }: { readonly supplierId: number }) => (
  <FileSlip<Told>
    address={`/suppliers/${supplierId}/prices`}
    label="Price list"
    words="Import price list"
    detail="One row per item with its price, or one per price break. Items are matched by supplier’s item no., our item no. or GTIN (barcode number)."
    dayLabel="Prices valid from"
    takes={({ count }) => (count === 0 ? undefined : `Update ${counted(count, 'price')}`)}
    said={({ count }) => `${counted(count, 'price')} updated`}
  >
    {({ currency, summary, unlisted, changes, count, left, leftCount }) => (
      <>
        <dl className="mt-4 grid grid-cols-[1fr_auto] gap-x-3 gap-y-0.5">
          <Sum name={`Dearer${summary.rise > 0 ? `, by up to ${told(summary.rise)}` : ''}`} count={summary.dearer} />
          <Sum name={`Cheaper${summary.fall < 0 ? `, by up to ${told(summary.fall)}` : ''}`} count={summary.cheaper} />
          <Sum name="Not sold by them so far" count={summary.added} />
          <Sum name="Unchanged" count={summary.same} />
          <Sum name="Not on the list; they keep their prices" count={unlisted} />
        </dl>
        <h3 className="mt-4 text-[15px]">Changes{count > changes.length ? `, the ${changes.length} largest` : ''}</h3>
        {count === 0 && <p className="text-ink-2">No changes: all prices are as now.</p>}
        <ul>
          {changes.map(({ number, name, unit, isNew, prices, dearerForMore }) => (
            <li key={number} className="border-b border-line-2 py-1">
              <div className="flex justify-between gap-3">
                <span className="min-w-0 truncate">
                  <b className="mono">{number}</b> {name}
                </span>
                {isNew && <span className="text-ink-2">new</span>}
              </div>
              {prices.map((p) => (
                <PriceLine key={p.from} price={p} currency={currency} unit={unit} />
              ))}
              {dearerForMore && <p className="text-[12.5px] text-brick">A larger quantity has a higher unit price.</p>}
            </li>
          ))}
        </ul>
        <RowsTold title={`${counted(leftCount, 'row')} skipped`} rows={left} />
      </>
    )}
  </FileSlip>
);

function Sum({ name, count }: { name: string; count: number }) {
  return (
    <>
      <dt className="text-ink-2">{name}</dt>
      <dd className="text-right font-semibold tabular-nums">{count}</dd>
    </>
  );
}

function PriceLine({
  price: { from, before, after, share },
  currency,
  unit,
}: {
  price: Price;
  currency: string;
  unit: string;
}) {
  const per = `${after.priceQuantity === 1 ? '' : `${after.priceQuantity} `}${unitOf(unit).short || unitOf(unit).name}`;
  return (
    <div className="flex justify-between gap-3 text-[13px]">
      <span className="text-ink-2">{from > 0 ? `from ${formatQuantity(from)}` : 'each'}</span>
      <span className="whitespace-nowrap tabular-nums">
        {before !== null && share !== 0 && <span className="text-ink-2">{formatPrice(before.price, currency)} → </span>}
        {formatPrice(after.price, currency)} / {per}
        {share !== null && share !== 0 && (
          <b className={`ml-2 ${share > 0 ? 'text-brick' : 'text-enamel'}`}>{told(share)}</b>
        )}
      </span>
    </div>
  );
}
