import Link from '@/ui/kit/Link';
import { notFound } from 'next/navigation';
import { formatDay, type Day } from '@/core/calendar/workdays';
import { formatMoney, type Minor } from '@/core/money/money';
import { ORDER_STATE_NAMES, type OrderState } from '@/core/orders/states';
import { may } from '@/core/people/rights';
import { counted } from '@/core/words';
import { listPaidParts, loadPriceCourse } from '@/queries/items/priceCourse';
import { listOpenLines } from '@/queries/items/openLines';
import { loadSupplier, type DaysKept, type SupplierLists } from '@/queries/items/suppliers';
import { Facts } from '@/ui/kit/Facts';
import { Fact, Shelf } from '@/ui/kit/Shelf';
import { WEEKDAYS } from '@/ui/kit/WeekField';
import { TakeOut } from '@/ui/kit/TakeOut';
import { Opened } from '@/ui/frame/Opened';
import { Sheet } from '@/ui/kit/Sheet';
import { loadCompany } from '@/store/company';
import { yardPage } from '../../../server/yardPage';
import { PriceList } from './PriceList';
import { PriceOverTime } from './PriceOverTime';
import { OpenLinesTable } from './OpenLinesTable';
import { SoldTable } from './SoldTable';
import { StartOrder } from './StartOrder';

export const metadata = { title: 'Supplier' };

export default yardPage(async ({ db, person, today, params, query }) => {
  const view = await loadSupplier(db, person, Number(params.id), today);
  if (view === undefined) notFound();
  const { supplier, lists, orders, open, parts, tax, kept } = view;
  const { currency } = await loadCompany(db);
  const lines = await listOpenLines(db, person, supplier.id, today);
  const paid = await listPaidParts(db, person, supplier.id);
  const part = paid.find((p) => String(p.itemId) === query.part) ?? paid[0];
  const course = part && (await loadPriceCourse(db, person, supplier.id, part.itemId));
  const money = (amount: Minor) => formatMoney(amount, supplier.currency);
  const aside = (
    <>
      <h2 className="text-[16px]">On order</h2>
      <p className="mb-3">
        <b className="text-[17px]">{formatMoney(open.onOrder, currency)}</b>{' '}
        <span className="text-ink-2">
          {open.orders === 0 ? (
            'No open orders'
          ) : (
            <Link href={`/orders?supplier=${supplier.id}`} className="hover:underline">
              {counted(open.orders, 'open order')}
            </Link>
          )}
        </span>
      </p>
      <h2 className="mb-1 text-[16px]">Recent orders</h2>
      {orders.length === 0 && <p className="text-ink-2">None yet.</p>}
      <ul>
        {orders.map((o) => (
          <li key={o.id} className="flex justify-between gap-2 border-b border-line-2 py-1">
            <span>
              <Link href={`/orders/${o.number}`} className="mono font-semibold hover:underline">
                {o.number}
              </Link>{' '}
              <span className="text-[12.5px] text-ink-2">{ORDER_STATE_NAMES[o.state as OrderState]}</span>
            </span>
            <span>{formatMoney(o.net, supplier.currency)}</span>
          </li>
        ))}
      </ul>
      <p className="mt-2">
        <Link href={`/history?about=supplier&id=${supplier.id}`} className="step">
          History
        </Link>
      </p>
      {open.ever > 0 && (
        <p className="mt-2">
          <Link href={`/orders?show=all&supplier=${supplier.id}`} className="step">
            {open.ever === 1 ? '1 order' : `All ${open.ever} orders`}
          </Link>
        </p>
      )}
    </>
  );
  return (
    <Sheet aside={aside}>
      <Opened kind="supplier" id={supplier.id} />
      <h1 className="text-[25px] leading-tight">{supplier.name}</h1>
      <p className="mb-4 text-ink-2">{[supplier.contact, supplier.email].filter(Boolean).join(' · ')}</p>
      <Facts
        facts={[
          ['Address', supplier.address],
          ['On time', keptInWords(kept)],
          ['Lead', counted(supplier.leadDays, 'working day')],
          ['Payment terms', `${counted(supplier.paymentDays, 'day')} from invoice`],
          [
            'Carriage',
            supplier.carriage === 0
              ? 'none'
              : `${money(supplier.carriage)}${supplier.carriageFreeFrom === null ? '' : `, free from ${money(supplier.carriageFreeFrom)}`}`,
          ],
          ['Minimum order', supplier.minimumOrder === null ? '' : money(supplier.minimumOrder)],
          ['Currency', supplier.currency],
          ['Usual tax', tax],
          ['Carrier', supplier.carrier],
          ['Working days', supplier.week === null ? '' : weekInWords(supplier.week)],
          [
            'Closed',
            lists.closed
              .filter((c) => c.untilDay >= today)
              .map((c) => closedInWords(c, today))
              .join('\n'),
          ],
          ['Agreed terms', supplier.terms],
          ['Supplies', supplier.delivers],
          ...lists.contacts.map(
            (c) => [c.whatFor || 'Other contacts', [c.name, c.email, c.phone].filter(Boolean).join(' · ')] as const,
          ),
          ...lists.addresses.map((a) => [a.whatFor, a.address] as const),
        ]}
      />
      {lines.length > 0 && (
        <>
          <h2 className="mt-6 text-[16px]">Open lines</h2>
          <OpenLinesTable lines={lines} />
        </>
      )}
      <div className="mt-6 flex flex-wrap items-baseline justify-between gap-x-4">
        <h2 className="text-[16px]">Items</h2>
        {parts.length > 0 && <TakeOut list="sold" of={{ supplier: String(supplier.id) }} />}
      </div>
      {parts.length === 0 ? (
        <p className="text-ink-2">No items from this supplier yet. Open an item and add this supplier.</p>
      ) : (
        <SoldTable parts={parts} currency={supplier.currency} />
      )}
      {course && part && <PriceOverTime parts={paid} part={part} course={course} currency={supplier.currency} />}
      <Shelf
        facts={
          <span className="max-phone:hidden">
            <Fact strong>{supplier.name}</Fact>
          </span>
        }
      >
        {may(person, 'draft orders') && <StartOrder supplierId={supplier.id} />}
        {may(person, 'draft orders') && (
          <Link href={`/gather?supplier=${supplier.id}`} className="btn btn-shelf">
            Gather for this supplier
          </Link>
        )}
        {may(person, 'keep suppliers') && <PriceList supplierId={supplier.id} />}
        {may(person, 'keep suppliers') && (
          <Link href={`/suppliers/${supplier.id}/change`} className="btn btn-main h-[38px]">
            Edit supplier
          </Link>
        )}
      </Shelf>
    </Sheet>
  );
});

const weekInWords = (week: string): string =>
  week
    .split(',')
    .map((d) => WEEKDAYS[Number(d) - 1]?.slice(0, 3))
    .join(', ');

const closedInWords = ({ fromDay, untilDay, words }: SupplierLists['closed'][number], today: Day): string =>
  `${formatDay(fromDay, today)} to ${formatDay(untilDay, today)}${words === '' ? '' : `, ${words}`}`;

const keptInWords = ({ came, kept }: DaysKept): string =>
  came === 0 ? 'no deliveries yet' : `${kept} of ${counted(came, 'line')} on time in the last year`;
