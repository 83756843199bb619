'use client';

import { useState } from 'react';
import type { Day } from '@/core/calendar/workdays';
import { keptQuantity } from '@/core/records/stock';
import { typedQuantity, type Named } from '@/core/records/typed';
import type { CountView } from '@/queries/stores/counts';
import { useKey } from '@/ui/frame/keys';
import { DateField } from '@/ui/kit/DateField';
import { ChoiceField, Faults, TextField } from '@/ui/kit/Field';
import { PickField } from '@/ui/kit/PickField';
import { Slip } from '@/ui/kit/Slip';
import { useAct, useOnce } from '@/ui/acting/useAct';
import { acts } from '../../../../actions';

const typedFound = typedQuantity(keptQuantity, 'none');

type Props = { readonly head: CountView['head']; readonly bins: CountView['bins']; readonly onClose: () => void };

/** Something lies there that does not stand on the sheet. */
export function FoundSlip({ head, bins, onClose }: Props) {
  const once = useOnce();
  const [item, setItem] = useState<Named | null>(null);
  const [binId, setBin] = useState(head.binId);
  const [number, setNumber] = useState('');
  const [expiresOn, setExpires] = useState('');
  const [typed, setTyped] = useState('1');
  const act = useAct(acts.countFound, { said: () => 'Added to the sheet', onDone: onClose });
  const read = typedFound.safeParse(typed);
  const put = () =>
    void act.run({
      ...{ once: once.key(), countId: head.id, itemId: item?.id ?? 0, binId, number: number.trim() },
      ...{ expiresOn: expiresOn === '' ? null : (expiresOn as Day), quantity: read.success ? read.data : (0 as never) },
    });
  const ready = item !== null && !act.busy;
  useKey('Ctrl+Enter', 'Add to the sheet', put, ready);
  const at = (field: string) => act.refusals.find((r) => r.field === field)?.message;
  return (
    <Slip
      open
      onClose={onClose}
      title="Found item"
      detail="It becomes stores stock when the count is posted."
      foot={
        <div className="grid gap-2">
          <Faults messages={act.refusals.filter((r) => r.field === undefined).map((r) => r.message)} />
          <button type="button" className="btn btn-main justify-self-end" disabled={!ready} onClick={put}>
            Add to the sheet{' '}
            <span className="kbd" aria-hidden>
              Ctrl ↵
            </span>
          </button>
        </div>
      }
    >
      <div className="grid gap-3">
        <PickField kind="item" label="Item" required autoFocus value={item} onPick={setItem} fault={at('itemId')} />
        {head.binId === null && bins.length > 0 && (
          <ChoiceField
            label="Bin"
            value={binId ?? ''}
            onChange={(e) => setBin(e.target.value === '' ? null : Number(e.target.value))}
          >
            <option value="">none</option>
            {bins.map((b) => (
              <option key={b.id} value={b.id}>
                {b.name}
              </option>
            ))}
          </ChoiceField>
        )}
        <TextField
          label="Quantity"
          required
          value={typed}
          onChange={(e) => setTyped(e.target.value)}
          fault={at('quantity')}
        />
        <TextField
          label="Serial number or lot"
          placeholder="if it has one"
          value={number}
          onChange={(e) => setNumber(e.target.value)}
          fault={at('number')}
        />
        {number !== '' && <DateField label="Use-by date (lots)" value={expiresOn} onDay={setExpires} />}
      </div>
    </Slip>
  );
}
