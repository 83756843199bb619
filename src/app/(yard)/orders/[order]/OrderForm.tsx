'use client';

import { useState } from 'react';
import type { OrderView } from '@/queries/orders';
import type { StoredOrder } from '@/store/orders';
import { useKey } from '@/ui/keys';
import { DateField } from '@/ui/kit/DateField';
import { AreaField, ChoiceField, TextField } from '@/ui/kit/Field';
import { Fact, Shelf, ShelfMain, ShelfPlain } from '@/ui/kit/Shelf';
import { newLine, orderText, readOrder, type LineText, type OrderText } from '@/ui/orderText';
import { useAct, useOnce } from '@/ui/useAct';
import { useDraft } from '@/ui/useDraft';
import { changeOrder } from '../../../acts';
import { Clash } from './Clash';
import { LineForm } from './LineForm';
import type { OrderFormChoices } from './OrderPage';
import { counted } from '@/core/words';

type Props = { readonly view: OrderView; readonly choices: OrderFormChoices; readonly onClose: () => void };
type Kept = { readonly version: number; readonly text: OrderText };

/** An order being changed. What is typed is kept in the browser until it is saved or put back. */
export function OrderForm({ view, choices, onClose }: Props) {
  const { order } = view;
  const draft = useDraft<Kept>(`order ${order.number}`, { version: order.version, text: orderText(order) });
  const { text } = draft.value;
  const set = (change: Partial<OrderText>) => draft.set((now) => ({ ...now, text: { ...now.text, ...change } }));
  const setLine = (key: string, line: LineText | undefined) =>
    set({ lines: text.lines.flatMap((l) => (l.key !== key ? [l] : line === undefined ? [] : [line])) });
  const [local, setLocal] = useState<readonly { field: string; message: string }[]>([]);
  const once = useOnce();
  const { run, busy, refusals, clash, faultAt, clear } = useAct(changeOrder, {
    said: () => `${order.number} is changed`,
    onDone: () => {
      draft.drop();
      onClose();
    },
  });
  const save = (kept: Kept = draft.value) => {
    const { value, faults } = readOrder(kept.text);
    setLocal(faults);
    if (faults.length === 0) void run({ once: once.key(), orderId: order.id, version: kept.version, ...value });
  };
  const putBack = () => {
    draft.drop();
    onClose();
  };
  useKey('Ctrl+Enter', 'Save the order', () => save(), !busy && clash === undefined);
  const at = (field: string) => local.find((f) => f.field === field)?.message ?? faultAt(field);
  const bind = (name: 'placeId' | 'carrier' | 'instructions') => ({
    name,
    value: text[name],
    onChange: (e: { target: { value: string } }) => set({ [name]: e.target.value }),
    fault: at(name),
  });
  const bindDay = {
    name: 'wantedOn',
    value: text.wantedOn,
    onDay: (wantedOn: string) => set({ wantedOn }),
    fault: at('wantedOn'),
  };
  const add = (kind: LineText['kind']) =>
    set({ lines: [...text.lines, newLine(kind, view.supplier.taxCodeId, Date.now())] });
  const general = refusals.find((r) => r.field === undefined || r.field === '' || r.code === 'signedOut')?.message;
  const fault =
    general ?? (local.length + refusals.length > 0 ? 'Something above needs a look: it stands in red.' : undefined);

  if (clash !== undefined) {
    const theirs = clash.theirs as StoredOrder;
    return (
      <Clash
        message={clash.message}
        mine={text}
        theirs={orderText(theirs)}
        places={choices.places}
        onPutBack={putBack}
        onSettled={(settled) => {
          const kept = { version: theirs.version, text: settled };
          once.renew();
          clear();
          draft.set(kept);
          save(kept);
        }}
      />
    );
  }
  return (
    <div className="mt-3">
      {draft.kept && (
        <p className="mb-2 rounded-lg bg-copper-wash px-3 py-1.5">
          Kept from before, not saved yet.{' '}
          <button type="button" className="step" onClick={draft.restart}>
            Start from the saved order
          </button>
        </p>
      )}
      <div className="grid gap-3 sm:grid-cols-3">
        <ChoiceField label="Deliver to" {...bind('placeId')}>
          {choices.places.map((p) => (
            <option key={p.id} value={p.id}>
              {p.name}
            </option>
          ))}
        </ChoiceField>
        <DateField label="Wanted" {...bindDay} />
        <TextField label="Carrier" {...bind('carrier')} />
        <AreaField label="Instructions to the supplier" rows={2} className="sm:col-span-3" {...bind('instructions')} />
      </div>
      <ol className="mt-4 border-t border-ink">
        {text.lines.map((line, k) => (
          <LineForm
            key={line.key}
            line={line}
            index={k}
            choices={choices}
            currency={order.currency}
            faultAt={(field) => at(`lines.${k}.${field}`)}
            onChange={(next) => setLine(line.key, next)}
          />
        ))}
      </ol>
      <div className="mt-3 flex gap-4">
        <button type="button" className="step" onClick={() => add('goods')}>
          + Line
        </button>
        <button type="button" className="step" onClick={() => add('service')}>
          + Service
        </button>
        <button type="button" className="step" onClick={() => add('charge')}>
          + Charge
        </button>
      </div>
      <Shelf
        fault={fault}
        facts={
          <>
            <Fact strong>
              <span className="mono">{order.number}</span>
            </Fact>
            <Fact>{counted(text.lines.length, 'line')}, kept here as you type</Fact>
          </>
        }
      >
        <ShelfPlain onClick={putBack}>Put back</ShelfPlain>
        <ShelfMain disabled={busy} onClick={() => save()} hint="^↵">
          {busy ? 'Saving…' : 'Save order'}
        </ShelfMain>
      </Shelf>
    </div>
  );
}
