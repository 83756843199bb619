import { notFound } from 'next/navigation';
import { loadDockOrder } from '@/queries/dock/order';
import { nextAtDock } from '@/queries/orders/nextAct';
import { Opened } from '@/ui/frame/Opened';
import { yardPage, type Params } from '../../../server/yardPage';
import { TakeIn } from './TakeIn';

export const generateMetadata = async ({ params }: Params) => ({ title: `Dock ${(await params).order}` });

export default yardPage(async ({ db, person, params }) => {
  const order = await loadDockOrder(db, person, params.order ?? '');
  if (order === undefined) notFound();
  return (
    <>
      <Opened kind="order" id={order.id} />
      <TakeIn order={order} next={await nextAtDock(db, person, order)} />
    </>
  );
});
