import Link from '@/ui/Link';
import { listOrders, orderFilterOf, sumOrders } from '@/queries/orders';
import { FilterChoice, FilterDay, FilterPick, FilterWords } from '@/ui/kit/Filters';
import { GoOn, NothingFound, PlaceTitle, Sheet } from '@/ui/kit/Sheet';
import { loadThing } from '@/queries/things';
import { TakeOut } from '@/ui/kit/TakeOut';
import { place } from '../../server/place';
import { ListViews } from '../ListViews';
import { OrdersList } from './OrdersList';

export const metadata = { title: 'Orders' };

const SHOWN = [
  ['open', 'Open orders'],
  ['unsent', 'Not sent yet'],
  ['sent', 'At suppliers'],
  ['in', 'All in, to settle'],
  ['done', 'Settled or called off'],
  ['all', 'All orders'],
] as const;

export default place(async ({ db, person, today, query }) => {
  const filter = { ...orderFilterOf(query, today), sort: query.sort, after: query.after };
  const { rows, next, sorts } = await listOrders(db, person, filter, today);
  const supplier = await loadThing(db, person, 'supplier', filter.supplierId, today);
  const foot = await sumOrders(db, person, filter);
  return (
    <Sheet>
      <PlaceTitle title="Orders">
        <FilterChoice name="show" label="Which orders" fallback="open" options={SHOWN} />
        <FilterPick name="supplier" label="Supplier" all="All suppliers" kind="supplier" by="id" value={supplier} />
        <FilterChoice
          name="late"
          label="Late or not"
          options={[
            ['', 'Late or not'],
            ['yes', 'Late only'],
          ]}
        />
        <FilterDay name="by" label="Wanted by" />
        <FilterWords label="Any number, or supplier" />
        <ListViews list="orders" />
        <TakeOut list="orders" />
      </PlaceTitle>
      <OrdersList rows={rows} list={{ name: 'orders', sorts, foot }}>
        <NothingFound
          to="/orders"
          filtered={['words', 'show', 'supplier', 'late', 'by'].some((f) => query[f] !== undefined)}
          title="No order is shown"
        >
          Orders are drafted in{' '}
          <Link href="/gather" className="step">
            Gather
          </Link>
          , from what the jobs’ buy lists need.
        </NothingFound>
      </OrdersList>
      {next !== undefined && (
        <GoOn to="/orders" query={{ ...query, after: next }}>
          Further orders
        </GoOn>
      )}
    </Sheet>
  );
});
