import { notFound } from 'next/navigation';
import { formatPrice, signOf } from '@/core/money/money';
import { may } from '@/core/people/rights';
import { formatQuantity, type Quantity } from '@/core/quantity/quantity';
import { unitOf } from '@/core/quantity/units';
import { formatDay } from '@/core/calendar/workdays';
import { loadItem, loadItemPast, type ItemView } from '@/queries/items';
import { Facts } from '@/ui/kit/Facts';
import { Fact, Shelf } from '@/ui/kit/Shelf';
import { Dash, Sheet } from '@/ui/kit/Sheet';
import Link from '@/ui/Link';
import { Opened } from '@/ui/Opened';
import { place } from '../../../server/place';

export const metadata = { title: 'Part' };

const measured = (q: Quantity, unit: string) => `${formatQuantity(q)} ${unitOf(unit).short}`.trim();
const nameOf = (unit: string) => unitOf(unit).short || unitOf(unit).name;

export default place(async ({ db, person, today, params }) => {
  const view = await loadItem(db, person, Number(params.id));
  if (view === undefined) notFound();
  const { item, parts, costCode, supplier } = view;
  const { bought, wanted } = await loadItemPast(db, person, item.id);
  const aside = (
    <>
      <h2 className="mb-1 text-[16px]">Wanted now</h2>
      {wanted.length === 0 && <p className="text-ink-2">By no job.</p>}
      <ul>
        {wanted.map((n) => (
          <li key={n.id} className="flex justify-between gap-2 border-b border-line-2 py-1">
            <Link href={`/jobs/${n.job}/buy-list?need=${n.id}`} className="mono font-semibold hover:underline">
              {n.job}
            </Link>
            <span className="text-ink-2">{n.neededOn === null ? '' : formatDay(n.neededOn, today)}</span>
            <span>{measured(n.open, n.unit)}</span>
          </li>
        ))}
      </ul>
    </>
  );
  return (
    <Sheet aside={aside}>
      <Opened kind="item" id={item.id} />
      <h1 className="text-[25px] leading-tight">{item.name}</h1>
      <p className="mono mb-4 text-ink-2">{item.number}</p>
      <Facts
        facts={[
          ['Used in', unitOf(item.unit).name],
          ['Cost code', costCode === null ? '' : `${costCode.number} ${costCode.name}`],
          ['Supplier', supplier?.name ?? 'none yet'],
          ['GTIN', item.gtin],
          ['Kind', item.kind === 'service' ? 'outside work' : item.stocked === 1 ? 'goods, kept in stores' : 'goods'],
        ]}
      />
      <h2 className="mt-6 text-[16px]">Who sells it</h2>
      {parts.length === 0 ? <p className="text-ink-2">Nobody is priced for it yet.</p> : <Sellers parts={parts} />}
      <h2 className="mt-6 text-[16px]">Bought last</h2>
      {bought.length === 0 ? (
        <p className="text-ink-2">Not ordered yet.</p>
      ) : (
        <div className="relative max-phone:overflow-x-auto">
          <table className="ledger" aria-label="Bought last">
            <thead>
              <tr>
                <th>Order</th>
                <th>From</th>
                <th className="max-phone:hidden">Sent</th>
                <th className="num">Quantity</th>
                <th className="num">Price</th>
              </tr>
            </thead>
            <tbody>
              {bought.map((b, k) => (
                <tr key={k}>
                  <td>
                    <Link href={`/orders/${b.order}`} className="mono font-bold whitespace-nowrap hover:underline">
                      {b.order}
                    </Link>
                  </td>
                  <td>{b.supplier}</td>
                  <td className="whitespace-nowrap max-phone:hidden">{formatDay(b.day, today)}</td>
                  <td className="num">{measured(b.quantity, b.unit)}</td>
                  <td className="num">
                    {b.price === null ? <Dash /> : `${signOf(b.currency)}\u202f${formatPrice(b.price, b.currency)}`}
                    <PerUnit unit={b.unit} priceQuantity={b.priceQuantity} />
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
      <Shelf facts={<Fact strong>{item.number}</Fact>}>
        {may(person, 'keep suppliers') && (
          <Link href={`/items/${item.id}/change`} className="btn btn-main h-[38px]">
            Change the part
          </Link>
        )}
      </Shelf>
    </Sheet>
  );
});

/** What a price is for, beside it: a reel, a hundred metres. */
const PerUnit = ({ unit, priceQuantity }: { unit: string; priceQuantity: number }) => (
  <span className="text-[12.5px] text-ink-2">
    {' '}
    / {priceQuantity === 1 ? '' : `${priceQuantity} `}
    {nameOf(unit)}
  </span>
);

function Sellers({ parts }: { parts: ItemView['parts'] }) {
  return (
    <div className="relative max-phone:overflow-x-auto">
      <table className="ledger" aria-label="Who sells it">
        <thead>
          <tr>
            <th>Supplier</th>
            <th className="max-phone:hidden">Their number</th>
            <th className="num max-phone:hidden">Minimum</th>
            <th className="num max-phone:hidden">Packs of</th>
            <th className="num">Price by quantity</th>
          </tr>
        </thead>
        <tbody>
          {parts.map((p) => (
            <tr key={p.id}>
              <td>
                <Link href={`/suppliers/${p.supplierId}`} className="font-semibold hover:underline">
                  {p.supplier}
                </Link>
              </td>
              <td className="mono max-phone:hidden">{p.theirNumber || <Dash />}</td>
              <td className="num max-phone:hidden">
                {p.terms.minimum === 0 ? <Dash /> : measured(p.terms.minimum, p.terms.unit)}
              </td>
              <td className="num max-phone:hidden">
                {p.terms.pack === 0 ? <Dash /> : measured(p.terms.pack, p.terms.unit)}
              </td>
              <td className="num">
                {p.terms.prices.length === 0 && <Dash />}
                {[...p.terms.prices]
                  .sort((a, b) => a.from - b.from)
                  .map((b) => (
                    <span key={b.from} className="block whitespace-nowrap">
                      {b.from > 0 && <span className="text-ink-2">from {formatQuantity(b.from)} </span>}
                      {signOf(p.currency)}&#8239;{formatPrice(b.price, p.currency)}
                      <PerUnit unit={p.terms.unit} priceQuantity={b.priceQuantity} />
                    </span>
                  ))}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
