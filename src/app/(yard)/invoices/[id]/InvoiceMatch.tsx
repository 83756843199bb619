'use client';

import Link from '@/ui/Link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { Difference } from '@/core/invoices/match';
import { WAITING } from '@/core/invoices/states';
import { formatAmount, formatMoney, formatPrice, signOf } from '@/core/money/money';
import { formatQuantity, NONE } from '@/core/quantity/quantity';
import type { NextAct } from '@/queries/nextAct';
import type { InvoiceView } from '@/queries/invoices';
import { useKey } from '@/ui/keys';
import { ReasonQuestion } from '@/ui/kit/Reason';
import { Fact, Shelf, ShelfMain, ShelfNext, ShelfPlain } from '@/ui/kit/Shelf';
import { EffectList } from '@/ui/EffectList';
import { Sheet, Wide } from '@/ui/kit/Sheet';
import { Sums } from '@/ui/kit/Sums';
import type { Column } from '@/ui/ledger/column';
import { LedgerTable } from '@/ui/ledger/LedgerTable';
import { useAct, useOnce } from '@/ui/useAct';
import { useYard } from '@/ui/YardContext';
import { matchInvoice, takeOutInvoice } from '../../../acts';
import { billedColumns } from '../billedColumns';
import { InvoiceTag } from '../InvoiceTag';
import { counted } from '@/core/words';

type Row = InvoiceView['lines'][number];

/** A figure that differs stands out. */
const tone =
  (kind: Difference['kind']) =>
  ({ differences }: Row): string => {
    const off = differences.find((d) => d.kind === kind);
    return off === undefined ? '' : off.held ? '!font-bold !text-brick' : '!font-bold !text-amber';
  };

const matchColumns = (currency: string): Column<Row>[] => [
  ...billedColumns<Row>(({ line, order, billed }) => ({
    description: order?.description ?? line.description,
    line: order,
    received: billed?.received ?? NONE,
    elsewhere: billed?.billedElsewhere ?? NONE,
  })),
  {
    key: 'billed',
    head: 'Billed now',
    num: true,
    tone: tone('quantity'),
    cell: ({ billed }) => billed && formatQuantity(billed.quantity),
  },
  {
    key: 'orderPrice',
    head: 'Order price',
    num: true,
    cell: ({ billed }) => billed && formatPrice(billed.orderPrice, currency),
  },
  {
    key: 'price',
    head: 'Billed price',
    num: true,
    tone: tone('price'),
    cell: ({ billed }) => billed && formatPrice(billed.price, currency),
  },
  {
    key: 'net',
    head: `Net ${signOf(currency)}`,
    num: true,
    className: '!font-semibold',
    tone: tone('unordered'),
    cell: ({ line }) => formatAmount(line.net, currency),
  },
];

/** Ordered, received and billed side by side; matching makes the bill actual cost on the jobs. */
export function InvoiceMatch({ view, next }: { view: InvoiceView; next: NextAct | undefined }) {
  const { invoice, lines, total, held } = view;
  const { currency } = invoice;
  const { day, may } = useYard();
  const [reason, setReason] = useState('');
  const [takingOut, setTakingOut] = useState(false);
  const router = useRouter();
  const once = useOnce();
  const { run, busy, refusals, clash } = useAct(matchInvoice, {
    said: () => `Invoice ${invoice.number} is matched`,
    onDone: once.renew,
  });
  const matched = invoice.state === 'matched';
  const waits = WAITING.includes(invoice.state);
  const mayMatch = waits && may('match invoices') && (!held || may('pass differences'));
  const submit = () => void run({ once: once.key(), invoiceId: invoice.id, version: invoice.version, reason });
  useKey('Ctrl+Enter', held ? 'Pass and match' : 'Match', submit, mayMatch && !busy);
  const all = [...lines.flatMap((l) => l.differences), ...total];
  const fault =
    clash?.message ??
    refusals[0]?.message ??
    (waits && held && !may('pass differences') ? 'Accounts or a manager can pass the difference.' : undefined);
  return (
    <Sheet aside={<Findings all={all} matched={matched} view={view} />}>
      <div className="flex flex-wrap items-baseline gap-x-3 gap-y-1">
        <h1 className="text-[25px] leading-tight">
          Invoice <span className="font-mono text-[23px] font-semibold">{invoice.number}</span>
        </h1>
        <InvoiceTag state={invoice.state} />
        <span className="text-ink-2">
          {view.supplier}, dated {day(invoice.day)}, to pay by {day(invoice.dueOn)}
        </span>
        <Link href={`/orders/${view.order.number}`} className="step ml-auto">
          Order {view.order.number}
        </Link>
      </div>
      <div className="mt-3">
        <Wide label="Ordered, received and billed, to be moved sideways">
          <LedgerTable
            label="Ordered, received and billed"
            rows={lines}
            columns={matchColumns(currency)}
            keyOf={(l) => l.line.id}
          />
        </Wide>
      </div>
      <Sums
        rows={[
          { label: 'Net', amount: formatAmount(invoice.net, currency) },
          { label: 'Tax', amount: formatAmount(invoice.tax, currency) },
          { label: 'Lines and tax come to', amount: formatMoney(invoice.gross, currency) },
          {
            label: 'The paper says',
            amount: formatMoney(invoice.typedTotal, currency),
            strong: true,
            over: total.length > 0,
          },
        ]}
      />
      {held && mayMatch && (
        <label className="mt-4 block max-w-[560px]">
          <span className="field-label">Why the difference is passed</span>
          <input
            className="field"
            value={reason}
            onChange={(e) => setReason(e.target.value)}
            placeholder="agreed with whom, or what was found out"
            maxLength={300}
          />
        </label>
      )}
      <Shelf
        fault={fault}
        facts={
          <>
            <Fact strong>{formatMoney(invoice.gross, currency)}</Fact>
            <Fact warn={held && waits}>
              {invoice.state === 'takenOut'
                ? 'taken out: it claims nothing'
                : matched
                  ? `matched ${day(invoice.matchedOn)} by ${view.matchedBy}`
                  : held
                    ? `${counted(all.filter((d) => d.held).length, 'difference')} beyond tolerance`
                    : 'agrees with the order and the dock'}
            </Fact>
          </>
        }
      >
        {waits && may('enter invoices') && (
          <>
            <ShelfPlain onClick={() => setTakingOut(true)}>Take out</ShelfPlain>
            <ShelfPlain onClick={() => router.push(`/invoices/${invoice.id}/change`)}>Change</ShelfPlain>
          </>
        )}
        {mayMatch && (
          <ShelfMain disabled={busy} onClick={submit} hint="^↵">
            {busy ? 'Matching…' : held ? 'Pass and match' : 'Match'}
          </ShelfMain>
        )}
        <ShelfNext next={next} main />
      </Shelf>
      {takingOut && <TakeOut view={view} onClose={() => setTakingOut(false)} />}
    </Sheet>
  );
}

function TakeOut({ view, onClose }: { view: InvoiceView; onClose: () => void }) {
  const { id: invoiceId, version, number } = view.invoice;
  const once = useOnce();
  const act = useAct(takeOutInvoice, {
    said: () => `Invoice ${number} is taken out`,
    onDone: onClose,
  });
  return (
    <ReasonQuestion
      title={`Take invoice ${number} out?`}
      words="It stays on record, asks for nothing, and its number can be entered again."
      keep="Leave it in"
      go="Take out"
      act={act}
      onClose={onClose}
      onGo={(reason) => void act.run({ once: once.key(), invoiceId, version, reason })}
    />
  );
}

function Findings({ all, matched, view }: { all: readonly Difference[]; matched: boolean; view: InvoiceView }) {
  const { invoice } = view;
  return (
    <>
      <h2 className="mb-1 text-[16px]">Three-way match</h2>
      {all.length === 0 && <p className="text-enamel">✓ Ordered, received and billed agree.</p>}
      <ul className="grid gap-1.5">
        {all.map((d) => (
          <li key={d.words} className="flex gap-1.5">
            <b className={d.held ? 'text-brick' : 'text-amber'}>{d.held ? 'Held' : 'Passed'}</b>
            <span>
              {d.words}
              {!d.held && ' Within tolerance.'}
            </span>
          </li>
        ))}
      </ul>
      {view.rateDifference !== 0 && (
        <p className="mt-2 text-ink-2">
          The exchange rate moved since the order: {formatMoney(view.rateDifference, view.companyCurrency)} in cost,
          apart from any difference in price.
        </p>
      )}
      {view.beside.length > 0 && (
        <>
          <h2 className="mt-4 mb-1 text-[16px]">Cost beside the order’s lines</h2>
          <ul>
            {view.beside.map((b, k) => (
              <li key={k} className="flex justify-between gap-2 border-b border-line-2 py-1">
                <span>
                  <span className="mono font-bold">{b.job ?? 'Stores'}</span> {b.code} {b.words}
                </span>
                <span className="whitespace-nowrap">{formatMoney(b.amount, view.companyCurrency)}</span>
              </li>
            ))}
          </ul>
        </>
      )}
      {matched && invoice.passedReason !== '' && (
        <>
          <h2 className="mt-4 mb-1 text-[16px]">Passed because</h2>
          <p>{invoice.passedReason}</p>
        </>
      )}
      <h2 className="mt-4 mb-1 text-[16px]">
        {WAITING.includes(invoice.state) ? 'What matching does' : 'How the jobs stand'}
      </h2>
      {WAITING.includes(invoice.state) && (
        <p className="text-ink-2">The bill becomes actual cost. Until it is matched it costs the jobs nothing.</p>
      )}
      <EffectList effects={view.effects} />
      <p className="mt-4 text-[12.5px] text-ink-2">Entered by {view.enteredBy}</p>
    </>
  );
}
