import { notFound } from 'next/navigation';
import { checksOf } from '@/core/orders/checks';
import { UNSENT } from '@/core/orders/states';
import { loadHistory } from '@/queries/job';
import { loadOrder, loadOrderForm } from '@/queries/orders';
import { loadCalendar } from '@/store/company';
import { place, type Params } from '../../../server/place';
import { OrderPage } from './OrderPage';

export const generateMetadata = async ({ params }: Params) => ({ title: `Order ${(await params).order}` });

export default place(async ({ db, person, today, params }) => {
  const view = await loadOrder(db, person, params.order ?? '');
  if (view === undefined) notFound();
  const { order, supplier, totals } = view;
  const checks = UNSENT.includes(order.state)
    ? checksOf({
        lines: order.lines,
        supplier,
        goods: totals.lines,
        currency: order.currency,
        today,
        calendar: await loadCalendar(db),
      })
    : [];
  const form = view.editable ? await loadOrderForm(db, person) : undefined;
  return (
    <OrderPage view={view} checks={checks} form={form} history={await loadHistory(db, person, 'order', order.id)} />
  );
});
