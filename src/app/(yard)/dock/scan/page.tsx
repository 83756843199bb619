import { loadReasons } from '@/queries/dockOrder';
import { permit } from '@/queries/permit';
import { loadThing } from '@/queries/things';
import { place } from '../../../server/place';
import { ScanIn } from './ScanIn';

export const metadata = { title: 'Scan in' };

export default place(async ({ db, person, today, query }) => {
  permit(person, 'receive');
  const supplier = await loadThing(db, person, 'supplier', Number(query.supplier) || null, today);
  return <ScanIn supplier={supplier} reasons={await loadReasons(db, person)} />;
});
