import { permit } from '@/queries/permit';
import { Sheet } from '@/ui/kit/Sheet';
import { place } from '../../../server/place';
import { ItemForm } from '../ItemForm';

export const metadata = { title: 'New item' };

export default place(async ({ person }) => {
  permit(person, 'keep suppliers');
  return (
    <Sheet>
      <ItemForm view={undefined} />
    </Sheet>
  );
});
