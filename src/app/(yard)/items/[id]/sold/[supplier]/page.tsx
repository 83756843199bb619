import { notFound } from 'next/navigation';
import { loadSold } from '@/queries/items/items';
import { Sheet } from '@/ui/kit/Sheet';
import { yardPage } from '../../../../../server/yardPage';
import { PartForm } from './PartForm';

export const metadata = { title: 'Supplier terms' };

export default yardPage(async ({ db, person, params }) => {
  const view = await loadSold(db, person, Number(params.id), Number(params.supplier));
  if (view === undefined) notFound();
  return (
    <Sheet>
      <PartForm key={view.part?.version} view={view} />
    </Sheet>
  );
});
