import { permit } from '@/queries/permit';
import { loadSupplierForm } from '@/queries/items/suppliers';
import { Sheet } from '@/ui/kit/Sheet';
import { place } from '../../../server/place';
import { SupplierForm } from '../SupplierForm';

export const metadata = { title: 'New supplier' };

export default place(async ({ db, person }) => {
  permit(person, 'keep suppliers');
  return (
    <Sheet>
      <SupplierForm supplier={undefined} lists={undefined} {...await loadSupplierForm(db, person)} />
    </Sheet>
  );
});
