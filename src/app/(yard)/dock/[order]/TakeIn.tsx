'use client';

import { ungrouped } from '@/core/locale/locale';
import Link from '@/ui/Link';
import { useState } from 'react';
import { OPEN_AT_SUPPLIER } from '@/core/orders/states';
import { formatQuantity, quantity, subtractQ, type Quantity } from '@/core/quantity/quantity';
import { unitOf } from '@/core/quantity/units';
import { deliveryForm, isNotHere, type DeliveryText } from '@/core/records/delivery';
import type { DockLine, DockOrder } from '@/queries/dock';
import { useKey } from '@/ui/keys';
import { TextField } from '@/ui/kit/Field';
import { Fact, Shelf, ShelfMain, ShelfNext, ShelfPlain } from '@/ui/kit/Shelf';
import { Sheet } from '@/ui/kit/Sheet';
import { ProgressGlass } from '@/ui/SightGlass';
import type { NextAct } from '@/queries/nextAct';
import { useAct, useOnce } from '@/ui/useAct';
import { useActForm } from '@/ui/useActForm';
import { useYard } from '@/ui/YardContext';
import { receive, takeBack } from '../../../acts';
import { StateTag } from '../../orders/StateTag';
import { counted } from '@/core/words';

const dueOf = (l: DockLine): Quantity => quantity(l.closed ? 0 : Math.max(subtractQ(l.ordered, l.received), 0));
const plain = (q: Quantity) => ungrouped(formatQuantity(q));

/** Nothing came of any line yet. */
const startOf = (order: DockOrder): DeliveryText => ({
  note: '',
  arrivals: order.lines.map((l) => ({ lineId: l.id, arrives: '', keepOver: false })),
});

/** A delivery being taken in, line by line; made for a phone on the dock first. */
export function TakeIn({ order, next }: { order: DockOrder; next: NextAct | undefined }) {
  const { day, may } = useYard();
  const form = useActForm({
    read: () => deliveryForm,
    start: startOf(order),
    keep: `dock ${order.number}, version ${order.version}`,
    act: receive,
    input: (read, once) => ({ once, orderId: order.id, version: order.version, ...read }),
    said: ({ number }) => `Taken in as ${number}`,
    onDone: (_, restart) => restart(),
  });
  const { busy, clash } = form;
  const { arrivals } = form.typed;
  const open = OPEN_AT_SUPPLIER.includes(order.state) && may('receive');
  const due = order.lines.filter((l) => dueOf(l) > 0);
  const arrive = (l: DockLine) => form.put(`arrivals.${order.lines.indexOf(l)}.arrives`, plain(dueOf(l)));
  const allIn = () => due.forEach(arrive);
  const here = arrivals.filter((a) => !isNotHere(a));
  useKey('A', 'All that is due is here', allIn, open && due.length > 0);
  useKey('Ctrl+Enter', 'Take in', form.save, open && here.length > 0 && !busy);
  /** What is typed wrong is told by its row; what is refused, by its line. */
  const faultOf = (l: DockLine, k: number) =>
    form.faultAt(`arrivals.${k}.arrives`) ?? form.refusedAt(`arrivals.${l.id}`)?.message;
  const fault =
    (clash && `${clash.message} What came since is shown now: look again before you take in.`) ??
    form.refusals[0]?.message ??
    (form.wrong ? 'Nothing was taken in yet: a line above needs a look.' : undefined);
  return (
    <Sheet aside={<Receipts order={order} />}>
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
        <span className="text-ink-2">wanted {day(order.wantedOn)}</span>
      </div>
      {open && due.length > 0 && (
        <TextField
          label="Delivery note"
          className="mt-3 max-w-[320px]"
          placeholder="number or a word"
          maxLength={80}
          {...form.text('note')}
        />
      )}
      <ul className="mt-3 border-t border-ink" aria-label="Lines">
        {order.lines.map((l, k) => (
          <li key={l.id} className="border-b border-line-2 py-2.5">
            <div className="flex items-start gap-3">
              <div className="min-w-0 flex-1">
                <div className="font-semibold">
                  {l.description} {l.closed && <span className="tag">closed short</span>}
                </div>
                <div className="mono text-ink-2">
                  {[l.ourNumber, l.theirNumber && `theirs ${l.theirNumber}`].filter(Boolean).join(' · ')}
                </div>
                <div className="mt-1 flex items-center gap-3">
                  <span className="w-[110px]">
                    <ProgressGlass
                      whole={l.ordered}
                      words={`${formatQuantity(l.received)} of ${formatQuantity(l.ordered)} in`}
                      parts={[{ stage: 'received', share: l.received }]}
                    />
                  </span>
                  <span className="text-[13px] text-ink-2">
                    {formatQuantity(l.received)} of {formatQuantity(l.ordered)} {unitOf(l.unit).short} in
                  </span>
                </div>
                <div className="mt-0.5 text-[13px] text-ink-2">
                  for {l.for.map((f) => f.job ?? 'stores').join(', ')}
                </div>
              </div>
              {open && dueOf(l) > 0 ? (
                <div className="w-[132px] text-right">
                  <div className="flex items-center justify-end gap-1.5">
                    <input
                      aria-label={`How much of ${l.description} arrives`}
                      aria-invalid={faultOf(l, k) !== undefined}
                      inputMode="decimal"
                      placeholder="0"
                      {...form.input(`arrivals.${k}.arrives`)}
                      className="field h-[38px] w-[84px] text-right text-[16px] font-semibold"
                    />
                    <span className="w-[38px] text-left text-ink-2">{unitOf(l.unit).short}</span>
                  </div>
                  <button type="button" className="step mt-1 mr-[44px] text-[13px]" onClick={() => arrive(l)}>
                    all {formatQuantity(dueOf(l))}
                  </button>
                </div>
              ) : (
                <span className="pt-2 text-[13px] text-ink-2">
                  {dueOf(l) > 0 ? '' : l.closed ? 'no more comes' : 'all in'}
                </span>
              )}
            </div>
            {faultOf(l, k) !== undefined && (
              <div role="alert" className="mt-1.5 text-brick">
                {faultOf(l, k)}
                {form.refusedAt(`arrivals.${l.id}`)?.code === 'receive.over' && (
                  <label className="mt-1 flex items-center gap-2 text-ink">
                    <input type="checkbox" {...form.tick(`arrivals.${k}.keepOver`)} /> What is over stays here
                  </label>
                )}
              </div>
            )}
          </li>
        ))}
      </ul>
      <Shelf
        fault={fault}
        facts={
          <>
            <Fact strong>
              {here.length === 0
                ? `${counted(due.length, 'line')} still to come`
                : `${counted(here.length, 'line')} to take in`}
            </Fact>
            <Fact>{order.number}</Fact>
          </>
        }
      >
        {open && due.length > 0 && (
          <ShelfPlain onClick={allIn} hint="A">
            All is here
          </ShelfPlain>
        )}
        {open && due.length > 0 && (
          <ShelfMain disabled={busy || here.length === 0} onClick={form.save} hint="^↵">
            {busy ? 'Taking in…' : 'Take in'}
          </ShelfMain>
        )}
        {due.length === 0 && <ShelfNext next={next} main />}
      </Shelf>
    </Sheet>
  );
}

function Receipts({ order }: { order: DockOrder }) {
  const { day, may } = useYard();
  const once = useOnce();
  const [asked, setAsked] = useState<number>();
  const { run, busy, refusals } = useAct(takeBack, {
    said: () => 'The receipt is taken back',
    onDone: () => {
      once.renew();
      setAsked(undefined);
    },
  });
  return (
    <>
      <h2 className="mb-1 text-[16px]">Taken in so far</h2>
      {order.receipts.length === 0 && (
        <p className="text-ink-2">Nothing yet. Type what arrives of each line, or say that all of it is here.</p>
      )}
      <ul>
        {order.receipts.map((r) => (
          <li key={r.id} className="border-b border-line-2 py-1.5">
            <div className="flex justify-between gap-2">
              <span className="mono font-semibold">{r.number}</span>
              <span>{day(r.day)}</span>
            </div>
            <div className="flex justify-between gap-2 text-[12.5px] text-ink-2">
              <span>
                {r.who}
                {r.note && ` · ${r.note}`}
              </span>
              {r.back === 0 && may('receive') && (
                <button
                  type="button"
                  disabled={busy}
                  className="min-h-[28px] underline-offset-2 hover:underline max-phone:min-h-[44px]"
                  aria-expanded={asked === r.id}
                  onClick={() => setAsked(asked === r.id ? undefined : r.id)}
                >
                  take back
                </button>
              )}
            </div>
            {asked === r.id && (
              <div className="mt-1 rounded-lg border border-line bg-glaze px-3 py-2">
                <p className="mb-1.5">All that came with {r.number} is awaited again.</p>
                <div className="flex justify-end gap-2">
                  <button type="button" className="btn btn-plain" onClick={() => setAsked(undefined)}>
                    It stays
                  </button>
                  <button
                    type="button"
                    disabled={busy}
                    className="btn btn-main"
                    onClick={() => void run({ once: once.key(), receiptId: r.id })}
                  >
                    Take {r.number} back
                  </button>
                </div>
              </div>
            )}
          </li>
        ))}
      </ul>
      {refusals[0] && (
        <p role="alert" className="field-fault">
          {refusals[0].message}
        </p>
      )}
    </>
  );
}
