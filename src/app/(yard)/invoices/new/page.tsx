import Link from '@/ui/kit/Link';
import { formatAmount, signOf } from '@/core/money/money';
import { ORDER_STATE_NAMES, type OrderState } from '@/core/orders/states';
import { findInvoiceable, loadInvoiceForm } from '@/queries/invoices/invoices';
import { FilterWords } from '@/ui/kit/Filters';
import { Empty, PlaceTitle, Sheet } from '@/ui/kit/Sheet';
import { yardPage } from '../../../server/yardPage';
import { InvoiceForm } from './InvoiceForm';

export const metadata = { title: 'Enter an invoice' };

export default yardPage(async ({ db, person, query }) => {
  const form = query.order === undefined ? undefined : await loadInvoiceForm(db, person, query.order);
  if (form !== undefined)
    return (
      <Sheet>
        <InvoiceForm key={form.order.id} {...form} />
      </Sheet>
    );
  const orders = await findInvoiceable(db, person, query.words ?? '');
  return (
    <Sheet>
      <PlaceTitle title="Enter invoice" count="Which order is it for?">
        <FilterWords label="Order number or supplier" />
      </PlaceTitle>
      {orders.length === 0 && (
        <Empty title="No matching order">
          Only sent orders can be invoiced. Search for the order number printed on the invoice.
        </Empty>
      )}
      <ul aria-label="Orders awaiting invoices">
        {orders.map((o) => (
          <li key={o.id} className="border-b border-line-2">
            <Link
              href={`/invoices/new?order=${o.number}`}
              className="flex items-baseline gap-4 py-1.5 hover:bg-glaze-2"
            >
              <span className="mono w-[92px] font-bold">{o.number}</span>
              <span className="min-w-0 flex-1 font-semibold">{o.supplier}</span>
              <span className="text-ink-2">{ORDER_STATE_NAMES[o.state as OrderState]}</span>
              <span className="w-[110px] text-right">
                {signOf(o.currency)} {formatAmount(o.net, o.currency)} net
              </span>
            </Link>
          </li>
        ))}
      </ul>
    </Sheet>
  );
});
