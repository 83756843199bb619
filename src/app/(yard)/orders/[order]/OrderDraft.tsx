'use client';

import { numbersOf } from '@/core/orders/numbering';
import { Versions } from '@/ui/kit/Versions';
import { differences, settle } from '@/ui/orders/orderClash';
import { useMemo, useState } from 'react';
import { formatMoney } from '@/core/money/money';
import type { ChargeKind } from '@/core/orders/charges';
import { counted } from '@/core/words';
import type { HistoryRow } from '@/queries/company/history';
import type { OrderView } from '@/queries/orders/order';
import type { OrderedBefore } from '@/queries/orders/orderedBefore';
import type { ItemChoice } from '@/queries/frame/choices';
import type { StoredOrder } from '@/store/orders';
import { Sheet } from '@/ui/kit/Sheet';
import { useKey } from '@/ui/frame/keys';
import { later } from '@/ui/acting/later';
import { Sums } from '@/ui/kit/Sums';
import { standing } from '@/ui/entry/reading';
import { nextNew } from '@/ui/entry/rows';
import { againText, newLine, towardsOf, withMore, type LineText } from '@/ui/orders/orderLineText';
import { orderText, type OrderText } from '@/ui/orders/orderText';
import { AddCharge } from './AddCharge';
import { GoesWith } from './GoesWith';
import { OrderAside } from './OrderAside';
import { OrderHead } from './OrderHead';
import { sumRows } from './OrderLines';
import { OrderSheet } from './OrderSheet';
import { OrderShelf } from './OrderShelf';
import { OrderTerms } from './OrderTerms';
import { Revising } from './Revising';
import { typedOn, useOrderDraft, type OrderFormChoices } from './useOrderDraft';
import { worked } from './worked';

const Scan = later(() => import('./Scan'));
const OrderedBeforeSlip = later(() => import('./OrderedBefore'));

type Props = { readonly view: OrderView; readonly form: OrderFormChoices; readonly history: readonly HistoryRow[] };

/** An order that is still drafted, changed where it stands. What is typed is kept in the browser until it is saved. */
export function OrderDraft({ view, form, history }: Props) {
  const { order, supplier } = view;
  const draft = useOrderDraft(view, form);
  const { text, set, steps, act, changes } = draft;
  const sums = useMemo(
    () => worked(text.lines, draft.read, view, form.taxes, draft.terms),
    [text.lines, draft.read, view, form.taxes, draft.terms],
  );
  const [slip, setSlip] = useState<'scan' | 'before'>();
  useKey('S', 'Add lines by scanning', () => setSlip('scan'));
  useKey('O', 'Add items ordered before', () => setSlip('before'));
  const [begun, setBegun] = useState<{ readonly key: string; readonly col?: string }>();
  const shown = {
    ...view,
    ...(changes.length === 0 ? {} : draft.preview),
    totals: sums?.totals ?? view.totals,
    ...(view.revising && { revising: { ...view.revising, changes: draft.preview.changes } }),
  };
  const freshIn = (lines: readonly LineText[], kind: LineText['kind'] = 'goods', chargeKind?: ChargeKind) =>
    newLine(kind, supplier.taxCodeId, nextNew(lines), towardsOf(lines, form.lastJob), chargeKind);
  const add = (kind: LineText['kind'], chargeKind?: ChargeKind) => {
    steps.step();
    const line = freshIn(text.lines, kind, chargeKind);
    set((now) => ({ ...now, lines: [...now.lines, line] }));
    // A charge of a kind has its name: its price is filled in next.
    setBegun({ key: line.key, ...(line.description === '' ? {} : { col: 'price' }) });
  };
  const onPart = (part: ItemChoice, count: number) => {
    steps.step();
    const lines = (now: OrderText) =>
      withMore(now.lines, part, count, freshIn(now.lines), draft.terms.get(part.id), order.currency);
    set((now) => ({ ...now, lines: lines(now) }));
  };
  const onAgain = (before: OrderedBefore) => {
    steps.step();
    set((now) => ({ ...now, lines: [...now.lines, againText(freshIn(now.lines, before.kind), before)] }));
  };
  if (act.clash !== undefined) {
    const stored = act.clash.theirs as StoredOrder;
    // Who else writes on a revision saves that, not the order: what they wrote is what the page shows by now.
    const theirs = orderText(view.revising === undefined ? stored : typedOn(view), view);
    return (
      <Sheet aside={<OrderAside view={view} history={history} />}>
        <OrderHead view={view} />
        <Versions
          message={act.clash.message}
          rows={differences(text, theirs)}
          onPutBack={draft.putBack}
          onSettled={(chosen) => draft.settle(stored.version)(settle(text, theirs, chosen))}
        />
      </Sheet>
    );
  }
  return (
    <Sheet aside={<OrderAside view={shown} history={history} moving />}>
      <OrderHead view={view} />
      {view.revising !== undefined && <Revising view={view} />}
      <OrderTerms view={view} text={text} set={set} faults={draft.faults} />
      <div className="mt-2">
        <OrderSheet view={view} form={form} draft={draft} sums={sums} begun={begun} />
      </div>
      <div className="steps mt-2">
        <button type="button" className="step" onClick={() => add('service')}>
          + Service
        </button>
        <button type="button" className="step" onClick={() => setSlip('scan')}>
          + Scan
        </button>
        <button type="button" className="step" onClick={() => setSlip('before')}>
          + Ordered before
        </button>
        <AddCharge onAdd={(kind) => add('charge', kind)} />
      </div>
      {sums === undefined ? (
        <p className="mt-2 text-right text-brick">One of the amounts is too large. Check quantity and price.</p>
      ) : (
        <Sums rows={sumRows(sums.totals, order.currency)} />
      )}
      {slip === 'scan' && <Scan onPart={onPart} onClose={() => setSlip(undefined)} />}
      {slip === 'before' && <OrderedBeforeSlip view={view} onAgain={onAgain} onClose={() => setSlip(undefined)} />}
      <GoesWith view={view} />
      <OrderShelf
        view={shown}
        typed={{
          changes: changes.length,
          words: `${counted(changes.length, 'unsaved change')} · kept on this device`,
          total: sums === undefined ? '' : formatMoney(sums.totals.gross, order.currency),
          busy: act.busy || draft.waits,
          saved: draft.savedAs,
          fault: standing(draft.faults, (k) => numbersOf(draft.text.lines, order)[k] ?? k + 1),
          onSave: draft.save,
          onPutBack: draft.putBack,
        }}
      />
    </Sheet>
  );
}
