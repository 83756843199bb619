'use client';

import { isCharge, isGoodsLine } from '@/core/orders/kinds';
import { useState } from 'react';
import { formatAmount, formatMoney, formatPrice, signOf, type Minor } from '@/core/money/money';
import type { Totals } from '@/core/money/tax';
import { formatDecimal } from '@/core/money/decimal';
import { answerDifferences } from '@/core/orders/confirming';
import { isShareOfLines } from '@/core/orders/order';
import { closeShortFault, endInvoicesFault, endedAt, openAgainFault, rechargeFault } from '@/core/orders/rules';
import { leftOf, progressOf, UNSENT } from '@/core/orders/states';
import { formatQuantity } from '@/core/quantity/quantity';
import { unitOf } from '@/core/quantity/units';
import { WAITING } from '@/core/invoices/states';
import type { OrderView } from '@/queries/orders/order';
import { Dash } from '@/ui/kit/Sheet';
import { Sums, type SumRow } from '@/ui/kit/Sums';
import { ProgressGlass } from '@/ui/jobs/SightGlass';
import type { Column } from '@/ui/ledger/column';
import { LedgerTable } from '@/ui/ledger/LedgerTable';
import { useYard } from '@/ui/frame/YardContext';
import { factsOf, LineEnding, type LineEnd } from './LineEnding';

type Line = OrderView['order']['lines'][number];

/** What an order comes to, from its lines to its total. */
export function sumRows(totals: Totals, currency: string): SumRow[] {
  const money = (amount: Minor) => formatAmount(amount, currency);
  return [
    ...(totals.charges === 0
      ? []
      : [
          { label: 'Goods and services', amount: money(totals.lines) },
          { label: 'Charges', amount: money(totals.charges) },
        ]),
    { label: 'Total excl. tax', amount: money(totals.net) },
    ...totals.taxes.map((t) => ({ label: `${t.name} on ${money(t.base)}`, amount: money(t.tax) })),
    { label: 'Total incl. tax', amount: formatMoney(totals.gross, currency), strong: true },
  ];
}

/** An order's lines with what each is charged to; once it is sent, how far each has come. */
export function OrderLines({ view }: { view: OrderView }) {
  const { order, totals } = view;
  const { day, may } = useYard();
  const [ending, setEnding] = useState<{ readonly how: LineEnd; readonly line: Line }>();
  const ends = (how: LineEnd, line: Line, words: string) => <End onClick={() => setEnding({ how, line })}>{words}</End>;
  const sent = !UNSENT.includes(order.state) && order.state !== 'cancelled';
  const progress: Column<Line> = {
    key: 'progress',
    head: 'Received · invoiced',
    className: 'w-[168px]',
    cell: (l) => (
      <>
        <Progress line={l} />
        {mayClose(l, view) && may('send orders') && ends('closeShort', l, 'Close short')}
        {mayEndInvoices(l, view) && may('match invoices') && ends('endInvoices', l, 'No more invoices')}
        {mayOpen(l, view) && may('send orders') && ends('openAgain', l, 'Reopen line')}
      </>
    ),
  };
  const columns: Column<Line>[] = [
    {
      key: 'place',
      head: <span className="sr-only">Line</span>,
      className: 'w-[26px] text-ink-2 max-phone:hidden',
      cell: (l) => l.number,
    },
    { key: 'line', head: 'Item', className: 'py-1 row-whole', cell: (l) => <What line={l} view={view} /> },
    {
      key: 'quantity',
      head: 'Quantity',
      num: true,
      cell: (l) => (isCharge(l) ? <Dash /> : `${formatQuantity(l.quantity)} ${unitOf(l.unit).short}`),
    },
    ...(sent ? [progress] : []),
    {
      key: 'price',
      head: 'Price',
      num: true,
      cell: (l) => (
        <>
          <Price line={l} currency={order.currency} />
          {l.priceQuantity > 1 && <span className="block text-[12px] text-ink-2">per {l.priceQuantity}</span>}
        </>
      ),
    },
    {
      key: 'charged',
      head: 'Charged to',
      wide: true,
      className: 'py-1',
      cell: (l) => (
        <>
          <Charged line={l} view={view} />
          {mayRecharge(l, view) && may('send orders') && (
            <span className="-ml-2">{ends('elsewhere', l, 'Charge to another job')}</span>
          )}
        </>
      ),
    },
    {
      key: 'wanted',
      head: 'Required by',
      wide: true,
      className: 'whitespace-nowrap py-1',
      cell: (l) => (
        <>
          {day(l.wantedOn)}
          {l.promisedOn !== null && <span className="block text-[12.5px]">promised {day(l.promisedOn)}</span>}
        </>
      ),
    },
    {
      key: 'net',
      head: `Net ${signOf(order.currency)}`,
      num: true,
      className: '!font-semibold',
      cell: (l) => formatAmount(l.net, order.currency),
    },
  ];
  return (
    <>
      <div className="mt-2">
        <LedgerTable label="Order lines" whole rows={order.lines} columns={columns} keyOf={(l) => l.id} />
      </div>
      {view.cancelled.length > 0 && (
        <p className="mt-1 text-[12.5px] text-ink-2">
          Cancelled:{' '}
          {view.cancelled.map((l) => (
            <del key={l.number} className="mr-3">
              {l.number} {l.name}
            </del>
          ))}
        </p>
      )}
      <Sums rows={sumRows(totals, order.currency)} />
      {ending && <LineEnding {...ending} view={view} onClose={() => setEnding(undefined)} />}
    </>
  );
}

/** What a line costs each: free, a share of the lines, or its price with the one before its discount. */
function Price({ line: l, currency }: { line: Line; currency: string }) {
  if (l.free) return <span className="tag tag-good">free of charge</span>;
  if (l.price === null) return <span className="tag tag-care">no price</span>;
  if (isShareOfLines(l)) return <>{formatDecimal(l.discount, 2, 0)} %</>;
  return (
    <>
      {formatPrice(l.price, currency)}
      {l.grossPrice !== null && (
        <span className="block text-[12px] text-ink-2">
          {formatPrice(l.grossPrice, currency)} less {formatDecimal(l.discount, 2, 0)} %
        </span>
      )}
    </>
  );
}

function What({ line: l, view }: { line: Line; view: OrderView }) {
  const { today, calendar } = useYard();
  const { currency } = view.order;
  const differing = (line: Line) =>
    isCharge(line) || line.confirmed === null
      ? []
      : answerDifferences(
          { ...line, ...progressOf(line), neededOn: view.neededOn.get(line.id) ?? null },
          currency,
          today,
          calendar,
        );
  return (
    <>
      <span className="font-semibold">{l.description}</span>
      {l.closedShort !== null && <span className="tag ml-2">closed short at {endedAt(factsOf(l))}</span>}
      {l.invoicesEnded !== null && <span className="tag ml-2">No more invoices</span>}
      <span className="mono block text-ink-2">
        {[l.ourNumber, l.theirNumber && `supplier’s no. ${l.theirNumber}`].filter(Boolean).join(' · ') ||
          (isGoodsLine(l) ? '' : l.kind)}
      </span>
      {(l.note !== '' || l.placeId !== null) && (
        <span className="block text-[12.5px] text-amber">
          {[l.note, l.placeId !== null && `to ${view.places.get(l.placeId)?.name}`].filter(Boolean).join(' · ')}
        </span>
      )}
      {differing(l).map((d) => (
        <span key={d.kind} className="tag tag-care mr-1 !whitespace-normal">
          {d.words}
        </span>
      ))}
    </>
  );
}

const mayClose = (l: Line, { order }: OrderView) => closeShortFault(order, factsOf(l)) === undefined;

const mayOpen = (l: Line, { order }: OrderView) => openAgainFault(order, factsOf(l)) === undefined;

const mayRecharge = (l: Line, { order, revising }: OrderView) =>
  revising === undefined && l.splits.some((s) => rechargeFault(order, l, s.id) === undefined);

const mayEndInvoices = (l: Line, { order, invoices }: OrderView) =>
  endInvoicesFault(
    { ...order, lines: [], waitingInvoices: invoices.filter((i) => WAITING.includes(i.state)).length },
    factsOf(l),
  ) === undefined;

const End = ({ onClick, children }: { onClick: () => void; children: string }) => (
  <button
    type="button"
    className="ml-2 text-[12px] text-copper-text underline-offset-2 hover:underline"
    onClick={onClick}
  >
    {children}
  </button>
);

function Progress({ line }: { line: Line }) {
  const { kind, quantity: ordered, received, invoiced, unit } = line;
  const goods = kind === 'goods';
  const left = leftOf(progressOf(line));
  const words = `${goods ? `${formatQuantity(received)} received, ` : ''}${formatQuantity(invoiced)} invoiced of ${formatQuantity(ordered)}`;
  const notInvoiced = Math.max(received - invoiced, 0);
  const waits = line.closedShort === null && line.invoicesEnded === null;
  const open = waits ? Math.max(ordered - invoiced - notInvoiced, 0) : 0;
  return (
    <>
      <ProgressGlass
        whole={ordered}
        words={words}
        parts={[
          { stage: 'actual', share: invoiced },
          { stage: 'received', share: notInvoiced },
          ...(open > 0 ? [{ stage: 'onOrder' as const, share: open }] : []),
        ]}
      />
      <span className="text-[12px] whitespace-nowrap text-ink-2">
        {goods ? `${formatQuantity(received)} received,  ` : ''}
        {formatQuantity(invoiced)} invoiced
        {kind === 'service' && left > 0 && `, ${formatQuantity(left)} ${unitOf(unit).short} outstanding`}
      </span>
    </>
  );
}

function Charged({ line, view }: { line: Line; view: OrderView }) {
  const codes = new Map(view.codes.map((c) => [c.id, c]));
  if (line.splits.length === 0) return <span className="tag tag-stop">no job yet</span>;
  return (
    <>
      {line.splits.map((s) => {
        const code = codes.get(s.costCodeId ?? 0);
        const goods = `${formatQuantity(s.quantity)} ${unitOf(line.shareUnit).short}`.trim();
        const share = isCharge(line) ? formatMoney(s.value, view.companyCurrency) : goods;
        return (
          <span key={s.id} className="block whitespace-nowrap">
            {s.jobId === null ? (
              <b>Stores</b>
            ) : (
              <>
                <span className="mono font-bold">{view.jobs.get(s.jobId)?.number}</span>{' '}
                <span className="text-ink-2">
                  {code?.code} {code?.name}
                </span>
              </>
            )}{' '}
            {share}
          </span>
        );
      })}
    </>
  );
}
