import { permit } from '@/queries/permit';
import { loadSupplierForm } from '@/queries/suppliers';
import { loadCompany } from '@/store/company';
import { Sheet } from '@/ui/kit/Sheet';
import { place } from '../../../server/place';
import { SupplierForm } from '../SupplierForm';

export const metadata = { title: 'New supplier' };

export default place(async ({ db, person }) => {
  permit(person, 'keep suppliers');
  const { currency } = await loadCompany(db);
  return (
    <Sheet>
      <SupplierForm supplier={undefined} companyCurrency={currency} {...await loadSupplierForm(db, person)} />
    </Sheet>
  );
});
