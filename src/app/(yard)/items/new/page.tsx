import { permit } from '@/queries/permit';
import { Sheet } from '@/ui/kit/Sheet';
import { page } from '../../../server/page';
import { ItemForm } from '../ItemForm';

export const metadata = { title: 'New item' };

export default page(async ({ person }) => {
  permit(person, 'keep suppliers');
  return (
    <Sheet>
      <ItemForm view={undefined} />
    </Sheet>
  );
});
