'use client';

import { formatAmount, formatMoney, formatPrice, lineNet, signOf } from '@/core/money/money';
import { formatQuantity, type Quantity } from '@/core/quantity/quantity';
import { unitOf } from '@/core/quantity/units';
import { QUOTE_LINE_KIND_NAMES } from '@/core/quotes/rows';
import { counted } from '@/core/words';
import type { QuoteLineRow, QuoteView } from '@/queries/job';
import { Fact, Shelf } from '@/ui/kit/Shelf';
import { Dash, Empty } from '@/ui/kit/Sheet';
import type { Column } from '@/ui/ledger/column';
import { LedgerTable } from '@/ui/ledger/LedgerTable';
import { useYard } from '@/ui/YardContext';

/** A quote that is won or lost, or that this person may not change. */
export function SettledQuote({ quote }: { quote: QuoteView }) {
  const { currency, day } = useYard();
  const { rows, whole } = quote;
  const columns: Column<QuoteLineRow>[] = [
    { key: 'place', head: '', cell: (l) => <span className="text-ink-2">{l.place}</span> },
    {
      key: 'what',
      head: 'Line',
      by: (l) => l.description,
      cell: (l) => (
        <>
          <span className="font-semibold">{l.description}</span>{' '}
          {l.number !== null && <span className="mono whitespace-nowrap text-ink-2">{l.number}</span>}{' '}
          {l.kind !== 'bought' && <span className="tag">{QUOTE_LINE_KIND_NAMES[l.kind].toLowerCase()}</span>}
        </>
      ),
    },
    {
      key: 'code',
      head: 'Cost code',
      by: (l) => l.code,
      cell: (l) => (
        <span className="whitespace-nowrap">
          {l.code} <span className="text-ink-2">{l.codeName}</span>
        </span>
      ),
      wide: true,
    },
    { key: 'supplier', head: 'Supplier', by: (l) => l.supplier ?? '', cell: (l) => l.supplier ?? <Dash />, wide: true },
    {
      key: 'needed',
      head: 'Needed',
      by: (l) => l.neededOn ?? '9999',
      cell: (l) => <span className="whitespace-nowrap">{day(l.neededOn)}</span>,
      wide: true,
    },
    {
      key: 'quantity',
      head: 'Quantity',
      num: true,
      by: (l) => l.quantity,
      cell: (l) => `${formatQuantity(l.quantity as Quantity)} ${unitOf(l.unit).short}`,
    },
    {
      key: 'cost',
      head: `Cost ${signOf(currency)}`,
      num: true,
      by: (l) => l.cost,
      cell: (l) => formatPrice(l.cost, currency),
    },
    {
      key: 'price',
      head: `Sold at ${signOf(currency)}`,
      num: true,
      by: (l) => l.price ?? 0,
      cell: (l) => (l.price === null ? <Dash /> : formatPrice(l.price, currency)),
      wide: true,
    },
    {
      key: 'net',
      head: 'Cost in all',
      num: true,
      by: (l) => lineNet(l.quantity as Quantity, l.cost, 1, currency),
      cell: (l) => formatAmount(lineNet(l.quantity as Quantity, l.cost, 1, currency), currency),
    },
  ];
  return (
    <>
      {rows.length === 0 ? (
        <Empty title="The quote has no lines yet">They are typed in or brought in by who may write quotes.</Empty>
      ) : (
        <LedgerTable label="Lines of the quote" rows={rows} columns={columns} keyOf={(l) => l.id} />
      )}
      <Shelf
        facts={
          <>
            <Fact strong>{counted(whole.lines, 'line')}</Fact>
            <Fact>cost {formatMoney(whole.cost, currency)}</Fact>
            <Fact>sold at {formatMoney(whole.price, currency)}</Fact>
          </>
        }
      />
    </>
  );
}
