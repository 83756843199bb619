import Link from '@/ui/Link';
import { notFound } from 'next/navigation';
import { formatMoney, formatPrice } from '@/core/money/money';
import { ORDER_STATE_NAMES, type OrderState } from '@/core/orders/states';
import { formatQuantity } from '@/core/quantity/quantity';
import { unitOf } from '@/core/quantity/units';
import { loadSupplier, loadSupplierForm } from '@/queries/suppliers';
import { loadCompany } from '@/store/company';
import { Opened } from '@/ui/Opened';
import { Dash, Sheet } from '@/ui/kit/Sheet';
import { place } from '../../../server/place';
import { SupplierForm } from './SupplierForm';

export const metadata = { title: 'Supplier' };

export default place(async ({ db, person, params }) => {
  const form = await loadSupplierForm(db, person);
  const { currency } = await loadCompany(db);
  if (params.id === 'new')
    return (
      <Sheet>
        <SupplierForm supplier={undefined} companyCurrency={currency} {...form} />
      </Sheet>
    );
  const view = await loadSupplier(db, person, Number(params.id));
  if (view === undefined) notFound();
  const { supplier, orders, parts } = view;
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
      <SupplierForm key={supplier.version} supplier={supplier} companyCurrency={currency} {...form} />
      <h2 className="mt-6 text-[16px]">What they sell us</h2>
      {parts.length === 0 ? (
        <p className="text-ink-2">No part is priced with this supplier yet. Open an item to say how it is sold.</p>
      ) : (
        <div className="max-phone:overflow-x-auto">
          <table className="ledger" aria-label="Parts of this supplier">
            <thead>
              <tr>
                <th>Item</th>
                <th>Name</th>
                <th>Their number</th>
                <th>Unit</th>
                <th className="num">Minimum</th>
                <th className="num">Packs of</th>
                <th className="num">Price {supplier.currency}</th>
              </tr>
            </thead>
            <tbody>
              {parts.map((p) => (
                <tr key={p.itemId}>
                  <td>
                    <Link href={`/items/${p.itemId}`} className="mono font-bold hover:underline">
                      {p.number}
                    </Link>
                  </td>
                  <td>{p.name}</td>
                  <td className="mono">{p.theirNumber || <Dash />}</td>
                  <td>{unitOf(p.unit).short || unitOf(p.unit).name}</td>
                  <td className="num">{p.minimum === 0 ? <Dash /> : formatQuantity(p.minimum)}</td>
                  <td className="num">{p.pack === 0 ? <Dash /> : formatQuantity(p.pack)}</td>
                  <td className="num">
                    {p.price === null ? (
                      <Dash />
                    ) : (
                      <>
                        {p.breaks > 1 && <span className="text-ink-2">from </span>}
                        {formatPrice(p.price, supplier.currency)}
                        {p.priceQuantity > 1 && ` per ${p.priceQuantity}`}
                      </>
                    )}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
    </Sheet>
  );
});
