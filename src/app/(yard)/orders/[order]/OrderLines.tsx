'use client';

import { useState } from 'react';
import { formatAmount, formatMoney, formatPrice, signOf } from '@/core/money/money';
import { OPEN_AT_SUPPLIER, UNSENT } from '@/core/orders/states';
import { addQ, formatQuantity, quantity } from '@/core/quantity/quantity';
import { unitOf } from '@/core/quantity/units';
import type { OrderView } from '@/queries/orders';
import { ReasonQuestion } from '@/ui/kit/Reason';
import { Dash, Wide } from '@/ui/kit/Sheet';
import { Sums, type SumRow } from '@/ui/kit/Sums';
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
  const money = (amount: typeof totals.net) => formatAmount(amount, order.currency);
  const sums: SumRow[] = [
    ...(totals.charges === 0
      ? []
      : [
          { label: 'Goods and services', amount: money(totals.lines) },
          { label: 'Charges', amount: money(totals.charges) },
        ]),
    { label: 'Net', amount: money(totals.net) },
    ...totals.taxes.map((t) => ({ label: `${t.code.name} on ${money(t.base)}`, amount: money(t.tax) })),
    { label: 'Order total', amount: formatMoney(totals.gross, order.currency), strong: true },
  ];
  return (
    <>
      <div className="mt-2">
        <Wide label="Lines of the order, to be moved sideways">
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
        </Wide>
      </div>
      <Sums rows={sums} />
      {closing && <CloseShort line={closing} view={view} onClose={() => setClosing(undefined)} />}
    </>
  );
}

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
  const once = useOnce();
  const { run, busy, refusals, clash } = useAct(closeShort, {
    said: () => `${line.description} is closed short`,
    onDone: onClose,
  });
  const left = `${formatQuantity(quantity(line.quantity - addQ(...line.splits.map((s) => s.received))))} ${unitOf(line.unit).short}`;
  const ref = { orderId: view.order.id, version: view.order.version, lineId: line.id };
  return (
    <ReasonQuestion
      title={`Close ${line.description} short?`}
      words={`The ${left.trim()} that did not come are no longer expected. Their money is free again, and what a job still needs is back on its buy list.`}
      keep="Leave it open"
      go="Close short"
      busy={busy}
      refusals={refusals}
      clash={clash?.message}
      onClose={onClose}
      onGo={(reason) => void run({ once: once.key(), ...ref, reason })}
    />
  );
}
