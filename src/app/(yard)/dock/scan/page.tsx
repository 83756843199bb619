import { loadReasons } from '@/queries/dock/order';
import { permit } from '@/queries/permit';
import { loadScannedOrder } from '@/queries/dock/scanning';
import { loadChoice } from '@/queries/frame/choices';
import { yardPage } from '../../../server/yardPage';
import { ScanIn } from './ScanIn';

export const metadata = { title: 'Scan in' };

export default yardPage(async ({ db, person, today, query }) => {
  permit(person, 'receive');
  const supplier = await loadChoice(db, person, 'supplier', Number(query.supplier) || null, today);
  const order = await loadScannedOrder(db, person, query.order ?? '');
  return <ScanIn {...{ supplier, order }} reasons={await loadReasons(db, person)} />;
});
