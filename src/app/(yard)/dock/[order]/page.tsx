import { notFound } from 'next/navigation';
import { loadDockOrder } from '@/queries/dock/order';
import { nextAtDock } from '@/queries/orders/nextAct';
import { Opened } from '@/ui/frame/Opened';
import { page, type Params } from '../../../server/page';
import { TakeIn } from './TakeIn';

export const generateMetadata = async ({ params }: Params) => ({ title: `Dock ${(await params).order}` });

export default page(async ({ db, person, params }) => {
  const order = await loadDockOrder(db, person, params.order ?? '');
  if (order === undefined) notFound();
  return (
    <>
      <Opened kind="order" id={order.id} />
      <TakeIn order={order} next={await nextAtDock(db, person, order)} />
    </>
  );
});
