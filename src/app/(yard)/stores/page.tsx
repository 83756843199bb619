import { may } from '@/core/people/rights';
import { listStock, stockFilter, sumStock } from '@/queries/stores';
import { FilterChoice, FilterWords } from '@/ui/kit/Filters';
import { RowKeys, Shelf } from '@/ui/kit/Shelf';
import { GoOn, NothingFound, PlaceTitle, Sheet } from '@/ui/kit/Sheet';
import { TakeOut } from '@/ui/kit/TakeOut';
import Link from '@/ui/Link';
import { place } from '../../server/place';
import { ListViews } from '../ListViews';
import { CountFile } from './CountFile';
import { StockTable } from './StockTable';

export const metadata = { title: 'Stores' };

const SHOWN = [
  ['', 'All that is kept'],
  ['low', 'Below its level'],
  ['slow', 'Slow: nothing out for 6 months'],
  ['dead', 'Dead: nothing out for 2 years'],
] as const;

export default place(async ({ db, person, query, today }) => {
  const filter = stockFilter(query, today);
  const { rows, next, sorts } = await listStock(db, person, filter);
  const foot = await sumStock(db, person, filter);
  return (
    <Sheet>
      <PlaceTitle title="Stores">
        <FilterWords label="Number or name" />
        <FilterChoice name="show" label="What is shown" options={SHOWN} />
        <ListViews list="stores" />
        <TakeOut list="stores" />
        <Link href="/stores/pick" className="step ml-auto max-phone:ml-0">
          To pick
        </Link>
        <Link href="/stores/count" className="step">
          Counts
        </Link>
      </PlaceTitle>
      {rows.length === 0 ? (
        <NothingFound
          to="/stores"
          filtered={query.words !== undefined || query.show !== undefined}
          title="Nothing lies in stores"
        >
          A part that is stocked stands here once it is said so on its page; what orders bring for stores, too.
        </NothingFound>
      ) : (
        <StockTable rows={rows} list={{ name: 'stores', sorts, foot }} />
      )}
      {next !== undefined && (
        <GoOn to="/stores" query={{ ...query, after: next }}>
          Further items
        </GoOn>
      )}
      <Shelf facts={<RowKeys />}>{may(person, 'keep stores') && <CountFile />}</Shelf>
    </Sheet>
  );
});
