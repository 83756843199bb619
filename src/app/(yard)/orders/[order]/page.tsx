import { notFound } from 'next/navigation';
import { loadHistory } from '@/queries/company/history';
import { UNSENT } from '@/core/orders/states';
import { nextDraft } from '@/queries/orders/nextAct';
import { loadOrder, loadOrderForm } from '@/queries/orders/order';
import { Opened } from '@/ui/frame/Opened';
import { yardPage, type Params } from '../../../server/yardPage';
import { OrderPage } from './OrderPage';

export const generateMetadata = async ({ params }: Params) => ({ title: `Order ${(await params).order}` });

export default yardPage(async ({ db, person, today, params }) => {
  const view = await loadOrder(db, person, params.order ?? '', today);
  if (view === undefined) notFound();
  const lines = view.revising?.lines ?? view.order.lines;
  const form = view.editable ? await loadOrderForm(db, person, { ...view.order, lines }, today) : undefined;
  const { rows } = await loadHistory(db, person, { about: 'order', id: view.order.id });
  const next = UNSENT.includes(view.order.state) ? undefined : await nextDraft(db, person, view.order.id);
  return (
    <>
      <Opened kind="order" id={view.order.id} />
      <OrderPage view={view} form={form} history={rows} next={next} />
    </>
  );
});
