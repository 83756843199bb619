import { notFound } from 'next/navigation';
import { loadStock } from '@/queries/stores/stock';
import { Opened } from '@/ui/frame/Opened';
import { yardPage } from '../../../server/yardPage';
import { StockPage } from './StockPage';

export const metadata = { title: 'Stores' };

export default yardPage(async ({ db, person, params }) => {
  const view = await loadStock(db, person, Number(params.item));
  if (view === undefined) notFound();
  return (
    <>
      <Opened kind="item" id={view.item.id} />
      <StockPage view={view} />
    </>
  );
});
