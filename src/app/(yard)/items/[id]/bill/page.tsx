import { notFound } from 'next/navigation';
import { loadBill } from '@/queries/items/boms';
import { loadItem } from '@/queries/items/items';
import { Sheet } from '@/ui/kit/Sheet';
import { place } from '../../../../server/place';
import { BillSheet } from './BillSheet';

export const metadata = { title: 'Bill of materials' };

export default place(async ({ db, person, today, params, query }) => {
  const view = await loadItem(db, person, Number(params.id), today);
  if (view === undefined) notFound();
  const asked = Number(query.version);
  const bill = await loadBill(db, person, view.item.id, {
    on: today,
    bomId: Number.isSafeInteger(asked) ? asked : undefined,
  });
  const { id, number, name, unit } = view.item;
  return (
    <Sheet>
      <BillSheet
        key={bill.bom?.id ?? 'new'}
        item={{ id, number, name, unit }}
        bill={bill}
        fresh={query.version === 'new'}
      />
    </Sheet>
  );
});
