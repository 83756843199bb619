import { loadTaxesPage } from '@/queries/company/settings';
import { Sheet } from '@/ui/kit/Sheet';
import { yardPage } from '../../server/yardPage';
import { SettingsTitle } from '../_shared/company/SettingsTitle';
import { TaxesTable } from './TaxesTable';

export const metadata = { title: 'Taxes' };

export default yardPage(async ({ db, person }) => (
  <Sheet>
    <SettingsTitle title="Taxes" list="taxes" />
    <TaxesTable taxes={await loadTaxesPage(db, person)} />
  </Sheet>
));
