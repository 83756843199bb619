import { loadRatesPage } from '@/queries/company/company';
import { Sheet } from '@/ui/kit/Sheet';
import { yardPage } from '../../server/yardPage';
import { SettingsTitle } from '../_shared/company/SettingsTitle';
import { Rates } from './Rates';

export const metadata = { title: 'Exchange rates' };

export default yardPage(async ({ db, person, today }) => (
  <Sheet>
    <SettingsTitle title="Exchange rates" list="rates" />
    <Rates view={await loadRatesPage(db, person, today)} />
  </Sheet>
));
