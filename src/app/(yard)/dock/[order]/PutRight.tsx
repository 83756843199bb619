'use client';

import { useState } from 'react';
import { ungrouped } from '@/core/locale/locale';
import type { Day } from '@/core/calendar/workdays';
import { addQ, formatQuantity, type Quantity } from '@/core/quantity/quantity';
import { unitOf } from '@/core/quantity/units';
import { keptQuantity } from '@/core/records/stock';
import { typedQuantity } from '@/core/records/typed';
import type { DockLine, DockReceipt } from '@/queries/dock/order';
import { DateField } from '@/ui/kit/DateField';
import { Faults } from '@/ui/kit/Field';
import { NumberField } from '@/ui/kit/NumberField';
import { useAct, useOnce } from '@/ui/acting/useAct';
import { acts } from '../../../actions';

const typedCame = typedQuantity(keptQuantity, 'none');

type Came = {
  readonly line: DockLine;
  readonly arrives: Quantity;
  readonly held: Quantity;
  readonly binId: number | null;
};

/**
 * What came with a receipt that can be put right in place: a delivery of which nothing was rejected, of goods without
 * numbers. All else is taken back and taken in anew.
 */
export function cameWith(receipt: DockReceipt, lines: readonly DockLine[]): readonly Came[] | undefined {
  if (receipt.kind !== 'delivery' || receipt.back === 1) return undefined;
  const came = receipt.lines.map((l) => ({
    ...{ line: lines.find((x) => x.id === l.lineId), held: l.held, binId: l.binId, arrives: addQ(l.accepted, l.held) },
    plain: l.rejected === 0 && l.givenUp === 0,
  }));
  const all = came.flatMap(({ line, plain, ...rest }) =>
    line !== undefined && plain && line.tracking === 'none' ? [{ line, ...rest }] : [],
  );
  return all.length === came.length && all.length > 0 ? all : undefined;
}

type Props = { readonly receipt: DockReceipt; readonly came: readonly Came[]; readonly onClose: () => void };

/** A delivery that was written down wrongly: other quantities, another day. */
export function PutRight({ receipt, came, onClose }: Props) {
  const once = useOnce();
  const [typed, setTyped] = useState<Readonly<Record<number, string>>>(
    Object.fromEntries(came.map((c) => [c.line.id, ungrouped(formatQuantity(c.arrives))])),
  );
  const [day, setDay] = useState<string>(receipt.day);
  const [keepOver, setKeepOver] = useState(false);
  const act = useAct(acts.correctReceipt, { said: () => `${receipt.number} corrected`, onDone: onClose });
  const read = came.map((c) => ({ ...c, now: typedCame.safeParse(typed[c.line.id] ?? '') }));
  const put = () =>
    void act.run({
      ...{ once: once.key(), receiptId: receipt.id, note: receipt.note, carrier: receipt.carrier },
      ...{ packages: receipt.packages, placeId: receipt.placeId, day: day as Day },
      arrivals: read.flatMap(({ line, held, binId, now }) =>
        now.success && now.data > 0
          ? [{ lineId: line.id, arrives: now.data, binId, keepOver, passed: held === 0 && line.inspected }]
          : [],
      ),
    });
  return (
    <div className="mt-1 grid gap-2 rounded-lg border border-line bg-glaze px-3 py-2">
      {read.map(({ line, now }) => (
        <NumberField
          key={line.id}
          label={`${line.description} received (${unitOf(line.unit).name})`}
          value={typed[line.id] ?? ''}
          onChange={(e) => setTyped({ ...typed, [line.id]: e.target.value })}
          fault={now.success ? undefined : now.error.issues[0]?.message}
        />
      ))}
      <DateField label="Date received" towards="back" value={day} onDay={setDay} />
      <label className="flex min-h-[36px] items-center gap-2">
        <input type="checkbox" className="box" checked={keepOver} onChange={(e) => setKeepOver(e.target.checked)} />
        Keep more than was ordered
      </label>
      <Faults messages={act.clash ? [act.clash.message] : act.refusals.map((r) => r.message)} />
      <div className="flex justify-end gap-2">
        <button type="button" className="btn btn-plain" onClick={onClose}>
          Cancel
        </button>
        <button
          type="button"
          className="btn btn-main"
          disabled={act.busy || read.some((r) => !r.now.success)}
          onClick={put}
        >
          Correct {receipt.number}
        </button>
      </div>
    </div>
  );
}
