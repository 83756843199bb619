import { isOverdue } from '@/core/orders/states';
import { listDue } from '@/queries/dock';
import { FilterWords } from '@/ui/kit/Filters';
import { Fact, Shelf } from '@/ui/kit/Shelf';
import { Empty, GoOn, PlaceTitle, Sheet } from '@/ui/kit/Sheet';
import { TakeOut } from '@/ui/kit/TakeOut';
import { place } from '../../server/place';
import { DueTable } from './DueTable';

export const metadata = { title: 'Dock' };

export default place(async ({ db, person, today, query }) => {
  const { rows, next } = await listDue(db, person, query.words, query.after);
  const late = rows.filter((r) => isOverdue(r, today)).length;
  return (
    <Sheet>
      <PlaceTitle title="Dock" count={`${rows.length}${next === undefined ? '' : ' of more'} to come`}>
        <FilterWords label="Order, supplier or part" />
        <TakeOut list="dock" />
      </PlaceTitle>
      {rows.length === 0 ? (
        <Empty title="Nothing is on its way">
          Orders stand here from when they are sent until all of their goods are in.
        </Empty>
      ) : (
        <DueTable rows={rows} />
      )}
      {next !== undefined && (
        <GoOn to="/dock" query={{ words: query.words, after: next }}>
          What is wanted later
        </GoOn>
      )}
      <Shelf facts={<Fact>{late === 0 ? 'Nothing is late' : `${late} wanted before today`}</Fact>} />
    </Sheet>
  );
});
