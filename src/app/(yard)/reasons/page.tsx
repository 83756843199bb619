import { loadReasonsPage } from '@/queries/company/settings';
import { Sheet } from '@/ui/kit/Sheet';
import { yardPage } from '../../server/yardPage';
import { SettingsTitle } from '../_shared/company/SettingsTitle';
import { ReasonsTable } from './ReasonsTable';

export const metadata = { title: 'Delivery reasons' };

export default yardPage(async ({ db, person }) => (
  <Sheet>
    <SettingsTitle title="Delivery reasons" list="reasons" />
    <ReasonsTable reasons={await loadReasonsPage(db, person)} />
  </Sheet>
));
