import Link from '@/ui/Link';
import { listOrders, ORDER_FILTERS, sumOrders } from '@/queries/orders';
import { FilterChoice, FilterWords } from '@/ui/kit/Filters';
import { GoOn, NothingFound, PlaceTitle, Sheet } from '@/ui/kit/Sheet';
import { asked } from '@/core/asked';
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

export default place(async ({ db, person, query }) => {
  const show = asked(ORDER_FILTERS, query.show) ?? 'open';
  const filter = { show, words: query.words, sort: query.sort, after: query.after };
  const { rows, next, sorts } = await listOrders(db, person, filter);
  const foot = await sumOrders(db, person, filter);
  return (
    <Sheet>
      <PlaceTitle title="Orders">
        <FilterChoice name="show" label="Which orders" fallback="open" options={SHOWN} />
        <FilterWords label="Number or supplier" />
        <ListViews list="orders" />
        <TakeOut list="orders" />
      </PlaceTitle>
      <OrdersList rows={rows} list={{ name: 'orders', sorts, foot }}>
        <NothingFound
          to="/orders"
          filtered={query.words !== undefined || query.show !== undefined}
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
