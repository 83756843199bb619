'use client';

import { useState } from 'react';
import { formatAmount, formatMoney, formatPrice, signOf, type Minor } from '@/core/money/money';
import type { Totals } from '@/core/money/tax';
import { closeShortFault, endBillsFault, endedAt } from '@/core/orders/rules';
import { leftOf, progressOf, UNSENT } from '@/core/orders/states';
import { formatQuantity } from '@/core/quantity/quantity';
import { unitOf } from '@/core/quantity/units';
import { WAITING } from '@/core/invoices/states';
import type { OrderView } from '@/queries/orders';
import { ReasonQuestion } from '@/ui/kit/Reason';
import { Dash, Wide } from '@/ui/kit/Sheet';
import { Sums, type SumRow } from '@/ui/kit/Sums';
import { ProgressGlass } from '@/ui/SightGlass';
import type { Column } from '@/ui/ledger/column';
import { LedgerTable } from '@/ui/ledger/LedgerTable';
import { useAct, useOnce } from '@/ui/useAct';
import { useYard } from '@/ui/YardContext';
import { closeShort, endBills } from '../../../acts';

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
    { label: 'Net', amount: money(totals.net) },
    ...totals.taxes.map((t) => ({ label: `${t.name} on ${money(t.base)}`, amount: money(t.tax) })),
    { label: 'Order total', amount: formatMoney(totals.gross, currency), strong: true },
  ];
}

/** An order's lines with what each is charged to; once it is sent, how far each has come. */
export function OrderLines({ view }: { view: OrderView }) {
  const { order, totals } = view;
  const { day, may } = useYard();
  const [closing, setClosing] = useState<Line>();
  const [ending, setEnding] = useState<Line>();
  const sent = !UNSENT.includes(order.state) && order.state !== 'calledOff';
  const places = new Map(order.lines.map((l, k) => [l.id, k + 1]));
  const progress: Column<Line> = {
    key: 'progress',
    head: 'Received, billed',
    className: 'w-[168px]',
    cell: (l) => (
      <>
        <Progress line={l} />
        {mayClose(l, view) && may('send orders') && <End onClick={() => setClosing(l)}>close short</End>}
        {mayEndBills(l, view) && may('match invoices') && <End onClick={() => setEnding(l)}>no more bills</End>}
      </>
    ),
  };
  const columns: Column<Line>[] = [
    {
      key: 'place',
      head: <span className="sr-only">Line</span>,
      className: 'w-[26px] text-ink-2',
      cell: (l) => places.get(l.id),
    },
    { key: 'line', head: 'Line', className: 'py-1', cell: (l) => <What line={l} view={view} /> },
    {
      key: 'quantity',
      head: 'Quantity',
      num: true,
      cell: (l) => (l.kind === 'charge' ? <Dash /> : `${formatQuantity(l.quantity)} ${unitOf(l.unit).short}`),
    },
    ...(sent ? [progress] : []),
    {
      key: 'price',
      head: 'Price',
      num: true,
      cell: (l) => (
        <>
          {l.price === null ? <span className="tag tag-care">no price</span> : formatPrice(l.price, order.currency)}
          {l.priceQuantity > 1 && <span className="block text-[12px] text-ink-2">per {l.priceQuantity}</span>}
        </>
      ),
    },
    {
      key: 'charged',
      head: 'Charged to',
      wide: true,
      className: 'py-1',
      cell: (l) => <Charged line={l} view={view} />,
    },
    { key: 'wanted', head: 'Wanted', wide: true, className: 'whitespace-nowrap', cell: (l) => day(l.wantedOn) },
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
        <Wide label="Lines of the order, to be moved sideways">
          <LedgerTable label="Lines of the order" rows={order.lines} columns={columns} keyOf={(l) => l.id} />
        </Wide>
      </div>
      <Sums rows={sumRows(totals, order.currency)} />
      {closing && <CloseShort line={closing} view={view} onClose={() => setClosing(undefined)} />}
      {ending && <EndBills line={ending} view={view} onClose={() => setEnding(undefined)} />}
    </>
  );
}

function What({ line: l, view }: { line: Line; view: OrderView }) {
  return (
    <>
      <span className="font-semibold">{l.description}</span>
      {l.closedShort !== null && <span className="tag ml-2">closed short at {endedAt(factsOf(l))}</span>}
      {l.billsEnded !== null && <span className="tag ml-2">no more bills</span>}
      <span className="mono block text-ink-2">
        {[l.ourNumber, l.theirNumber && `theirs ${l.theirNumber}`].filter(Boolean).join(' · ') ||
          (l.kind === 'goods' ? '' : l.kind)}
      </span>
      <span className="text-[12.5px] phone:hidden">
        <Charged line={l} view={view} />
      </span>
    </>
  );
}

const factsOf = (l: Line) => ({ ...progressOf(l), description: l.description });

const mayClose = (l: Line, { order }: OrderView) => closeShortFault(order, factsOf(l)) === undefined;

const mayEndBills = (l: Line, { order, invoices }: OrderView) =>
  endBillsFault(
    { ...order, lines: [], waitingBills: invoices.filter((i) => WAITING.includes(i.state)).length },
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
  const { kind, quantity: ordered, received, billed, unit } = line;
  const goods = kind === 'goods';
  const left = leftOf(progressOf(line));
  const words = `${goods ? `${formatQuantity(received)} received, ` : ''}${formatQuantity(billed)} billed of ${formatQuantity(ordered)}`;
  const notBilled = Math.max(received - billed, 0);
  const waits = line.closedShort === null && line.billsEnded === null;
  const open = waits ? Math.max(ordered - billed - notBilled, 0) : 0;
  return (
    <>
      <ProgressGlass
        whole={ordered}
        words={words}
        parts={[
          { stage: 'actual', share: billed },
          { stage: 'received', share: notBilled },
          ...(open > 0 ? [{ stage: 'onOrder' as const, share: open }] : []),
        ]}
      />
      <span className="text-[12px] whitespace-nowrap text-ink-2">
        {goods ? `${formatQuantity(received)} in, ` : ''}
        {formatQuantity(billed)} billed
        {kind === 'service' && left > 0 && `, ${formatQuantity(left)} ${unitOf(unit).short} left`}
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
        const share = line.kind === 'charge' ? formatMoney(s.value, view.companyCurrency) : goods;
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

type EndProps = { readonly line: Line; readonly view: OrderView; readonly onClose: () => void };

function CloseShort({ line, view, onClose }: EndProps) {
  const once = useOnce();
  const at = endedAt(factsOf(line));
  const act = useAct(closeShort, {
    said: () => `${line.description} is closed short at ${at}`,
    onDone: onClose,
  });
  const rest = `${formatQuantity(leftOf(progressOf(line)))} ${unitOf(line.unit).short}`.trim();
  const left = {
    goods: `${rest} did not come and are no longer expected.`,
    service: `${rest} were not billed and are no longer expected.`,
    charge: 'What was not billed of it is no longer expected.',
  }[line.kind];
  const ref = { orderId: view.order.id, version: view.order.version, lineId: line.id };
  return (
    <ReasonQuestion
      title={`Close ${line.description} short at ${at}?`}
      words={`${left} Its money is free again, and what a job still needs is back on its buy list.`}
      keep="Leave it open"
      go="Close short"
      act={act}
      onClose={onClose}
      onGo={(reason) => void act.run({ once: once.key(), ...ref, reason })}
    />
  );
}

function EndBills({ line, view, onClose }: EndProps) {
  const once = useOnce();
  const act = useAct(endBills, {
    said: () => `No more bills for ${line.description}`,
    onDone: onClose,
  });
  const ref = { orderId: view.order.id, version: view.order.version, lineId: line.id };
  const short = `${formatQuantity(line.billed)} of the ${formatQuantity(line.received)} that came`;
  return (
    <ReasonQuestion
      title={`No more bills for ${line.description}?`}
      words={`${short} were billed. What came beside stays here and costs the jobs nothing.`}
      keep="A bill may come"
      go="No more bills"
      act={act}
      onClose={onClose}
      onGo={(reason) => void act.run({ once: once.key(), ...ref, reason })}
    />
  );
}
