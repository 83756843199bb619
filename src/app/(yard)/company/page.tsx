import { loadCompanyForm } from '@/queries/company';
import { Sheet } from '@/ui/kit/Sheet';
import { place } from '../../server/place';
import { CompanyForm } from './CompanyForm';
import { DaysOff } from './DaysOff';

export const metadata = { title: 'Company' };

export default place(async ({ db, person, today }) => {
  const view = await loadCompanyForm(db, person, today);
  return (
    <Sheet aside={<DaysOff off={view.off} today={today} />}>
      <CompanyForm key={view.company.version} view={view} />
    </Sheet>
  );
});
