import Link from '@/ui/Link';
import { listOrders, ORDER_FILTERS } from '@/queries/orders';
import { FilterChoice, FilterWords } from '@/ui/kit/Filters';
import { Empty, GoOn, PlaceTitle, Sheet } from '@/ui/kit/Sheet';
import { asked } from '@/core/asked';
import { TakeOut } from '@/ui/kit/TakeOut';
import { place } from '../../server/place';
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
  const { rows, more } = await listOrders(db, person, {
    show,
    words: query.words,
    before: query.before === undefined ? undefined : Number(query.before),
  });
  return (
    <Sheet>
      <PlaceTitle title="Orders" count={`${rows.length}${more ? ' of more' : ''}`}>
        <FilterChoice name="show" label="Which orders" fallback="open" options={SHOWN} />
        <FilterWords label="Number or supplier" />
        <TakeOut list="orders" />
      </PlaceTitle>
      <OrdersList rows={rows}>
        <Empty title="No order is shown">
          Orders are drafted in{' '}
          <Link href="/gather" className="step">
            Gather
          </Link>
          , from what the jobs’ buy lists need.
        </Empty>
      </OrdersList>
      {more && (
        <GoOn to="/orders" query={{ ...query, before: rows.at(-1)?.id }}>
          Older orders
        </GoOn>
      )}
    </Sheet>
  );
});
