'use client';

import { LIMITS } from '@/core/limits';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { formatAmount, formatMoney, formatPrice, lineNet, signOf } from '@/core/money/money';
import { formatQuantity, type Quantity } from '@/core/quantity/quantity';
import { unitOf } from '@/core/quantity/units';
import { QUOTE_STATE_NAMES } from '@/core/quotes/winning';
import { QUOTE_LINE_KIND_NAMES } from '@/core/quotes/rows';
import type { QuoteLineRow, QuoteView } from '@/queries/job';
import { useKey } from '@/ui/keys';
import { LedgerTable, type Column } from '@/ui/kit/LedgerTable';
import { Fact, Shelf, ShelfMain, ShelfPlain } from '@/ui/kit/Shelf';
import { Dash, Empty, Further } from '@/ui/kit/Sheet';
import { useAct } from '@/ui/useAct';
import { useYard } from '@/ui/YardContext';
import { moveQuote } from '../../../../acts';
import { WinSlip } from './WinSlip';
import { counted } from '@/core/words';

const FILE_INPUT = 'quote-file';
const chooseFile = () => document.getElementById(FILE_INPUT)?.click();

export function QuoteLines({
  quote,
  job,
  gone,
  sample,
}: {
  quote: QuoteView;
  job: string;
  gone: boolean;
  sample: boolean;
}) {
  const { currency, day, may } = useYard();
  const [winning, setWinning] = useState(false);
  const upload = useUpload(quote.id, job);
  const move = useAct(moveQuote);
  const open = quote.state === 'writing' || quote.state === 'withCustomer';
  const { rows, whole } = quote;
  useKey('N', 'Bring in a file', chooseFile, open && may('import quotes'));
  useKey('Ctrl+Enter', 'Mark won', () => setWinning(true), open && rows.length > 0 && may('win quotes') && !winning);
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
      head: 'Customer’s price',
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
  const words =
    quote.state === 'won'
      ? `won ${day(quote.wonOn)}: ${quote.wonBy} said yes, marked by ${quote.markedBy}`
      : QUOTE_STATE_NAMES[quote.state].toLowerCase();
  const fault =
    upload.fault ??
    move.clash?.message ??
    move.refusals[0]?.message ??
    (gone ? 'That file was brought in or replaced already. Choose it again if it is still needed.' : undefined);
  return (
    <div
      className="mt-3"
      onDragOver={(e) => open && e.preventDefault()}
      onDrop={(e) => {
        if (!open) return;
        e.preventDefault();
        void upload.send(e.dataTransfer.files[0]);
      }}
    >
      <p className="mb-2 text-ink-2">
        <span className="mono font-bold text-ink">{quote.number}</span> · {words}
      </p>
      <input
        id={FILE_INPUT}
        type="file"
        accept=".csv,.txt,.tsv,text/csv"
        aria-label="Quote file"
        className="sr-only"
        tabIndex={-1}
        onChange={(e) => {
          void upload.send(e.target.files?.[0]);
          e.target.value = '';
        }}
      />
      {rows.length === 0 ? (
        <Empty title="The quote has no lines yet">
          Bring them in from a CSV file, as a spreadsheet or estimating program writes it: choose it below, or drop it
          here. Columns are matched on the next page.
          {sample && (
            <>
              {' '}
              To try it,{' '}
              <a href="/sample-quote" download className="step">
                take the sample quote file
              </a>
              .
            </>
          )}
        </Empty>
      ) : (
        <LedgerTable label="Lines of the quote" rows={rows} columns={columns} keyOf={(l) => l.id} />
      )}
      <Further
        to={`/jobs/${job}/quote`}
        before={quote.before}
        shown={rows.length}
        of={whole.lines}
        after={rows.at(-1)?.place}
      />
      <Shelf
        fault={fault}
        facts={
          <>
            <Fact strong>{counted(whole.lines, 'line')}</Fact>
            {rows.length > 0 && (
              <>
                <Fact>cost {formatMoney(whole.cost, currency)}</Fact>
                <Fact>customer’s price {formatMoney(whole.price, currency)}</Fact>
              </>
            )}
          </>
        }
      >
        {open && may('win quotes') && rows.length > 0 && quote.state === 'writing' && (
          <ShelfPlain
            disabled={move.busy}
            onClick={() => void move.run({ quoteId: quote.id, version: quote.version, to: 'withCustomer' })}
          >
            It is with the customer
          </ShelfPlain>
        )}
        {open && may('win quotes') && quote.state === 'withCustomer' && (
          <ShelfPlain
            disabled={move.busy}
            onClick={() => void move.run({ quoteId: quote.id, version: quote.version, to: 'lost' })}
          >
            It was lost
          </ShelfPlain>
        )}
        {open &&
          may('import quotes') &&
          (rows.length === 0 ? (
            <ShelfMain disabled={upload.busy} onClick={chooseFile} hint="N">
              {upload.busy ? 'Reading…' : 'Bring in a file'}
            </ShelfMain>
          ) : (
            <ShelfPlain disabled={upload.busy} onClick={chooseFile} hint="N">
              {upload.busy ? 'Reading…' : 'Bring in a file'}
            </ShelfPlain>
          ))}
        {open && may('win quotes') && rows.length > 0 && (
          <ShelfMain onClick={() => setWinning(true)} hint="^↵">
            Mark won
          </ShelfMain>
        )}
      </Shelf>
      {winning && <WinSlip quote={quote} job={job} onClose={() => setWinning(false)} />}
    </div>
  );
}

/** Sends a chosen file in and leads on to its columns. */
function useUpload(quoteId: number, job: string) {
  const router = useRouter();
  const [busy, setBusy] = useState(false);
  const [fault, setFault] = useState<string>();
  const send = async (file: File | undefined) => {
    if (file === undefined) return;
    if (file.size > LIMITS.file)
      return setFault(`${file.name} is larger than 8 MB. Split it and bring the parts in one after the other.`);
    setBusy(true);
    setFault(undefined);
    const of = new URLSearchParams({ quote: String(quoteId), name: file.name });
    try {
      const answer = await fetch(`/jobs/${job}/quote/file?${of}`, { method: 'POST', body: file });
      const told = (await answer.json()) as { id?: number; message?: string };
      if (told.id === undefined) setFault(`${file.name}: ${told.message ?? 'the file could not be read.'}`);
      else router.push(`/jobs/${job}/quote?file=${told.id}`);
    } catch {
      setFault('The file could not be handed over. Try again in a moment.');
    }
    setBusy(false);
  };
  return { busy, fault, send };
}
