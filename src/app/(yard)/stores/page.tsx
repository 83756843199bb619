import { may } from '@/core/people/rights';
import { listStock, stockFilter, sumStock } from '@/queries/stores/stores';
import { FilterChoice, FilterWords } from '@/ui/kit/Filters';
import { RowKeys, Shelf } from '@/ui/kit/Shelf';
import { GoOn, NothingFound, PlaceTitle, Sheet } from '@/ui/kit/Sheet';
import { TakeOut } from '@/ui/kit/TakeOut';
import Link from '@/ui/kit/Link';
import { yardPage } from '../../server/yardPage';
import { ListViews } from '../_shared/people/ListViews';
import { CountFile } from './CountFile';
import { LowStock } from './LowStock';
import { StockTable } from './StockTable';

export const metadata = { title: 'Stores' };

const SHOWN = [
  ['', 'All stock items'],
  ['low', 'Below minimum'],
  ['slow', 'Slow-moving: none issued for 6 months'],
  ['dead', 'Dead stock: none issued for 2 years'],
] as const;

export default yardPage(async ({ db, person, query, today }) => {
  const filter = stockFilter(query, today);
  const { rows, next, sorts } = await listStock(db, person, filter);
  const list = { name: 'stores', sorts, foot: await sumStock(db, person, filter) } as const;
  const ordering = rows.length > 0 && filter.low === true && may(person, 'draft orders');
  return (
    <Sheet>
      <PlaceTitle title="Stores">
        <FilterWords label="Number or name" />
        <FilterChoice name="show" label="Show" options={SHOWN} />
        <ListViews list="stores" />
        <TakeOut list="stores" />
        <Link href="/stores/pick" className="step ml-auto max-phone:ml-0">
          To pick
        </Link>
        <Link href="/stores/count" className="step">
          Stock counts
        </Link>
      </PlaceTitle>
      {rows.length === 0 ? (
        <NothingFound
          to="/stores"
          filtered={query.words !== undefined || query.show !== undefined}
          title="No stock yet"
        >
          Items marked as stock items appear here, and anything received for stores.
        </NothingFound>
      ) : ordering ? (
        <LowStock rows={rows} list={list} />
      ) : (
        <StockTable rows={rows} list={list} />
      )}
      {next !== undefined && (
        <GoOn to="/stores" query={{ ...query, after: next }}>
          More items
        </GoOn>
      )}
      {!ordering && <Shelf facts={<RowKeys />}>{may(person, 'keep stores') && <CountFile />}</Shelf>}
    </Sheet>
  );
});
