import Link from '@/ui/kit/Link';
import { may } from '@/core/people/rights';
import { listItems, sumItems } from '@/queries/items/items';
import { FilterWords } from '@/ui/kit/Filters';
import { RowKeys, Shelf } from '@/ui/kit/Shelf';
import { GoOn, NothingFound, PlaceTitle, Sheet } from '@/ui/kit/Sheet';
import { TakeOut } from '@/ui/kit/TakeOut';
import { yardPage } from '../../server/yardPage';
import { ListViews } from '../_shared/people/ListViews';
import { ItemsTable } from './ItemsTable';

export const metadata = { title: 'Items' };

export default yardPage(async ({ db, person, today, query }) => {
  const { rows, next, sorts } = await listItems(db, person, today, query);
  const foot = await sumItems(db, person, query);
  return (
    <Sheet>
      <PlaceTitle title="Items">
        <FilterWords label="Number or name" />
        <ListViews list="items" />
        <TakeOut list="items" />
      </PlaceTitle>
      {rows.length === 0 ? (
        <NothingFound to="/items" filtered={query.words !== undefined} title="No items here">
          An item has your number, a unit and suppliers.{' '}
          <Link href="/items/new" className="step">
            New item
          </Link>
        </NothingFound>
      ) : (
        <ItemsTable rows={rows} list={{ name: 'items', sorts, foot }} />
      )}
      {next !== undefined && (
        <GoOn to="/items" query={{ ...query, after: next }}>
          More items
        </GoOn>
      )}
      <Shelf facts={<RowKeys />}>
        {may(person, 'keep suppliers') && (
          <Link href="/items/new" className="btn btn-main h-[38px]">
            New item
          </Link>
        )}
      </Shelf>
    </Sheet>
  );
});
