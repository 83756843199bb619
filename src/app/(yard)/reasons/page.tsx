import { loadReasonsPage } from '@/queries/settings';
import { Sheet } from '@/ui/kit/Sheet';
import { place } from '../../server/place';
import { SettingsTitle } from '../SettingsTitle';
import { ReasonsTable } from './ReasonsTable';

export const metadata = { title: 'Reasons at the dock' };

export default place(async ({ db, person }) => (
  <Sheet>
    <SettingsTitle title="Reasons at the dock" list="reasons" />
    <ReasonsTable reasons={await loadReasonsPage(db, person)} />
  </Sheet>
));
