import { notFound } from 'next/navigation';
import { loadLotWay } from '@/queries/stores/lotHistory';
import { idIn } from '../../../../server/answer';
import { page } from '../../../../server/page';
import { LotWayPage } from './LotWayPage';

export const metadata = { title: 'Traceability' };

export default page(async ({ db, person, params }) => {
  const way = /^\d+$/.test(params.lot ?? '') ? await loadLotWay(db, person, idIn(params.lot)) : undefined;
  if (way === undefined) notFound();
  return <LotWayPage way={way} />;
});
