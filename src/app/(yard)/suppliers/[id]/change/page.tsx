import { notFound } from 'next/navigation';
import { permit } from '@/queries/permit';
import { loadSupplier, loadSupplierForm } from '@/queries/items/suppliers';
import { Sheet } from '@/ui/kit/Sheet';
import { yardPage } from '../../../../server/yardPage';
import { SupplierForm } from '../../SupplierForm';

export const metadata = { title: 'Edit supplier' };

export default yardPage(async ({ db, person, today, params }) => {
  permit(person, 'keep suppliers');
  const view = await loadSupplier(db, person, Number(params.id), today);
  if (view === undefined) notFound();
  const { supplier, lists } = view;
  return (
    <Sheet>
      <SupplierForm key={supplier.version} supplier={supplier} lists={lists} {...await loadSupplierForm(db, person)} />
    </Sheet>
  );
});
