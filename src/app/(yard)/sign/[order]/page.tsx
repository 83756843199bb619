import { notFound } from 'next/navigation';
import { listToSign, loadSignPage } from '@/queries/signoff/toSign';
import { Opened } from '@/ui/frame/Opened';
import { yardPage, type Params } from '../../../server/yardPage';
import { SignOrder } from './SignOrder';

export const generateMetadata = async ({ params }: Params) => ({ title: `Sign ${(await params).order}` });

export default yardPage(async ({ db, person, today, params }) => {
  const page = await loadSignPage(db, person, params.order ?? '', today);
  if (page === undefined) notFound();
  const waiting = await listToSign(db, person, today);
  const others = waiting.filter((w) => w.orderId !== page.view.order.id);
  return (
    <>
      <Opened kind="order" id={page.view.order.id} />
      <SignOrder key={page.view.order.version} page={page} next={others[0]?.number} left={others.length} />
    </>
  );
});
