import { may } from '@/core/people/rights';
import Link from '@/ui/Link';
import { listOrders, orderFilterOf, sumOrders } from '@/queries/orders';
import { FilterChoice, FilterDay, FilterPick, FilterWords, MoreFilters } from '@/ui/kit/Filters';
import { GoOn, NothingFound, PlaceTitle, Sheet } from '@/ui/kit/Sheet';
import { findJobThing, loadThing } from '@/queries/things';
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

const LEAST = [
  ['', 'Any value'],
  ['100', '100 and more'],
  ['1000', '1,000 and more'],
  ['5000', '5,000 and more'],
  ['25000', '25,000 and more'],
] as const;

export default place(async ({ db, person, today, query }) => {
  const filter = { ...orderFilterOf(query, today), sort: query.sort, after: query.after };
  const { rows, next, sorts } = await listOrders(db, person, filter, today);
  const supplier = await loadThing(db, person, 'supplier', filter.supplierId, today);
  const job = await findJobThing(db, person, query.job, today);
  const foot = await sumOrders(db, person, filter);
  return (
    <Sheet>
      <PlaceTitle title="Orders">
        <FilterChoice name="show" label="Which orders" fallback="open" options={SHOWN} />
        <MoreFilters names={['job', 'supplier', 'late', 'least', 'by']}>
          <FilterPick name="job" label="Job" all="All jobs" kind="job" by="number" value={job} />
          <FilterPick name="supplier" label="Supplier" all="All suppliers" kind="supplier" by="id" value={supplier} />
          <FilterChoice
            name="late"
            label="Late or not"
            options={[
              ['', 'Late or not'],
              ['yes', 'Late only'],
            ]}
          />
          {may(person, 'see money') && <FilterChoice name="least" label="Net, at least" options={LEAST} />}
          <FilterDay name="by" label="Wanted by" />
        </MoreFilters>
        <FilterWords label="Any number, or supplier" />
        <ListViews list="orders" />
        <TakeOut list="orders" />
      </PlaceTitle>
      <OrdersList rows={rows} list={{ name: 'orders', sorts, foot }}>
        <NothingFound
          to="/orders"
          filtered={['words', 'show', 'job', 'supplier', 'late', 'by', 'least'].some((f) => query[f] !== undefined)}
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
