import Link from '@/ui/Link';
import { notFound } from 'next/navigation';
import { formatMoney, formatPrice, type Minor } from '@/core/money/money';
import { ORDER_STATE_NAMES, type OrderState } from '@/core/orders/states';
import { formatQuantity } from '@/core/quantity/quantity';
import { unitOf } from '@/core/quantity/units';
import { may } from '@/core/people/rights';
import { counted } from '@/core/words';
import { loadSupplier, type DaysKept } from '@/queries/suppliers';
import { Facts } from '@/ui/kit/Facts';
import { Fact, Shelf } from '@/ui/kit/Shelf';
import { Opened } from '@/ui/Opened';
import { Dash, Sheet } from '@/ui/kit/Sheet';
import { place } from '../../../server/place';

export const metadata = { title: 'Supplier' };

export default place(async ({ db, person, today, params }) => {
  const view = await loadSupplier(db, person, Number(params.id), today);
  if (view === undefined) notFound();
  const { supplier, orders, parts, tax, kept } = view;
  const money = (amount: Minor) => formatMoney(amount, supplier.currency);
  const aside = (
    <>
      <h2 className="mb-1 text-[16px]">Latest orders</h2>
      {orders.length === 0 && <p className="text-ink-2">None yet.</p>}
      <ul>
        {orders.map((o) => (
          <li key={o.id} className="flex justify-between gap-2 border-b border-line-2 py-1">
            <span>
              <Link href={`/orders/${o.number}`} className="mono font-semibold hover:underline">
                {o.number}
              </Link>{' '}
              <span className="text-[12.5px] text-ink-2">{ORDER_STATE_NAMES[o.state as OrderState]}</span>
            </span>
            <span>{formatMoney(o.net, supplier.currency)}</span>
          </li>
        ))}
      </ul>
    </>
  );
  return (
    <Sheet aside={aside}>
      <Opened kind="supplier" id={supplier.id} />
      <h1 className="text-[25px] leading-tight">{supplier.name}</h1>
      <p className="mb-4 text-ink-2">{[supplier.contact, supplier.email].filter(Boolean).join(' · ')}</p>
      <Facts
        facts={[
          ['Address', supplier.address],
          ['Days kept', keptInWords(kept)],
          ['Lead', counted(supplier.leadDays, 'working day')],
          ['Pays in', `${counted(supplier.paymentDays, 'day')} from invoice`],
          [
            'Carriage',
            supplier.carriage === 0
              ? 'none'
              : `${money(supplier.carriage)}${supplier.carriageFreeFrom === null ? '' : `, free from ${money(supplier.carriageFreeFrom)}`}`,
          ],
          ['Currency', supplier.currency],
          ['Usual tax', tax],
          ['Carrier', supplier.carrier],
        ]}
      />
      <h2 className="mt-6 text-[16px]">What they sell us</h2>
      {parts.length === 0 ? (
        <p className="text-ink-2">No part is priced with this supplier yet. Open an item to say how it is sold.</p>
      ) : (
        <div className="relative max-phone:overflow-x-auto">
          <table className="ledger" aria-label="Parts of this supplier">
            <thead>
              <tr>
                <th>Item</th>
                <th>Name</th>
                <th className="max-phone:hidden">Their number</th>
                <th className="max-phone:hidden">Unit</th>
                <th className="num max-phone:hidden">Minimum</th>
                <th className="num max-phone:hidden">Packs of</th>
                <th className="num">Price {supplier.currency}</th>
              </tr>
            </thead>
            <tbody>
              {parts.map((p) => (
                <tr key={p.itemId}>
                  <td>
                    <Link href={`/items/${p.itemId}`} className="mono font-bold whitespace-nowrap hover:underline">
                      {p.number}
                    </Link>
                  </td>
                  <td>{p.name}</td>
                  <td className="mono max-phone:hidden">{p.theirNumber || <Dash />}</td>
                  <td className="max-phone:hidden">{unitOf(p.unit).short || unitOf(p.unit).name}</td>
                  <td className="num max-phone:hidden">{p.minimum === 0 ? <Dash /> : formatQuantity(p.minimum)}</td>
                  <td className="num max-phone:hidden">{p.pack === 0 ? <Dash /> : formatQuantity(p.pack)}</td>
                  <td className="num">
                    {p.price === null ? (
                      <Dash />
                    ) : (
                      <>
                        {p.breaks > 1 && <span className="text-ink-2">from </span>}
                        {formatPrice(p.price, supplier.currency)}
                        {p.priceQuantity > 1 && ` per ${p.priceQuantity}`}
                        <span className="text-[12.5px] text-ink-2 phone:hidden">
                          {' '}
                          / {unitOf(p.unit).short || unitOf(p.unit).name}
                        </span>
                      </>
                    )}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
      <Shelf
        facts={
          <span className="max-phone:hidden">
            <Fact strong>{supplier.name}</Fact>
          </span>
        }
      >
        {may(person, 'draft orders') && (
          <Link href={`/gather?supplier=${supplier.id}`} className="btn h-[38px] border border-[#5d6d70] text-on-rim">
            Gather from them
          </Link>
        )}
        {may(person, 'keep suppliers') && (
          <Link href={`/suppliers/${supplier.id}/change`} className="btn btn-main h-[38px]">
            Change the supplier
          </Link>
        )}
      </Shelf>
    </Sheet>
  );
});

const keptInWords = ({ came, kept }: DaysKept): string =>
  came === 0 ? 'nothing came in yet' : `${kept} of ${counted(came, 'line')} by the day wanted, in the last year`;
