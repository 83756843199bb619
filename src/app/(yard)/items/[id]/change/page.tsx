import { notFound } from 'next/navigation';
import { loadItem } from '@/queries/items/items';
import { permit } from '@/queries/permit';
import { Sheet } from '@/ui/kit/Sheet';
import { yardPage } from '../../../../server/yardPage';
import { ItemForm } from '../../ItemForm';

export const metadata = { title: 'Edit item' };

export default yardPage(async ({ db, person, today, params }) => {
  permit(person, 'keep suppliers');
  const view = await loadItem(db, person, Number(params.id), today);
  if (view === undefined) notFound();
  return (
    <Sheet>
      <ItemForm key={view.item.version} view={view} />
    </Sheet>
  );
});
