import { loadPlacesPage } from '@/queries/company/settings';
import { Sheet } from '@/ui/kit/Sheet';
import { yardPage } from '../../server/yardPage';
import { SettingsTitle } from '../_shared/company/SettingsTitle';
import { PlacesTable } from './PlacesTable';

export const metadata = { title: 'Locations' };

export default yardPage(async ({ db, person }) => (
  <Sheet>
    <SettingsTitle title="Locations" list="places" />
    <PlacesTable places={await loadPlacesPage(db, person)} />
  </Sheet>
));
