import { loadUnitsPage } from '@/queries/company/settings';
import { Sheet } from '@/ui/kit/Sheet';
import { yardPage } from '../../server/yardPage';
import { SettingsTitle } from '../_shared/company/SettingsTitle';
import { UnitChoice } from './UnitChoice';

export const metadata = { title: 'Units' };

export default yardPage(async ({ db, person }) => {
  const units = await loadUnitsPage(db, person);
  return (
    <Sheet>
      <SettingsTitle title="Units" list="units" />
      <UnitChoice key={units.map((u) => Number(u.offered)).join('')} units={units} />
    </Sheet>
  );
});
