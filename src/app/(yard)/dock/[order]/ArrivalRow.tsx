'use client';

import { useState } from 'react';
import { ungrouped } from '@/core/locale/locale';
import { formatQuantity } from '@/core/quantity/quantity';
import { measured, unitOf } from '@/core/quantity/units';
import { REST } from '@/core/receiving/reasons';
import type { DeliveryText } from '@/core/records/delivery';
import type { DockLine, DockOrder } from '@/queries/dock/order';
import { ChoiceField } from '@/ui/kit/Field';
import { PickField } from '@/ui/kit/PickField';
import { ProgressGlass } from '@/ui/jobs/SightGlass';
import type { useActForm } from '@/ui/acting/useActForm';
import { useYard } from '@/ui/frame/YardContext';
import { LineMarks } from './LineMarks';
import { NotRight } from '../NotRight';
import { NumbersField } from '../NumbersField';
import { Papers } from './Papers';

type Form = Pick<
  ReturnType<typeof useActForm<DeliveryText, unknown, unknown, unknown>>,
  'typed' | 'put' | 'input' | 'text' | 'day' | 'pick' | 'tick' | 'faultAt' | 'refusedAt'
>;

type Props = {
  readonly order: DockOrder;
  readonly line: DockLine;
  /** Its place among the order's lines. */
  readonly k: number;
  readonly form: Form;
  readonly open: boolean;
};

/** One line of an order at the dock: how far it has come, and what comes of it now. */
export function ArrivalRow({ order, line: l, k, form, open }: Props) {
  const { day } = useYard();
  const typed = form.typed.arrivals[k];
  const said = typed !== undefined && (typed.rejected !== '' || typed.rest !== '');
  const [asked, setAsked] = useState(false);
  const refused = form.refusedAt(`arrivals.${l.id}`);
  const fault = form.faultAt(`arrivals.${k}.arrives`) ?? refused?.message;
  const takes = open && (l.due > 0 || asked);
  const comes = typed !== undefined && !['', '0'].includes(typed.arrives.trim());
  const bins = order.bins.filter((b) => b.placeId === l.placeId);
  return (
    <li className="border-b border-line-2 py-2.5">
      <div className="flex items-start gap-3">
        <div className="min-w-0 flex-1">
          <div className="font-semibold">
            {l.description} <LineTags line={l} />
          </div>
          <div className="mono text-ink-2">
            {[l.ourNumber, l.theirNumber && `supplier’s no. ${l.theirNumber}`].filter(Boolean).join(' · ')}
          </div>
          <div className="mt-1 flex flex-wrap items-center gap-x-3">
            <span className="w-[110px]">
              <ProgressGlass
                whole={l.ordered}
                words={`${formatQuantity(l.received)} of ${formatQuantity(l.ordered)} received`}
                parts={[{ stage: 'received', share: l.received }]}
              />
            </span>
            <span className="text-[13px] text-ink-2">
              {formatQuantity(l.received)} of {measured(l.ordered, l.unit)} received
            </span>
          </div>
          <div className="mt-0.5 text-[13px] text-ink-2">
            for {l.for.map((f) => f.job ?? 'stores').join(', ')}
            {!l.own && ` · direct to ${l.place}`}
            {l.promisedOn !== null && l.due > 0 && ` · promised ${day(l.promisedOn)}`}
            {l.rest !== null && l.due > 0 && ` · ${l.rest}`}
          </div>
        </div>
        {takes ? (
          <div className="w-[132px] shrink-0 text-right">
            <div className="flex items-center justify-end gap-1.5">
              <input
                aria-label={`Quantity of ${l.description} received`}
                aria-invalid={fault !== undefined}
                inputMode="decimal"
                placeholder="0"
                {...form.input(`arrivals.${k}.arrives`)}
                className="field h-[38px] w-[84px] text-right text-[16px] font-semibold"
              />
              <span className="w-[38px] text-left text-ink-2">{unitOf(l.unit).short}</span>
            </div>
            <button
              type="button"
              className="step mt-1 mr-[44px] text-[13px]"
              onClick={() => form.put(`arrivals.${k}.arrives`, ungrouped(formatQuantity(l.due)))}
            >
              All {formatQuantity(l.due)}
            </button>
          </div>
        ) : (
          <span className="shrink-0 pt-2 text-[13px] text-ink-2">
            {l.closed ? 'No more expected' : l.held > 0 ? 'to inspect' : l.due > 0 ? '' : 'Received'}
          </span>
        )}
      </div>
      {l.certificate !== 'none' && (l.received > 0 || l.held > 0) && (
        <Papers
          order={order.number}
          about="certificate"
          aboutId={l.id}
          papers={l.certificates}
          add="Attach certificate"
        />
      )}
      {fault !== undefined && (
        <div role="alert" className="mt-1.5 text-brick">
          {fault}
          {refused?.code === 'receive.over' && (
            <label className="mt-1 flex items-center gap-2 text-ink">
              <input type="checkbox" {...form.tick(`arrivals.${k}.keepOver`)} /> Keep the excess
            </label>
          )}
        </div>
      )}
      {takes && comes && l.own && l.tracking !== 'none' && (
        <NumbersField
          className="mt-2"
          name={l.description}
          tracking={l.tracking}
          pattern={l.numberPattern}
          numbers={form.text(`arrivals.${k}.numbers`)}
          expires={form.day(`arrivals.${k}.expiresOn`)}
        />
      )}
      {takes && comes && (bins.length > 0 || l.inspected) && (
        <div className="mt-2 flex flex-wrap items-end gap-4">
          {bins.length > 0 && l.own && (
            <ChoiceField label="Bin" small className="w-[130px]" {...form.text(`arrivals.${k}.bin`)}>
              <option value="">none</option>
              {bins.map((b) => (
                <option key={b.id} value={b.id}>
                  {b.name}
                </option>
              ))}
            </ChoiceField>
          )}
          {l.inspected && (
            <label className="flex min-h-[34px] items-center gap-2">
              <input type="checkbox" {...form.tick(`arrivals.${k}.passed`)} /> I inspected and release this
            </label>
          )}
        </div>
      )}
      {open && !l.closed && l.due > 0 && (
        <button
          type="button"
          className="mt-1 min-h-[28px] text-[12.5px] text-ink-2 underline-offset-2 hover:underline max-phone:min-h-[44px]"
          aria-expanded={asked || said}
          onClick={() => setAsked(!asked)}
        >
          {asked || said ? 'No problem' : 'Report a problem'}
        </button>
      )}
      {takes && (asked || said) && <WhatIsWrong {...{ order, line: l, k, form }} />}
    </li>
  );
}

function LineTags({ line }: { line: DockLine }) {
  return (
    <>
      {line.closed && <span className="tag">closed short</span>}{' '}
      {line.held > 0 && <span className="tag tag-care">{formatQuantity(line.held)} awaiting inspection</span>}{' '}
      {line.certificate === 'wanted' && line.received > 0 && <span className="tag tag-care">certificate missing</span>}{' '}
      {line.rejected > 0 && <span className="tag tag-over">{formatQuantity(line.rejected)} rejected</span>}
    </>
  );
}

function WhatIsWrong({ order, line, k, form }: Omit<Props, 'open'>) {
  const typed = form.typed.arrivals[k];
  const choice = (name: 'reason' | 'rest') => ({
    value: typed?.[name] ?? '',
    onReason: (id: string) => form.put(`arrivals.${k}.${name}`, id),
  });
  return (
    <NotRight
      unit={line.unit}
      reasons={order.reasons}
      kinds={REST}
      rejected={form.text(`arrivals.${k}.rejected`)}
      reason={choice('reason')}
      rest={choice('rest')}
      restDay={form.day(`arrivals.${k}.restDay`)}
      where={<PickField kind="place" label="Sent to" {...form.pick(`arrivals.${k}.restPlace`)} />}
    >
      <LineMarks line={line} />
    </NotRight>
  );
}
