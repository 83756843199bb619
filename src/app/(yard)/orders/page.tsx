import { may } from '@/core/people/rights';
import Link from '@/ui/kit/Link';
import { listOrders, orderFilterOf, sumOrders } from '@/queries/orders/orders';
import { FilterChoice, FilterDay, FilterPick, FilterWords, MoreFilters } from '@/ui/kit/Filters';
import { GoOn, NothingFound, PlaceTitle, Sheet } from '@/ui/kit/Sheet';
import { findJobChoice, loadChoice } from '@/queries/frame/choices';
import { TakeOut } from '@/ui/kit/TakeOut';
import { yardPage } from '../../server/yardPage';
import { ListViews } from '../_shared/people/ListViews';
import { OrdersList } from './OrdersList';

export const metadata = { title: 'Orders' };

const SHOWN = [
  ['open', 'Open orders'],
  ['unsent', 'Not sent yet'],
  ['sent', 'With suppliers'],
  ['in', 'Received, to invoice'],
  ['done', 'Complete or cancelled'],
  ['all', 'All orders'],
] as const;

const LEAST = [
  ['', 'Any value'],
  ['100', '100 or more'],
  ['1000', '1,000 or more'],
  ['5000', '5,000 or more'],
  ['25000', '25,000 or more'],
] as const;

export default yardPage(async ({ db, person, today, query }) => {
  const filter = { ...orderFilterOf(query, today), sort: query.sort, after: query.after };
  const { rows, next, sorts } = await listOrders(db, person, filter, today);
  const supplier = await loadChoice(db, person, 'supplier', filter.supplierId, today);
  const job = await findJobChoice(db, person, query.job, today);
  const foot = await sumOrders(db, person, filter);
  return (
    <Sheet>
      <PlaceTitle title="Orders">
        <FilterChoice name="show" label="Status" fallback="open" options={SHOWN} />
        <MoreFilters names={['job', 'supplier', 'late', 'least', 'by']}>
          <FilterPick name="job" label="Job" all="All jobs" kind="job" by="number" value={job} />
          <FilterPick name="supplier" label="Supplier" all="All suppliers" kind="supplier" by="id" value={supplier} />
          <FilterChoice
            name="late"
            label="Late and on time"
            options={[
              ['', 'Late and on time'],
              ['yes', 'Late only'],
            ]}
          />
          {may(person, 'see money') && <FilterChoice name="least" label="Net at least" options={LEAST} />}
          <FilterDay name="by" label="Required by" />
        </MoreFilters>
        <FilterWords label="No. or supplier" />
        <ListViews list="orders" />
        <TakeOut list="orders" />
      </PlaceTitle>
      <OrdersList rows={rows} list={{ name: 'orders', sorts, foot }}>
        <NothingFound
          to="/orders"
          filtered={['words', 'show', 'job', 'supplier', 'late', 'by', 'least'].some((f) => query[f] !== undefined)}
          title="No orders here"
        >
          Draft orders in{' '}
          <Link href="/gather" className="step">
            Gather
          </Link>
          from the jobs’ buy lists.
        </NothingFound>
      </OrdersList>
      {next !== undefined && (
        <GoOn to="/orders" query={{ ...query, after: next }}>
          More orders
        </GoOn>
      )}
    </Sheet>
  );
});
