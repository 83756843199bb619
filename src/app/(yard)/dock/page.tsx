import { isOverdue } from '@/core/orders/states';
import { listDue } from '@/queries/dock';
import { FilterWords } from '@/ui/kit/Filters';
import { Fact, Shelf } from '@/ui/kit/Shelf';
import { Empty, PlaceTitle, Sheet } from '@/ui/kit/Sheet';
import { place } from '../../server/place';
import { DueTable } from './DueTable';

export const metadata = { title: 'Dock' };

export default place(async ({ db, person, today, query }) => {
  const { rows, more } = await listDue(db, person, query.words);
  const late = rows.filter((r) => isOverdue(r, today)).length;
  return (
    <Sheet>
      <PlaceTitle title="Dock" count={`${rows.length}${more ? ' of more' : ''} to come`}>
        <FilterWords label="Order, supplier or part" />
      </PlaceTitle>
      {rows.length === 0 ? (
        <Empty title="Nothing is on its way">
          Orders stand here from when they are sent until all of their goods are in.
        </Empty>
      ) : (
        <DueTable rows={rows} />
      )}
      <Shelf facts={<Fact>{late === 0 ? 'Nothing is late' : `${late} wanted before today`}</Fact>} />
    </Sheet>
  );
});
