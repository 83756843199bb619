import { permit } from '@/queries/permit';
import { loadSupplierForm } from '@/queries/items/suppliers';
import { Sheet } from '@/ui/kit/Sheet';
import { yardPage } from '../../../server/yardPage';
import { SupplierForm } from '../SupplierForm';

export const metadata = { title: 'New supplier' };

export default yardPage(async ({ db, person }) => {
  permit(person, 'keep suppliers');
  return (
    <Sheet>
      <SupplierForm supplier={undefined} lists={undefined} {...await loadSupplierForm(db, person)} />
    </Sheet>
  );
});
