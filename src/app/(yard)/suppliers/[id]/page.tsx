import Link from '@/ui/Link';
import { notFound } from 'next/navigation';
import { formatMoney, type Minor } from '@/core/money/money';
import { ORDER_STATE_NAMES, type OrderState } from '@/core/orders/states';
import { may } from '@/core/people/rights';
import { counted } from '@/core/words';
import { loadSupplier, type DaysKept } from '@/queries/suppliers';
import { Facts } from '@/ui/kit/Facts';
import { Fact, Shelf } from '@/ui/kit/Shelf';
import { Opened } from '@/ui/Opened';
import { Sheet } from '@/ui/kit/Sheet';
import { place } from '../../../server/place';
import { SoldTable } from './SoldTable';

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
        <SoldTable parts={parts} currency={supplier.currency} />
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
