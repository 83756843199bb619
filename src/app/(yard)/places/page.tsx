import { loadPlacesPage } from '@/queries/company/settings';
import { Sheet } from '@/ui/kit/Sheet';
import { page } from '../../server/page';
import { SettingsTitle } from '../_shared/company/SettingsTitle';
import { PlacesTable } from './PlacesTable';

export const metadata = { title: 'Locations' };

export default page(async ({ db, person }) => (
  <Sheet>
    <SettingsTitle title="Locations" list="places" />
    <PlacesTable places={await loadPlacesPage(db, person)} />
  </Sheet>
));
