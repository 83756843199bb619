import { loadPlacesPage } from '@/queries/company/settings';
import { Sheet } from '@/ui/kit/Sheet';
import { place } from '../../server/place';
import { SettingsTitle } from '../_shared/company/SettingsTitle';
import { PlacesTable } from './PlacesTable';

export const metadata = { title: 'Locations' };

export default place(async ({ db, person }) => (
  <Sheet>
    <SettingsTitle title="Locations" list="places" />
    <PlacesTable places={await loadPlacesPage(db, person)} />
  </Sheet>
));
