'use client';

import type { Day } from '@/core/calendar/workdays';
import { formatPrice, signOf } from '@/core/money/money';
import { formatQuantity } from '@/core/quantity/quantity';
import { measured, unitOf } from '@/core/quantity/units';
import { counted } from '@/core/words';
import type { ItemPast, ItemView } from '@/queries/items/items';
import { Dash } from '@/ui/kit/Sheet';
import type { Column } from '@/ui/ledger/column';
import { LedgerTable } from '@/ui/ledger/LedgerTable';
import Link from '@/ui/kit/Link';
import { useYard } from '@/ui/frame/YardContext';

type Part = ItemView['parts'][number];
type Bought = ItemPast['bought'][number];

/** What a price is for, beside it: a reel, a hundred metres. */
const PerUnit = ({ unit, priceQuantity }: { unit: string; priceQuantity: number }) => (
  <span className="text-[12.5px] text-ink-2">
    {' '}
    / {priceQuantity === 1 ? '' : `${priceQuantity} `}
    {unitOf(unit).short || unitOf(unit).name}
  </span>
);

const sellers = (keeps: boolean, day: (d: Day) => string, itemId: number): Column<Part>[] => [
  {
    key: 'supplier',
    head: 'Supplier',
    cell: (p) => (
      <>
        <Link href={`/suppliers/${p.supplierId}`} className="font-semibold hover:underline">
          {p.supplier}
        </Link>
        {p.usual && <span className="ml-2 text-[12.5px] text-ink-2">default</span>}
      </>
    ),
  },
  { key: 'number', head: 'Supplier’s item no.', wide: true, className: 'mono', cell: (p) => p.theirNumber || <Dash /> },
  {
    key: 'minimum',
    head: 'Minimum',
    num: true,
    wide: true,
    cell: (p) => (p.terms.minimum === 0 ? <Dash /> : measured(p.terms.minimum, p.terms.unit)),
  },
  {
    key: 'pack',
    head: 'Pack size',
    num: true,
    wide: true,
    cell: (p) => (p.terms.pack === 0 ? <Dash /> : measured(p.terms.pack, p.terms.unit)),
  },
  {
    key: 'price',
    head: 'Price by quantity',
    num: true,
    cell: (p) =>
      p.terms.prices.length === 0 ? (
        <Dash />
      ) : (
        [...p.terms.prices]
          .sort((a, b) => a.from - b.from)
          .map((b) => (
            <span key={b.from} className="block whitespace-nowrap">
              {b.from > 0 && <span className="text-ink-2">from {formatQuantity(b.from)} </span>}
              {signOf(p.currency)}&#8239;{formatPrice(b.price, p.currency)}
              <PerUnit unit={p.terms.unit} priceQuantity={b.priceQuantity} />
            </span>
          ))
      ),
  },
  {
    key: 'toCome',
    head: 'From date',
    num: true,
    wide: true,
    cell: (p) =>
      p.toCome.length === 0 ? (
        <Dash />
      ) : (
        p.toCome.map((b) => (
          <span key={`${b.fromDay} ${b.from}`} className="block whitespace-nowrap">
            <span className="text-ink-2">
              {day(b.fromDay)}
              {b.from > 0 && `, from ${formatQuantity(b.from)}`}{' '}
            </span>
            {formatPrice(b.price, p.currency)}
          </span>
        ))
      ),
  },
  {
    key: 'paid',
    head: 'Last paid',
    num: true,
    wide: true,
    cell: ({ paid, currency }) =>
      paid === null ? (
        <Dash />
      ) : (
        <span className="whitespace-nowrap">
          {formatPrice(paid.price, currency)}
          <PerUnit unit={paid.unit} priceQuantity={paid.priceQuantity} />
          <span className="block text-[12.5px] text-ink-2">{day(paid.on)}</span>
        </span>
      ),
  },
  {
    key: 'takes',
    head: 'Lead time',
    num: true,
    wide: true,
    cell: (p) => <span className="whitespace-nowrap">{counted(p.takes, 'day')}</span>,
  },
  ...(keeps
    ? [
        {
          key: 'change',
          head: '',
          cell: (p: Part) => (
            <Link
              href={`/items/${itemId}/sold/${p.supplierId}`}
              className="step"
              aria-label={`Edit ${p.supplier}’s terms`}
            >
              Edit
            </Link>
          ),
        },
      ]
    : []),
];

/** Who sells a part, and for how much. */
export function Sellers({ parts, itemId }: { parts: readonly Part[]; itemId: number }) {
  const { may, day } = useYard();
  return (
    <LedgerTable
      label="Suppliers"
      rows={parts}
      columns={sellers(may('keep suppliers'), day, itemId)}
      keyOf={(p) => p.id}
    />
  );
}

/** When a part was bought last, and for how much. */
export function BoughtLast({ bought }: { bought: readonly Bought[] }) {
  const { day } = useYard();
  const columns: Column<Bought>[] = [
    {
      key: 'order',
      head: 'Order',
      cell: (b) => (
        <Link href={`/orders/${b.order}`} className="mono font-bold whitespace-nowrap hover:underline">
          {b.order}
        </Link>
      ),
    },
    { key: 'supplier', head: 'From', cell: (b) => b.supplier },
    { key: 'sent', head: 'Sent', wide: true, className: 'whitespace-nowrap', cell: (b) => day(b.day) },
    { key: 'quantity', head: 'Quantity', num: true, cell: (b) => measured(b.quantity, b.unit) },
    {
      key: 'price',
      head: 'Price',
      num: true,
      cell: (b) => (
        <>
          {b.price === null ? <Dash /> : `${signOf(b.currency)}\u202f${formatPrice(b.price, b.currency)}`}
          <PerUnit unit={b.unit} priceQuantity={b.priceQuantity} />
        </>
      ),
    },
  ];
  return <LedgerTable label="Recent purchases" rows={bought} columns={columns} keyOf={(b) => b.id} />;
}
