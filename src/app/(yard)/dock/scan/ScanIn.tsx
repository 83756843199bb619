'use client';

import { useEffect, useState } from 'react';
import { formatQuantity, quantity } from '@/core/quantity/quantity';
import { ALL_RIGHT, deliveriesOf, lacks, talliedLines, type Scan, type TalliedLine } from '@/core/receiving/tally';
import { notRightForm } from '@/core/records/delivery';
import { counted } from '@/core/words';
import type { ReasonChoice } from '@/queries/dock/order';
import type { ScannedOrder } from '@/queries/dock/scanning';
import type { Choice } from '@/queries/frame/choices';
import { useKey } from '@/ui/frame/keys';
import { CodeField } from '@/ui/kit/CodeField';
import { TextField } from '@/ui/kit/Field';
import { PickField } from '@/ui/kit/PickField';
import { Fact, Shelf, ShelfMain, ShelfPlain } from '@/ui/kit/Shelf';
import { Sheet } from '@/ui/kit/Sheet';
import Link from '@/ui/kit/Link';
import { useAct, useOnce } from '@/ui/acting/useAct';
import { acts } from '../../../actions';
import { TallyRow } from './TallyRow';
import { useTally } from './useTally';

const LOUD = 'kettle scan sound';
type Props = {
  readonly supplier: Choice | null;
  /** The order in hand: what is scanned goes to its lines alone. */
  readonly order: ScannedOrder | null;
  readonly reasons: readonly ReasonChoice[];
};

/** Takes in by scanning: each code is counted on the line that awaits it longest; made for a phone. */
export function ScanIn({ supplier: first, order, reasons }: Props) {
  const [supplier, setSupplier] = useState(first);
  const [choosing, setChoosing] = useState(first !== null);
  const [asked, setAsked] = useState(false);
  const [loud, setLoud] = useState(true);
  // eslint-disable-next-line react-hooks/set-state-in-effect -- what the browser kept is known only after the first paint
  useEffect(() => setLoud(localStorage.getItem(LOUD) !== 'off'), []);
  const list = useTally({ orderId: order?.id, supplierId: supplier?.id }, loud);
  const noting = asked || list.tally.note !== undefined;
  const once = useOnce();
  const act = useAct(acts.receiveTally, {
    said: (taken) => `Received: ${taken.map((t) => `${t.order} as ${t.number}`).join(', ')}`,
    onDone: () => {
      once.renew();
      list.forget();
    },
  });
  const { clash } = act;
  const { lookAgain } = list;
  useEffect(() => {
    if (clash !== undefined) lookAgain();
    // eslint-disable-next-line react-hooks/exhaustive-deps -- once for each clash
  }, [clash]);
  const lines = talliedLines(list.tally);
  const aside = list.tally.scans.filter((s) => s.aside !== undefined);
  const waiting = list.tally.scans.filter((s) => s.waits === true).length;
  const lacking = lines.filter((l) => lacks(l) > 0);
  const pieces = quantity(lines.reduce((sum, l) => sum + l.quantity, 0));
  const orders = new Set(lines.map((l) => l.line.orderId)).size;
  const notRight = (lineId: number) => notRightForm.safeParse(list.tally.notRight?.[lineId] ?? ALL_RIGHT);
  const unread = lines.some((l) => !notRight(l.line.lineId).success);
  const ready = lines.length > 0 && lacking.length === 0 && !unread && waiting === 0 && !act.busy;
  const takeIn = () =>
    void act.run({
      once: once.key(),
      note: list.tally.note ?? '',
      deliveries: deliveriesOf(list.tally, (id) => notRight(id).data ?? {}),
    });
  useKey('Ctrl+Enter', 'Receive', takeIn, ready);
  const fault =
    (clash && `${clash.message} The scans were matched again with what is due now: check before you receive.`) ??
    act.refusals[0]?.message ??
    (lacking[0] === undefined ? undefined : wanted(lacking[0]));
  const toggle = () => {
    localStorage.setItem(LOUD, loud ? 'off' : 'on');
    setLoud(!loud);
  };
  return (
    <Sheet>
      <div className="mx-auto max-w-[640px]">
        <h1 className="mb-3 text-[25px] leading-tight">Scan in</h1>
        <CodeField onCode={list.scan} />
        <p className="mt-1.5 text-[13px] text-ink-2">{goesTo(order, supplier)}</p>
        <div className="steps text-[13px]">
          {order !== null && (
            <Link href="/dock/scan" className="step">
              Any order
            </Link>
          )}
          {!choosing && order === null && (
            <button type="button" className="step" onClick={() => setChoosing(true)}>
              One supplier only
            </button>
          )}
          <button type="button" className="step" aria-pressed={loud} onClick={toggle}>
            {loud ? 'Sound off' : 'Sound on'}
          </button>
          {!noting && (
            <button type="button" className="step" onClick={() => setAsked(true)}>
              Delivery note no.
            </button>
          )}
        </div>
        {noting && (
          <TextField
            label="Delivery note no."
            className="mt-2 max-w-[320px] max-phone:max-w-none"
            maxLength={80}
            value={list.tally.note ?? ''}
            onChange={(e) => list.sayNote(e.target.value)}
          />
        )}
        {choosing && (
          <PickField
            kind="supplier"
            label="Only orders from"
            className="mt-2 max-w-[320px] max-phone:max-w-none"
            placeholder="any supplier"
            value={supplier}
            onPick={setSupplier}
          />
        )}
        <p role="status" className="sr-only">
          {list.told}
        </p>
        {list.offline && (
          <p role="alert" className="mt-3 rounded-lg border border-line bg-glaze-2 px-3 py-2">
            No connection: {counted(waiting, 'code')} {waiting === 1 ? 'is' : 'are'} kept here and will be looked up
            when you’re back online.
          </p>
        )}
        {list.kept && lines.length > 0 && (
          <p className="mt-3 text-[13px] text-ink-2">
            Unsaved scans from last time.{' '}
            <button type="button" className="step" onClick={list.forget}>
              Start again
            </button>
          </p>
        )}
        <ul aria-label="Tally" className="mt-3">
          {lines.map((l) => (
            <TallyRow
              key={l.line.lineId}
              tallied={l}
              reasons={reasons}
              said={list.tally.notRight?.[l.line.lineId] ?? ALL_RIGHT}
              onSay={(said) => list.sayNotRight(l.line.lineId, said)}
            />
          ))}
          {aside.map((s) => (
            <AsideRow key={s.key} scan={s} supplierId={supplier?.id ?? null} onTied={list.retry} onDrop={list.drop} />
          ))}
        </ul>
      </div>
      <Shelf
        fault={fault}
        facts={
          <>
            <Fact strong>
              {lines.length === 0
                ? 'Nothing scanned yet'
                : `${formatQuantity(pieces)} scanned, ${counted(orders, 'order')}`}
            </Fact>
            {aside.length > 0 && <Fact>{aside.length} unmatched</Fact>}
          </>
        }
      >
        <ShelfPlain disabled={list.tally.scans.length === 0} onClick={list.undo}>
          Undo
        </ShelfPlain>
        <ShelfMain disabled={!ready} onClick={takeIn} hint="Ctrl ↵">
          {act.busy ? 'Receiving…' : 'Receive'}
        </ShelfMain>
      </Shelf>
    </Sheet>
  );
}

const wanted = (tallied: TalliedLine): string => {
  const { line } = tallied;
  if (line.tracking === 'lot')
    return `${line.description} needs a lot number. Scan its lot code, or receive it from ${line.order}.`;
  const n = lacks(tallied);
  return `${line.description} needs ${n === 1 ? 'a serial number' : `${n} serial numbers`}: scan ${n === 1 ? 'it' : 'them'} next.`;
};

type AsideProps = {
  readonly scan: Scan;
  readonly supplierId: number | null;
  readonly onTied: (key: string) => void;
  readonly onDrop: (key: string) => void;
};

const goesTo = (order: ScannedOrder | null, supplier: Choice | null): string => {
  if (order !== null) return `Only for ${order.number}.`;
  return supplier === null ? 'Goes to the oldest order it is due on.' : `Only for orders from ${supplier.name}.`;
};

/** A code that nobody awaits: tied to a part there and then, or left out. */
function AsideRow({ scan, supplierId, onTied, onDrop }: AsideProps) {
  const [tying, setTying] = useState(false);
  const once = useOnce();
  const act = useAct(acts.linkCode, {
    said: () => `Code ${scan.code} linked`,
    onDone: () => {
      once.renew();
      onTied(scan.key);
    },
  });
  return (
    <li className="-mx-4 flex gap-3 border-b border-line-2 bg-brick-wash px-4 py-2.5">
      <span className="w-[44px] shrink-0 text-right font-[family-name:var(--font-title)] text-[22px] leading-tight font-bold text-brick">
        {scan.count}
      </span>
      <div className="min-w-0 flex-1">
        <div className="font-semibold">Unmatched scans: {scan.aside}</div>
        <div className="mono break-all text-ink-2">{scan.code}</div>
        {tying ? (
          <PickField
            kind="item"
            label="Item"
            className="mt-1 max-w-[320px]"
            autoFocus
            value={null}
            onPick={(part) => {
              if (part !== null) void act.run({ once: once.key(), code: scan.code, itemId: part.id, supplierId });
            }}
          />
        ) : (
          <div className="flex gap-4">
            <button type="button" className="step" onClick={() => setTying(true)}>
              Link to item
            </button>
            <button type="button" className="step" onClick={() => onDrop(scan.key)}>
              Ignore
            </button>
          </div>
        )}
        {act.refusals[0] !== undefined && (
          <p role="alert" className="field-fault">
            {act.refusals[0].message}
          </p>
        )}
      </div>
    </li>
  );
}
