import { notFound } from 'next/navigation';
import { loadLotWay } from '@/queries/stores/lotHistory';
import { idIn } from '../../../../server/answer';
import { yardPage } from '../../../../server/yardPage';
import { LotWayPage } from './LotWayPage';

export const metadata = { title: 'Traceability' };

export default yardPage(async ({ db, person, params }) => {
  const way = /^\d+$/.test(params.lot ?? '') ? await loadLotWay(db, person, idIn(params.lot)) : undefined;
  if (way === undefined) notFound();
  return <LotWayPage way={way} />;
});
