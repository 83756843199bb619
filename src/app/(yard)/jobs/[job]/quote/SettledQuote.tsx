'use client';

import { useState } from 'react';
import { formatAmount, formatMoney, formatPrice, lineNet, signOf } from '@/core/money/money';
import { formatQuantity, type Quantity } from '@/core/quantity/quantity';
import { unitOf } from '@/core/quantity/units';
import { QUOTE_LINE_KIND_NAMES } from '@/core/quotes/rows';
import { whyNotBought, isWon } from '@/core/quotes/winning';
import { counted } from '@/core/words';
import type { QuoteLineRow, QuoteView } from '@/queries/jobs/job';
import { ReasonQuestion } from '@/ui/kit/Reason';
import { Fact, Shelf, ShelfMain } from '@/ui/kit/Shelf';
import { Dash, Empty } from '@/ui/kit/Sheet';
import type { Column, Key } from '@/ui/ledger/column';
import { LedgerTable } from '@/ui/ledger/LedgerTable';
import { useAct, useOnce } from '@/ui/acting/useAct';
import { useYard } from '@/ui/frame/YardContext';
import { acts } from '../../../../actions';
import { QuoteSums } from './QuoteSums';
import { Revise } from './Revise';

/** A quote that is won or lost, or that this person may not change. */
export function SettledQuote({ quote, job }: { readonly quote: QuoteView; readonly job: string }) {
  const { currency, day, may } = useYard();
  const { rows, whole } = quote;
  const [picked, setPicked] = useState<ReadonlySet<Key>>(new Set());
  const [agreeing, setAgreeing] = useState(false);
  const once = useOnce();
  const agree = useAct(acts.agreeLines, {
    said: ({ bought, budget }) => `${formatMoney(budget, currency)} more budget, ${counted(bought, 'line')} to buy`,
    onDone: () => {
      once.renew();
      setPicked(new Set());
      setAgreeing(false);
    },
  });
  const open = rows.filter((l) => l.agreed === 0);
  const mayAgree = isWon(quote) && quote.revisedAs === null && open.length > 0 && may('win quotes');
  const columns: Column<QuoteLineRow>[] = [
    { key: 'place', head: '', cell: (l) => <span className="text-ink-2">{l.place}</span> },
    {
      key: 'what',
      head: 'Item',
      by: (l) => l.description,
      cell: (l) => (
        <>
          <span className="font-semibold">{l.description}</span>{' '}
          {l.number !== null && <span className="mono whitespace-nowrap text-ink-2">{l.number}</span>}{' '}
          {l.kind !== 'bought' && <span className="tag">{QUOTE_LINE_KIND_NAMES[l.kind].toLowerCase()}</span>}{' '}
          {l.optional === 1 && l.agreed !== 1 && <span className="tag">optional</span>}{' '}
          {isWon(quote) && <WhyNot line={l} />}
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
      head: 'Needed by',
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
      head: `Sell price ${signOf(currency)}`,
      num: true,
      by: (l) => l.price ?? 0,
      cell: (l) => (l.price === null ? <Dash /> : formatPrice(l.price, currency)),
      wide: true,
    },
    {
      key: 'net',
      head: 'Total cost',
      num: true,
      by: (l) => lineNet(l.quantity as Quantity, l.cost, 1, currency),
      cell: (l) => formatAmount(lineNet(l.quantity as Quantity, l.cost, 1, currency), currency),
    },
  ];
  return (
    <>
      {rows.length === 0 ? (
        <Empty title="The quote has no lines yet">People who may write quotes enter or import them.</Empty>
      ) : (
        <LedgerTable
          label="Lines of the quote"
          rows={rows}
          columns={columns}
          keyOf={(l) => l.id}
          picks={
            mayAgree
              ? { picked, onPick: setPicked, may: (l) => l.agreed === 0, words: (l) => `Select ${l.description}` }
              : undefined
          }
        />
      )}
      <QuoteSums codes={whole.codes} currency={currency} />
      <Shelf
        facts={
          <>
            <Fact strong>{counted(whole.lines, 'line')}</Fact>
            <Fact>cost {formatMoney(whole.cost, currency)}</Fact>
            <Fact>price {formatMoney(whole.price, currency)}</Fact>
            {mayAgree && <Fact>{counted(open.length, 'line')} not accepted</Fact>}
          </>
        }
      >
        {picked.size > 0 && (
          <ShelfMain onClick={() => setAgreeing(true)}>Customer accepts {counted(picked.size, 'line')}…</ShelfMain>
        )}
        {quote.revisedAs === null && may('import quotes') && <Revise quote={quote} job={job} />}
      </Shelf>
      {agreeing && (
        <ReasonQuestion
          title={`Customer accepts ${counted(picked.size, 'line')}`}
          words="Their cost is added to the budget, and bought lines go on the buy list."
          label="Accepted by (customer)"
          field="by"
          keep="Cancel"
          go="Accept lines"
          act={agree}
          onClose={() => setAgreeing(false)}
          onGo={(by) =>
            void agree.run({
              once: once.key(),
              ...{ quoteId: quote.id, version: quote.version, lineIds: [...picked].map(Number), by },
            })
          }
        />
      )}
    </>
  );
}

/** Why a line of a won quote is not bought. */
function WhyNot({ line }: { readonly line: QuoteLineRow }) {
  const why = whyNotBought(line, line.itemBought === null ? undefined : { bought: line.itemBought });
  return why === undefined ? null : <span className="text-[12.5px] text-ink-2">{why}</span>;
}
