import { loadTaxesPage } from '@/queries/company/settings';
import { Sheet } from '@/ui/kit/Sheet';
import { page } from '../../server/page';
import { SettingsTitle } from '../_shared/company/SettingsTitle';
import { TaxesTable } from './TaxesTable';

export const metadata = { title: 'Taxes' };

export default page(async ({ db, person }) => (
  <Sheet>
    <SettingsTitle title="Taxes" list="taxes" />
    <TaxesTable taxes={await loadTaxesPage(db, person)} />
  </Sheet>
));
