'use client';

import { useState } from 'react';
import { parsePrice, signOf } from '@/core/money/money';
import { counted } from '@/core/words';
import type { NeedLine } from '@/queries/buying/needLine';
import type { Choice } from '@/queries/frame/choices';
import { DateField } from '@/ui/kit/DateField';
import { Faults, TextField } from '@/ui/kit/Field';
import { PickField } from '@/ui/kit/PickField';
import { Slip } from '@/ui/kit/Slip';
import { useKey } from '@/ui/frame/keys';
import { useAct } from '@/ui/acting/useAct';
import { useYard } from '@/ui/frame/YardContext';
import { acts } from '../../../actions';

type Props = { readonly needs: readonly NeedLine[]; readonly onClose: () => void };

/** Mends several lines to buy at once; what is left empty stays as it is on each. */
export default function MendSlip({ needs, onClose }: Props) {
  const { may, currency } = useYard();
  const [supplier, setSupplier] = useState<Choice | null>(null);
  const [code, setCode] = useState<Choice | null>(null);
  const [neededOn, setNeededOn] = useState('');
  const [today, setToday] = useState(false);
  const [price, setPrice] = useState('');
  const read = price.trim() === '' ? undefined : parsePrice(price);
  const wrong = read?.ok === false ? read.refusals[0]?.message : undefined;
  const act = useAct(acts.changeNeeds, { said: ({ lines }) => `${counted(lines, 'line')} changed`, onDone: onClose });
  const nothing = supplier === null && code === null && neededOn === '' && !today && price.trim() === '';
  const go = () =>
    void act.run({
      needs: needs.map((n) => ({ needId: n.id, version: n.version })),
      ...(supplier === null ? {} : { supplierId: supplier.id }),
      ...(code === null ? {} : { costCodeId: code.id }),
      ...(neededOn === '' ? {} : { neededOn }),
      ...(today && read === undefined ? { todaysPrice: true as const } : {}),
      ...(read?.ok === true ? { price: read.value } : {}),
    });
  useKey('Ctrl+Enter', 'Change', go, !act.busy && !nothing && wrong === undefined);
  return (
    <Slip
      open
      onClose={onClose}
      title={`Change ${counted(needs.length, 'line')}`}
      detail="Leave a field empty to keep each line’s own value."
      foot={
        <div className="grid gap-2">
          <Faults messages={act.clash ? [act.clash.message] : act.refusals.map((r) => r.message)} />
          <button
            type="button"
            className="btn btn-main justify-self-end"
            disabled={act.busy || nothing || wrong !== undefined}
            onClick={go}
          >
            Change{' '}
            <span className="kbd" aria-hidden>
              Ctrl ↵
            </span>
          </button>
        </div>
      }
    >
      <div className="grid gap-3">
        <PickField
          kind="supplier"
          label="Supplier"
          placeholder="no change"
          autoFocus
          value={supplier}
          onPick={setSupplier}
        />
        <DateField label="Needed by" value={neededOn} onDay={setNeededOn} />
        <PickField kind="costCode" label="Cost code" placeholder="no change" value={code} onPick={setCode} />
        {may('see money') && (
          <TextField
            label={`Price ${signOf(currency)}`}
            inputMode="decimal"
            placeholder="no change"
            value={price}
            fault={wrong}
            onChange={(e) => setPrice(e.target.value)}
          />
        )}
        {may('see money') && price.trim() === '' && (
          <label>
            <input type="checkbox" checked={today} onChange={(e) => setToday(e.target.checked)} /> Use the supplier’s
            price today as the estimate
          </label>
        )}
      </div>
    </Slip>
  );
}
