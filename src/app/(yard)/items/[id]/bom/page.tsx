import { notFound } from 'next/navigation';
import { loadBom } from '@/queries/items/boms';
import { loadItem } from '@/queries/items/items';
import { Sheet } from '@/ui/kit/Sheet';
import { yardPage } from '../../../../server/yardPage';
import { BomSheet } from './BomSheet';

export const metadata = { title: 'Bill of materials' };

export default yardPage(async ({ db, person, today, params, query }) => {
  const view = await loadItem(db, person, Number(params.id), today);
  if (view === undefined) notFound();
  const asked = Number(query.version);
  const bom = await loadBom(db, person, view.item.id, {
    on: today,
    bomId: Number.isSafeInteger(asked) ? asked : undefined,
  });
  const { id, number, name, unit } = view.item;
  return (
    <Sheet>
      <BomSheet key={bom.bom?.id ?? 'new'} item={{ id, number, name, unit }} of={bom} fresh={query.version === 'new'} />
    </Sheet>
  );
});
