'use client';

import Link from '@/ui/kit/Link';
import { useState } from 'react';
import { ungrouped } from '@/core/locale/locale';
import { OPEN_AT_SUPPLIER } from '@/core/orders/states';
import { formatQuantity } from '@/core/quantity/quantity';
import { deliveryForm, isNotHere, type DeliveryText } from '@/core/records/delivery';
import { counted } from '@/core/words';
import type { DockLine, DockOrder } from '@/queries/dock/order';
import { useKey } from '@/ui/frame/keys';
import { DateField } from '@/ui/kit/DateField';
import { TextField } from '@/ui/kit/Field';
import { NumberField } from '@/ui/kit/NumberField';
import { Fact, Shelf, ShelfMain, ShelfNext, ShelfPlain } from '@/ui/kit/Shelf';
import { Sheet } from '@/ui/kit/Sheet';
import type { NextAct } from '@/queries/orders/nextAct';
import { useActForm } from '@/ui/acting/useActForm';
import { useYard } from '@/ui/frame/YardContext';
import { acts } from '../../../actions';
import { StateTag } from '../../orders/StateTag';
import { ArrivalRow } from './ArrivalRow';
import { InspectSlip } from './InspectSlip';
import { Receipts } from './Receipts';
import { SendBackSlip } from './SendBackSlip';

/** Nothing came of any line yet. */
const startOf = (order: DockOrder): DeliveryText => ({
  note: '',
  day: '',
  carrier: '',
  packages: '',
  arrivals: order.lines.map((l) => ({
    ...{ lineId: l.id, arrives: '', keepOver: false, passed: false, rejected: '', reason: '', bin: '' },
    ...{ tracking: l.own ? l.tracking : ('none' as const), toItem: l.toItem, numbers: '', expiresOn: '' },
    ...{ rest: '', restDay: '', restPlace: null },
  })),
});

/** A delivery being taken in, line by line; made for a phone on the dock first. */
export function TakeIn({ order, next }: { order: DockOrder; next: NextAct | undefined }) {
  const { day, may } = useYard();
  const [slip, setSlip] = useState<'inspect' | 'back'>();
  const [more, setMore] = useState(false);
  const form = useActForm({
    read: () => deliveryForm,
    start: startOf(order),
    keep: `delivery ${order.number}, version ${order.version}`,
    act: acts.receive,
    input: (read, once) => ({ once, orderId: order.id, version: order.version, ...read }),
    said: ({ number }) => `Received as ${number}`,
    onDone: (_, restart) => restart(),
  });
  const { busy, clash } = form;
  const { arrivals } = form.typed;
  const open = OPEN_AT_SUPPLIER.includes(order.state) && may('receive');
  const due = order.lines.filter((l) => l.due > 0);
  const [held, rejected] = [order.lines.filter((l) => l.held > 0), order.lines.filter((l) => l.rejected > 0)];
  const arrive = (l: DockLine) =>
    form.put(`arrivals.${order.lines.indexOf(l)}.arrives`, ungrouped(formatQuantity(l.due)));
  const allIn = () => due.forEach(arrive);
  const here = arrivals.filter((a) => !isNotHere(a));
  const mayInspect = open && held.length > 0;
  useKey('A', 'Receive everything due', allIn, open && due.length > 0);
  useKey('I', 'Inspect received goods', () => setSlip('inspect'), mayInspect);
  useKey('Ctrl+Enter', 'Receive', form.save, open && here.length > 0 && !busy);
  const fault =
    (clash && `${clash.message} Later receipts are shown now: check before you receive.`) ??
    form.refusals[0]?.message ??
    (form.firstFault === undefined ? undefined : `Nothing received yet. ${form.firstFault}`);
  return (
    <Sheet aside={<Receipts order={order} onBack={() => setSlip('back')} />}>
      <div className="flex flex-wrap items-baseline gap-x-3 gap-y-1">
        <h1 className="text-[25px] leading-tight">{order.supplier}</h1>
        <StateTag state={order.state} />
        {may('see money') ? (
          <Link href={`/orders/${order.number}`} className="mono font-bold text-copper-text hover:underline">
            {order.number}
          </Link>
        ) : (
          <span className="mono font-bold">{order.number}</span>
        )}
        <span className="text-ink-2">required by {day(order.wantedOn)}</span>
      </div>
      {open && due.length > 0 && (
        <div className="mt-3 flex flex-wrap items-end gap-4">
          <TextField
            label="Delivery note no."
            className="w-[260px] max-phone:w-full"
            placeholder="e.g. 48213"
            maxLength={80}
            {...form.text('note')}
          />
          {more ? (
            <>
              <DateField label="Date received" className="w-[150px]" towards="back" {...form.day('day')} />
              <TextField label="Carrier" className="w-[170px]" maxLength={80} {...form.text('carrier')} />
              <NumberField label="Packages" className="w-[90px]" {...form.text('packages')} />
            </>
          ) : (
            <button type="button" className="step mb-2 text-[13px]" onClick={() => setMore(true)}>
              Date, carrier, packages
            </button>
          )}
        </div>
      )}
      <ul className="mt-3 border-t border-ink" aria-label="Lines">
        {order.lines.map((l, k) => (
          <ArrivalRow key={l.id} {...{ order, line: l, k, form, open }} />
        ))}
      </ul>
      <Shelf
        fault={fault}
        facts={
          <>
            <Fact strong>
              {here.length === 0
                ? `${counted(due.length, 'line')} outstanding`
                : `${counted(here.length, 'line')} to receive`}
            </Fact>
            <Fact>{order.number}</Fact>
          </>
        }
      >
        {mayInspect && (
          <ShelfPlain onClick={() => setSlip('inspect')} hint="I">
            Inspect {counted(held.length, 'line')}
          </ShelfPlain>
        )}
        {open && due.length > 0 && (
          <Link href={`/dock/scan?order=${order.number}`} className="btn btn-shelf">
            Scan
          </Link>
        )}
        {open && due.length > 0 && (
          <ShelfPlain onClick={allIn} hint="A">
            Receive all
          </ShelfPlain>
        )}
        {open && due.length > 0 && (
          <ShelfMain disabled={busy || here.length === 0} onClick={form.save} hint="Ctrl ↵">
            {busy ? 'Receiving…' : 'Receive'}
          </ShelfMain>
        )}
        {due.length === 0 && held.length === 0 && <ShelfNext next={next} main />}
      </Shelf>
      {slip === 'inspect' && <InspectSlip order={order} lines={held} onClose={() => setSlip(undefined)} />}
      {slip === 'back' && <SendBackSlip order={order} rejected={rejected} onClose={() => setSlip(undefined)} />}
    </Sheet>
  );
}
