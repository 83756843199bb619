import { loadRatesPage } from '@/queries/company/company';
import { Sheet } from '@/ui/kit/Sheet';
import { page } from '../../server/page';
import { SettingsTitle } from '../_shared/company/SettingsTitle';
import { Rates } from './Rates';

export const metadata = { title: 'Exchange rates' };

export default page(async ({ db, person, today }) => (
  <Sheet>
    <SettingsTitle title="Exchange rates" list="rates" />
    <Rates view={await loadRatesPage(db, person, today)} />
  </Sheet>
));
