import { loadCompanyForm } from '@/queries/company/company';
import { loadReviewPoints } from '@/queries/orders/reviews';
import { Sheet } from '@/ui/kit/Sheet';
import { yardPage } from '../../server/yardPage';
import { SettingsTitle } from '../_shared/company/SettingsTitle';
import { CompanyForm } from './CompanyForm';
import { DaysOff } from './DaysOff';
import { ReviewPoints } from './ReviewPoints';

export const metadata = { title: 'Company' };

export default yardPage(async ({ db, person, today }) => {
  const view = await loadCompanyForm(db, person, today);
  const points = await loadReviewPoints(db, person);
  return (
    <Sheet aside={<DaysOff off={view.off} today={today} />}>
      <SettingsTitle title="Company and calendar" list="company" />
      <CompanyForm key={view.company.version} view={view} />
      <ReviewPoints points={points} />
    </Sheet>
  );
});
