import { permit } from '@/queries/permit';
import { Sheet } from '@/ui/kit/Sheet';
import { yardPage } from '../../../server/yardPage';
import { ItemForm } from '../ItemForm';

export const metadata = { title: 'New item' };

export default yardPage(async ({ person }) => {
  permit(person, 'keep suppliers');
  return (
    <Sheet>
      <ItemForm view={undefined} />
    </Sheet>
  );
});
