'use client';

import { useState } from 'react';
import { formatAmount, formatMoney, formatPrice, signOf } from '@/core/money/money';
import { OPEN_AT_SUPPLIER, UNSENT } from '@/core/orders/states';
import { addQ, formatQuantity, quantity } from '@/core/quantity/quantity';
import { unitOf } from '@/core/quantity/units';
import type { OrderView } from '@/queries/orders';
import { Faults, TextField } from '@/ui/kit/Field';
import { Dash } from '@/ui/kit/Sheet';
import { Question } from '@/ui/kit/Slip';
import { ProgressGlass } from '@/ui/SightGlass';
import { useAct, useOnce } from '@/ui/useAct';
import { useYard } from '@/ui/YardContext';
import { closeShort } from '../../../acts';

type Line = OrderView['order']['lines'][number];

/** An order's lines with what each is charged to; once it is sent, how far each has come. */
export function OrderLines({ view }: { view: OrderView }) {
  const { order, totals } = view;
  const { day, may } = useYard();
  const [closing, setClosing] = useState<Line>();
  const sent = !UNSENT.includes(order.state) && order.state !== 'calledOff';
  return (
    <>
      <div className="mt-2 max-phone:overflow-x-auto">
        <table className="ledger" aria-label="Lines of the order">
          <thead>
            <tr>
              <th className="w-[26px]">
                <span className="sr-only">Line</span>
              </th>
              <th>Line</th>
              <th className="num">Quantity</th>
              {sent && <th className="w-[168px]">Received, billed</th>}
              <th className="num">Price</th>
              <th className="max-phone:hidden">Charged to</th>
              <th className="max-phone:hidden">Wanted</th>
              <th className="num">Net {signOf(order.currency)}</th>
            </tr>
          </thead>
          <tbody>
            {order.lines.map((l, k) => (
              <tr key={l.id}>
                <td className="text-ink-2">{k + 1}</td>
                <td className="py-1">
                  <span className="font-semibold">{l.description}</span>
                  {l.closedShort !== null && <span className="tag ml-2">closed short</span>}
                  <span className="mono block text-ink-2">
                    {[l.ourNumber, l.theirNumber && `theirs ${l.theirNumber}`].filter(Boolean).join(' · ') ||
                      (l.kind === 'goods' ? '' : l.kind)}
                  </span>
                  <span className="text-[12.5px] phone:hidden">
                    <Charged line={l} view={view} />
                  </span>
                </td>
                <td className="num">
                  {l.kind === 'charge' ? <Dash /> : `${formatQuantity(l.quantity)} ${unitOf(l.unit).short}`}
                </td>
                {sent && (
                  <td>
                    <LineProgress line={l} />
                    {mayClose(l, order.state) && may('send orders') && (
                      <button
                        type="button"
                        className="ml-2 text-[12px] text-copper-text underline-offset-2 hover:underline"
                        onClick={() => setClosing(l)}
                      >
                        close short
                      </button>
                    )}
                  </td>
                )}
                <td className="num">
                  {l.price === null ? (
                    <span className="tag tag-care">no price</span>
                  ) : (
                    formatPrice(l.price, order.currency)
                  )}
                  {l.priceQuantity > 1 && <span className="block text-[12px] text-ink-2">per {l.priceQuantity}</span>}
                </td>
                <td className="py-1 max-phone:hidden">
                  <Charged line={l} view={view} />
                </td>
                <td className="whitespace-nowrap max-phone:hidden">{day(l.wantedOn)}</td>
                <td className="num !font-semibold">{formatAmount(l.net, order.currency)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <div className="mt-2 ml-auto w-full max-w-[290px] text-[13.5px]">
        {totals.charges !== 0 && <Sum label="Goods and services" amount={formatAmount(totals.lines, order.currency)} />}
        {totals.charges !== 0 && <Sum label="Charges" amount={formatAmount(totals.charges, order.currency)} />}
        <Sum label="Net" amount={formatAmount(totals.net, order.currency)} />
        {totals.taxes.map((t) => (
          <Sum
            key={t.code.id}
            label={`${t.code.name} on ${formatAmount(t.base, order.currency)}`}
            amount={formatAmount(t.tax, order.currency)}
          />
        ))}
        <Sum label="Order total" amount={formatMoney(totals.gross, order.currency)} strong />
      </div>
      {closing && <CloseShort line={closing} view={view} onClose={() => setClosing(undefined)} />}
    </>
  );
}

const Sum = ({ label, amount, strong = false }: { label: string; amount: string; strong?: boolean }) => (
  <div className={`flex justify-between border-b border-line-2 px-2 py-1 ${strong ? 'text-[15px] font-bold' : ''}`}>
    <span>{label}</span>
    <span>{amount}</span>
  </div>
);

const mayClose = (l: Line, state: OrderView['order']['state']) =>
  OPEN_AT_SUPPLIER.includes(state) &&
  l.closedShort === null &&
  l.kind !== 'charge' &&
  addQ(...l.splits.map((s) => s.received)) < l.quantity;

function LineProgress({ line }: { line: Line }) {
  const received = addQ(...line.splits.map((s) => s.received));
  const billed = addQ(...line.splits.map((s) => s.billed));
  const goods = line.kind === 'goods';
  const words = `${goods ? `${formatQuantity(received)} received, ` : ''}${formatQuantity(billed)} billed of ${formatQuantity(line.quantity)}`;
  const notBilled = Math.max(received - billed, 0);
  return (
    <>
      <ProgressGlass
        whole={line.quantity}
        words={words}
        parts={[
          { stage: 'actual', share: billed },
          { stage: 'received', share: notBilled },
          ...(line.closedShort === null
            ? [{ stage: 'onOrder' as const, share: Math.max(line.quantity - billed - notBilled, 0) }]
            : []),
        ]}
      />
      <span className="text-[12px] whitespace-nowrap text-ink-2">
        {goods ? `${formatQuantity(received)} in, ` : ''}
        {formatQuantity(billed)} billed
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
        const needUnit = view.needUnits.get(s.needId ?? 0);
        const inNeedUnit = needUnit !== undefined && needUnit !== line.unit;
        const goods =
          `${formatQuantity(inNeedUnit ? s.covers : s.quantity)} ${unitOf(inNeedUnit ? needUnit : line.unit).short}`.trim();
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

function CloseShort({ line, view, onClose }: { line: Line; view: OrderView; onClose: () => void }) {
  const [reason, setReason] = useState('');
  const once = useOnce();
  const { run, busy, refusals, clash } = useAct(closeShort, {
    said: () => `${line.description} is closed short`,
    onDone: onClose,
  });
  const left = formatQuantity(quantity(line.quantity - addQ(...line.splits.map((s) => s.received))));
  return (
    <Question open onClose={onClose} title={`Close ${line.description} short?`}>
      <p className="mb-3 text-ink-2">
        The {left} {unitOf(line.unit).short} that did not come are no longer expected. Their money is free again, and
        what a job still needs is back on its buy list.
      </p>
      <TextField
        label="Reason"
        value={reason}
        onChange={(e) => setReason(e.target.value)}
        autoFocus
        fault={refusals.find((r) => r.field === 'reason')?.message}
      />
      <div className="mt-3">
        <Faults
          messages={clash ? [clash.message] : refusals.filter((r) => r.field !== 'reason').map((r) => r.message)}
        />
      </div>
      <div className="mt-3 flex justify-end gap-3">
        <button type="button" className="btn btn-plain" onClick={onClose}>
          Leave it open
        </button>
        <button
          type="button"
          className="btn btn-main"
          disabled={busy}
          onClick={() =>
            void run({ once: once.key(), orderId: view.order.id, version: view.order.version, lineId: line.id, reason })
          }
        >
          Close short
        </button>
      </div>
    </Question>
  );
}
