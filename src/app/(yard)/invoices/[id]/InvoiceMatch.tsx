'use client';

import Link from '@/ui/kit/Link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { Difference } from '@/core/invoices/match';
import { WAITING } from '@/core/invoices/states';
import { formatAmount, formatMoney, formatPrice, signOf } from '@/core/money/money';
import { formatQuantity, NONE } from '@/core/quantity/quantity';
import type { NextAct } from '@/queries/orders/nextAct';
import type { InvoiceView } from '@/queries/invoices/invoices';
import { useKey } from '@/ui/frame/keys';
import { ReasonQuestion } from '@/ui/kit/Reason';
import { Fact, Shelf, ShelfMain, ShelfNext, ShelfPlain } from '@/ui/kit/Shelf';
import { EffectList } from '@/ui/jobs/EffectList';
import { Sheet } from '@/ui/kit/Sheet';
import { Sums } from '@/ui/kit/Sums';
import type { Column } from '@/ui/ledger/column';
import { LedgerTable } from '@/ui/ledger/LedgerTable';
import { useAct, useOnce } from '@/ui/acting/useAct';
import { useYard } from '@/ui/frame/YardContext';
import { acts } from '../../../actions';
import { invoicedColumns } from '../invoicedColumns';
import { InvoiceTag } from '../InvoiceTag';
import { counted } from '@/core/words';

type Row = InvoiceView['lines'][number];

/** A figure that differs stands out. */
const tone =
  (kind: Difference['kind']) =>
  ({ differences }: Row): string => {
    const off = differences.find((d) => d.kind === kind);
    return off === undefined ? '' : off.beyond ? '!font-bold !text-brick' : '!font-bold !text-amber';
  };

const matchColumns = (currency: string): Column<Row>[] => [
  ...invoicedColumns<Row>(({ line, order, invoiced }) => ({
    description: order?.description ?? line.description,
    line: order,
    received: invoiced?.received ?? NONE,
    elsewhere: invoiced?.invoicedElsewhere ?? NONE,
  })),
  {
    key: 'invoiced',
    head: 'This invoice',
    num: true,
    tone: tone('quantity'),
    cell: ({ invoiced }) => invoiced && formatQuantity(invoiced.quantity),
  },
  {
    key: 'orderPrice',
    head: 'Order price',
    num: true,
    cell: ({ invoiced }) => invoiced && formatPrice(invoiced.orderPrice, currency),
  },
  {
    key: 'price',
    head: 'Invoice price',
    num: true,
    tone: tone('price'),
    cell: ({ invoiced }) => invoiced && formatPrice(invoiced.price, currency),
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

/** Ordered, received and invoiced side by side; matching makes the invoice actual cost on the jobs. */
export function InvoiceMatch({ view, next }: { view: InvoiceView; next: NextAct | undefined }) {
  const { invoice, lines, total, differs } = view;
  const { currency } = invoice;
  const { day, may } = useYard();
  const [reason, setReason] = useState('');
  const [takingOut, setTakingOut] = useState(false);
  const router = useRouter();
  const once = useOnce();
  const { run, busy, refusals, clash } = useAct(acts.matchInvoice, {
    said: () => `Invoice ${invoice.number} matched`,
    onDone: once.renew,
  });
  const matched = invoice.state === 'matched';
  const waits = WAITING.includes(invoice.state);
  const mayMatch = waits && may('match invoices') && (!differs || may('pass differences'));
  const submit = () => void run({ once: once.key(), invoiceId: invoice.id, version: invoice.version, reason });
  useKey('Ctrl+Enter', differs ? 'Approve and match' : 'Match', submit, mayMatch && !busy);
  const all = [...lines.flatMap((l) => l.differences), ...total];
  const fault =
    clash?.message ??
    refusals[0]?.message ??
    (waits && differs && !may('pass differences') ? 'Accounts or a manager can approve the difference.' : undefined);
  return (
    <Sheet aside={<Findings all={all} matched={matched} view={view} />}>
      <div className="flex flex-wrap items-baseline gap-x-3 gap-y-1">
        <h1 className="text-[25px] leading-tight">
          Invoice <span className="font-mono text-[23px] font-semibold">{invoice.number}</span>
        </h1>
        <InvoiceTag state={invoice.state} />
        <span className="text-ink-2">
          {view.supplier}, dated {day(invoice.day)}, payment due {day(invoice.dueOn)}
        </span>
        <Link href={`/orders/${view.order.number}`} className="step ml-auto max-phone:my-3">
          Order {view.order.number}
        </Link>
      </div>
      <div className="mt-3">
        <LedgerTable
          whole
          label="Ordered, received and invoiced"
          rows={lines}
          columns={matchColumns(currency)}
          keyOf={(l) => l.line.id}
        />
      </div>
      <Sums
        rows={[
          { label: 'Net', amount: formatAmount(invoice.net, currency) },
          { label: 'Tax', amount: formatAmount(invoice.tax, currency) },
          { label: 'Lines plus tax', amount: formatMoney(invoice.gross, currency) },
          {
            label: 'Invoice total',
            amount: formatMoney(invoice.typedTotal, currency),
            strong: true,
            over: total.length > 0,
          },
        ]}
      />
      {differs && mayMatch && (
        <label className="mt-4 block max-w-[560px]">
          <span className="field-label">Reason for approving</span>
          <input
            className="field"
            value={reason}
            onChange={(e) => setReason(e.target.value)}
            placeholder="who agreed it, or what you found"
            maxLength={300}
          />
        </label>
      )}
      <Shelf
        fault={fault}
        facts={
          <>
            <Fact strong>{formatMoney(invoice.gross, currency)}</Fact>
            <Fact warn={differs && waits}>
              {invoice.state === 'takenOut'
                ? 'void: no effect'
                : matched
                  ? `matched ${day(invoice.matchedOn)} by ${view.matchedBy}`
                  : differs
                    ? `${counted(all.filter((d) => d.beyond).length, 'difference')} outside tolerance`
                    : 'agrees with order and receipts'}
            </Fact>
          </>
        }
      >
        {waits && may('enter invoices') && (
          <>
            <ShelfPlain onClick={() => setTakingOut(true)}>Void</ShelfPlain>
            <ShelfPlain onClick={() => router.push(`/invoices/${invoice.id}/change`)}>Edit</ShelfPlain>
          </>
        )}
        {mayMatch && (
          <ShelfMain disabled={busy} onClick={submit} hint="Ctrl ↵">
            {busy ? 'Matching…' : differs ? 'Approve and match' : 'Match'}
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
  const act = useAct(acts.voidInvoice, {
    said: () => `Invoice ${number} removed`,
    onDone: onClose,
  });
  return (
    <ReasonQuestion
      title={`Void invoice ${number}?`}
      words="It stays on record but has no effect, and the number can be used again."
      keep="Keep invoice"
      go="Void"
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
      {all.length === 0 && <p className="text-enamel">✓ Order, receipts and invoice agree.</p>}
      <ul className="grid gap-1.5">
        {all.map((d) => (
          <li key={d.words} className="flex gap-1.5">
            <b className={d.beyond ? 'text-brick' : 'text-amber'}>{d.beyond ? 'Held' : 'Approved'}</b>
            <span>
              {d.words}
              {!d.beyond && ' Within tolerance.'}
            </span>
          </li>
        ))}
      </ul>
      {view.rateDifference !== 0 && (
        <p className="mt-2 text-ink-2">
          Exchange-rate difference since the order: {formatMoney(view.rateDifference, view.companyCurrency)}
        </p>
      )}
      {view.beside.length > 0 && (
        <>
          <h2 className="mt-4 mb-1 text-[16px]">Costs not on the order</h2>
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
          <h2 className="mt-4 mb-1 text-[16px]">Approved because</h2>
          <p>{invoice.passedReason}</p>
        </>
      )}
      <h2 className="mt-4 mb-1 text-[16px]">
        {WAITING.includes(invoice.state) ? 'Effect of matching' : 'Job budgets now'}
      </h2>
      {WAITING.includes(invoice.state) && (
        <p className="text-ink-2">
          The invoice becomes actual cost. Until it’s matched the jobs carry no actual cost for it.
        </p>
      )}
      <EffectList effects={view.effects} />
      <p className="mt-4 text-[12.5px] text-ink-2">Entered by {view.enteredBy}</p>
    </>
  );
}
