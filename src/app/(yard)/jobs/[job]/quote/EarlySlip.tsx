'use client';

import { useState } from 'react';
import { counted } from '@/core/words';
import type { QuoteView } from '@/queries/jobs/job';
import { Faults, TextField } from '@/ui/kit/Field';
import { Slip } from '@/ui/kit/Slip';
import { useAct, useOnce } from '@/ui/acting/useAct';
import { acts } from '../../../../actions';

type Props = { readonly quote: QuoteView; readonly onClose: () => void };

/** Lines that cannot wait for the customer's yes are bought on purpose, with a reason that is kept. */
export function EarlySlip({ quote, onClose }: Props) {
  const bought = quote.rows.filter((l) => l.kind === 'bought' && l.itemBought !== 0);
  const [picked, setPicked] = useState<ReadonlySet<number>>(new Set());
  const [reason, setReason] = useState('');
  const once = useOnce();
  const act = useAct(acts.buyEarly, {
    said: (done) => `${counted(done.bought, 'line')} on the buy list`,
    onDone: onClose,
  });
  const turn = (id: number) => {
    const next = new Set(picked);
    if (!next.delete(id)) next.add(id);
    setPicked(next);
  };
  const others = act.refusals.filter((r) => r.field !== 'reason').map((r) => r.message);
  return (
    <Slip
      open
      onClose={onClose}
      title="Buy before acceptance"
      detail="These lines have no budget until the quote is won. Your name and reason are recorded."
      foot={
        <div className="grid gap-2">
          <Faults messages={act.clash ? [act.clash.message] : others} />
          <button
            type="button"
            className="btn btn-main justify-self-end"
            disabled={act.busy || picked.size === 0}
            onClick={() =>
              void act.run({
                once: once.key(),
                ...{ quoteId: quote.id, version: quote.version, lineIds: [...picked], reason },
              })
            }
          >
            Buy {counted(picked.size, 'line')} anyway
          </button>
        </div>
      }
    >
      <TextField
        label="Reason it can’t wait"
        autoFocus
        value={reason}
        onChange={(e) => setReason(e.target.value)}
        fault={act.faultAt('reason')}
      />
      <ul className="mt-3">
        {bought.map((l) => (
          <li key={l.id} className="border-b border-line-2 py-1">
            <label className="flex gap-2">
              <input
                type="checkbox"
                className="accent-[var(--copper)]"
                checked={picked.has(l.id)}
                onChange={() => turn(l.id)}
              />
              {l.description}
            </label>
          </li>
        ))}
      </ul>
    </Slip>
  );
}
