'use client';

import { ungrouped } from '@/core/locale/locale';
import Link from '@/ui/Link';
import { useState } from 'react';
import { OPEN_AT_SUPPLIER } from '@/core/orders/states';
import { formatQuantity, parseQuantity, quantity, subtractQ, type Quantity } from '@/core/quantity/quantity';
import { unitOf } from '@/core/quantity/units';
import type { DockLine, DockOrder } from '@/queries/dock';
import { useKey } from '@/ui/keys';
import { TextField } from '@/ui/kit/Field';
import { Fact, Shelf, ShelfMain, ShelfNext, ShelfPlain } from '@/ui/kit/Shelf';
import { Sheet } from '@/ui/kit/Sheet';
import { ProgressGlass } from '@/ui/SightGlass';
import type { NextAct } from '@/queries/nextAct';
import { useAct, useOnce } from '@/ui/useAct';
import { useDraft } from '@/ui/useDraft';
import { useYard } from '@/ui/YardContext';
import { receive, takeBack } from '../../../acts';
import { StateTag } from '../../orders/StateTag';
import { counted } from '@/core/words';

type Typed = {
  readonly note: string;
  readonly arrives: Readonly<Record<number, string>>;
  readonly keepOver: Readonly<Record<number, boolean>>;
};
const FRESH: Typed = { note: '', arrives: {}, keepOver: {} };

const dueOf = (l: DockLine): Quantity => quantity(l.closed ? 0 : Math.max(subtractQ(l.ordered, l.received), 0));
const plain = (q: Quantity) => ungrouped(formatQuantity(q));

/** A delivery being taken in, line by line; made for a phone on the dock first. */
export function TakeIn({ order, next }: { order: DockOrder; next: NextAct | undefined }) {
  const { day, may } = useYard();
  const draft = useDraft<Typed>(`dock ${order.number}`, FRESH);
  const { note, arrives, keepOver } = draft.value;
  const [local, setLocal] = useState<Readonly<Record<number, string>>>({});
  const once = useOnce();
  const { run, busy, refusals, clash, faultAt } = useAct(receive, {
    said: ({ number }) => `Taken in as ${number}`,
    onDone: () => {
      once.renew();
      draft.restart();
    },
  });
  const open = OPEN_AT_SUPPLIER.includes(order.state) && may('receive');
  const due = order.lines.filter((l) => dueOf(l) > 0);
  const set = (lineId: number, text: string) =>
    draft.set((now) => ({ ...now, arrives: { ...now.arrives, [lineId]: text } }));
  const allIn = () =>
    draft.set((now) => ({ ...now, arrives: Object.fromEntries(due.map((l) => [l.id, plain(dueOf(l))])) }));
  const typed = Object.entries(arrives).filter(([, text]) => text.trim() !== '' && text.trim() !== '0');
  const submit = () => {
    const faults: Record<number, string> = {};
    const arrivals = typed.flatMap(([id, text]) => {
      const read = parseQuantity(text);
      if (!read.ok) faults[Number(id)] = read.refusals[0]?.message ?? '';
      return read.ok ? [{ lineId: Number(id), arrives: read.value, keepOver: keepOver[Number(id)] ?? false }] : [];
    });
    setLocal(faults);
    if (Object.keys(faults).length === 0)
      void run({ once: once.key(), orderId: order.id, version: order.version, note, arrivals });
  };
  useKey('A', 'All that is due is here', allIn, open && due.length > 0);
  useKey('Ctrl+Enter', 'Take in', submit, open && typed.length > 0 && !busy);
  const faultOf = (id: number) => local[id] ?? faultAt(`arrivals.${id}`);
  const general = refusals.find((r) => r.field === undefined || r.field === '')?.message;
  const fault =
    (clash && `${clash.message} What came since is shown now: look again before you take in.`) ??
    general ??
    (order.lines.some((l) => faultOf(l.id)) ? 'Nothing was taken in yet: a line above needs a look.' : undefined);
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
          value={note}
          maxLength={80}
          onChange={(e) => draft.set((now) => ({ ...now, note: e.target.value }))}
        />
      )}
      <ul className="mt-3 border-t border-ink" aria-label="Lines">
        {order.lines.map((l) => (
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
                      aria-invalid={faultOf(l.id) !== undefined}
                      inputMode="decimal"
                      placeholder="0"
                      value={arrives[l.id] ?? ''}
                      onChange={(e) => set(l.id, e.target.value)}
                      className="field h-[38px] w-[84px] text-right text-[16px] font-semibold"
                    />
                    <span className="w-[38px] text-left text-ink-2">{unitOf(l.unit).short}</span>
                  </div>
                  <button
                    type="button"
                    className="step mt-1 mr-[44px] text-[13px]"
                    onClick={() => set(l.id, plain(dueOf(l)))}
                  >
                    all {formatQuantity(dueOf(l))}
                  </button>
                </div>
              ) : (
                <span className="pt-2 text-[13px] text-ink-2">
                  {dueOf(l) > 0 ? '' : l.closed ? 'no more comes' : 'all in'}
                </span>
              )}
            </div>
            {faultOf(l.id) !== undefined && (
              <div role="alert" className="mt-1.5 text-brick">
                {faultOf(l.id)}
                {refusals.some((r) => r.code === 'receive.over' && r.field === `arrivals.${l.id}`) && (
                  <label className="mt-1 flex items-center gap-2 text-ink">
                    <input
                      type="checkbox"
                      checked={keepOver[l.id] ?? false}
                      onChange={(e) =>
                        draft.set((now) => ({ ...now, keepOver: { ...now.keepOver, [l.id]: e.target.checked } }))
                      }
                    />{' '}
                    What is over stays here
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
              {typed.length === 0
                ? `${counted(due.length, 'line')} still to come`
                : `${counted(typed.length, 'line')} to take in`}
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
          <ShelfMain disabled={busy || typed.length === 0} onClick={submit} hint="^↵">
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
