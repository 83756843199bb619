import Link from '@/ui/Link';
import { listOrders, ORDER_FILTERS } from '@/queries/orders';
import { FilterChoice, FilterWords } from '@/ui/kit/Filters';
import { UNSENT } from '@/core/orders/states';
import { may } from '@/core/people/rights';
import { Fact, Shelf } from '@/ui/kit/Shelf';
import { Empty, GoOn, PlaceTitle, Sheet } from '@/ui/kit/Sheet';
import { asked } from '@/core/asked';
import { TakeOut } from '@/ui/kit/TakeOut';
import { place } from '../../server/place';
import { OrdersTable } from './OrdersTable';

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
  const unsent = rows.filter((r) => UNSENT.includes(r.state)).length;
  return (
    <Sheet>
      <PlaceTitle title="Orders" count={`${rows.length}${more ? ' of more' : ''}`}>
        <FilterChoice name="show" label="Which orders" fallback="open" options={SHOWN} />
        <FilterWords label="Number or supplier" />
        <TakeOut list="orders" />
      </PlaceTitle>
      {rows.length === 0 ? (
        <Empty title="No order is shown">
          Orders are drafted in{' '}
          <Link href="/gather" className="step">
            Gather
          </Link>
          , from what the jobs’ buy lists need.
        </Empty>
      ) : (
        <OrdersTable rows={rows} />
      )}
      {more && (
        <GoOn to="/orders" query={{ ...query, before: rows.at(-1)?.id }}>
          Older orders
        </GoOn>
      )}
      <Shelf facts={<Fact>{unsent === 0 ? 'Every order shown is with its supplier' : `${unsent} not sent yet`}</Fact>}>
        {may(person, 'draft orders') && (
          <Link href="/gather" className="btn btn-main h-[38px]">
            Gather
          </Link>
        )}
      </Shelf>
    </Sheet>
  );
});
