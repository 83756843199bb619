'use client';

import { measured } from '@/core/quantity/units';
import { useState } from 'react';
import { formatAmount, signOf } from '@/core/money/money';
import { quantity } from '@/core/quantity/quantity';
import type { CountRow, CountView } from '@/queries/stores/counts';
import { useKey } from '@/ui/frame/keys';
import { Faults, TextField } from '@/ui/kit/Field';
import { Slip } from '@/ui/kit/Slip';
import { useAct, useOnce } from '@/ui/acting/useAct';
import { useYard } from '@/ui/frame/YardContext';
import { acts } from '../../../../actions';

type Props = { readonly head: CountView['head']; readonly rows: readonly CountRow[]; readonly onClose: () => void };

/** What a count differs by is posted, with why. */
export function PostSlip({ head, rows, onClose }: Props) {
  const { currency } = useYard();
  const once = useOnce();
  const [reason, setReason] = useState(rows.length === 0 ? 'Close count' : '');
  const [own, setOwn] = useState<Readonly<Record<number, string>>>({});
  const act = useAct(acts.postCount, { said: () => `Count ${head.number} posted`, onDone: onClose });
  const post = () =>
    void act.run({
      ...{ once: once.key(), countId: head.id, version: head.version, reason },
      reasons: Object.entries(own).map(([id, why]) => ({ lineId: Number(id), reason: why })),
    });
  useKey('Ctrl+Enter', 'Post', post, !act.busy);
  return (
    <Slip
      open
      onClose={onClose}
      title={`Post ${head.number}`}
      detail="Lines not counted keep their book quantity."
      foot={
        <div className="grid gap-2">
          <Faults messages={act.clash ? [act.clash.message] : act.refusals.map((r) => r.message)} />
          <button type="button" className="btn btn-main justify-self-end" disabled={act.busy} onClick={post}>
            Post{' '}
            <span className="kbd" aria-hidden>
              Ctrl ↵
            </span>
          </button>
        </div>
      }
    >
      <div className="grid gap-3">
        {rows.length > 0 && (
          <TextField
            label="Reason"
            required
            autoFocus
            placeholder="e.g. earlier miscount, not booked, lost"
            value={reason}
            onChange={(e) => setReason(e.target.value)}
          />
        )}
        <ul>
          {rows.map((r) => (
            <li key={r.id} className="border-b border-line-2 py-2">
              <div className="flex justify-between gap-3">
                <span className="min-w-0">
                  <b>{r.description}</b> <span className="mono text-ink-2">{r.number ?? r.bin}</span>
                </span>
                <span className="whitespace-nowrap">
                  {(r.difference ?? 0) > 0 ? '+' : '−'}
                  {measured(quantity(Math.abs(r.difference ?? 0)), r.unit)}
                  {r.worth !== null && ` · ${signOf(currency)}\u202f${formatAmount(r.worth, currency)}`}
                </span>
              </div>
              <input
                aria-label={`Reason for ${r.description}`}
                className="field field-small mt-1"
                placeholder={reason === '' ? 'separate reason' : reason}
                maxLength={120}
                value={own[r.id] ?? ''}
                onChange={(e) => setOwn({ ...own, [r.id]: e.target.value })}
              />
            </li>
          ))}
        </ul>
      </div>
    </Slip>
  );
}
