import { notFound } from 'next/navigation';
import { may } from '@/core/people/rights';
import { loadItem } from '@/queries/suppliers';
import { Opened } from '@/ui/Opened';
import { Sheet } from '@/ui/kit/Sheet';
import { place } from '../../../server/place';
import { ItemForm } from './ItemForm';

export const metadata = { title: 'Item' };

export default place(async ({ db, person, params }) => {
  const view = params.id === 'new' ? undefined : await loadItem(db, person, Number(params.id));
  if (view === undefined && params.id !== 'new') notFound();
  return (
    <Sheet>
      {view !== undefined && <Opened kind="item" id={view.item.id} />}
      <ItemForm key={view?.item.version ?? 0} view={view} mayKeep={may(person, 'keep suppliers')} />
    </Sheet>
  );
});
