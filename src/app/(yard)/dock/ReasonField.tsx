'use client';

import { useState } from 'react';
import { REASON_NAMES, WHAT_IT_DOES } from '@/core/receiving/reasons';
import type { ReasonChoice } from '@/queries/dock/order';
import { ChoiceField, TextField } from '@/ui/kit/Field';
import { useAct, useOnce } from '@/ui/acting/useAct';
import { acts } from '../../actions';

type Props = {
  readonly label: string;
  readonly reasons: readonly ReasonChoice[];
  readonly kinds: readonly ReasonChoice['does'][];
  readonly value: string;
  readonly fault?: string | undefined;
  readonly onReason: (id: string) => void;
};

const NEW = 'new';
/** One of the company's reasons, which says at once what it does; a new one is added in passing. */
export function ReasonField({ label, reasons, kinds, value, fault, onReason }: Props) {
  const [adding, setAdding] = useState(false);
  const [does, setDoes] = useState(kinds[0] ?? 'toCome');
  const [name, setName] = useState('');
  const once = useOnce();
  const act = useAct(acts.addReason, {
    onDone: ({ id }) => {
      once.renew();
      setAdding(false);
      setName('');
      onReason(String(id));
    },
  });
  const chosen = reasons.find((r) => String(r.id) === value);
  return (
    <div>
      <ChoiceField
        label={label}
        fault={fault}
        value={adding ? NEW : value}
        onChange={(e) => (e.target.value === NEW ? setAdding(true) : (setAdding(false), onReason(e.target.value)))}
      >
        <option value="">–</option>
        {kinds.flatMap((kind) =>
          reasons
            .filter((r) => r.does === kind)
            .map((r) => (
              <option key={r.id} value={r.id}>
                {r.name}
              </option>
            )),
        )}
        <option value={NEW}>Other reason…</option>
      </ChoiceField>
      {chosen !== undefined && !adding && <p className="mt-1 text-[12.5px] text-ink-2">{WHAT_IT_DOES[chosen.does]}</p>}
      {adding && (
        <div className="mt-2 grid gap-2 rounded-lg border border-line bg-glaze-2 p-3">
          <TextField
            label="Reason"
            maxLength={60}
            value={name}
            fault={act.refusals[0]?.message}
            onChange={(e) => setName(e.target.value)}
          />
          <ChoiceField label="Effect" value={does} onChange={(e) => setDoes(e.target.value as typeof does)}>
            {kinds.map((k) => (
              <option key={k} value={k}>
                {REASON_NAMES[k]}
              </option>
            ))}
          </ChoiceField>
          <button
            type="button"
            className="btn btn-plain justify-self-start"
            disabled={act.busy}
            onClick={() => void act.run({ once: once.key(), does, name })}
          >
            Add reason
          </button>
        </div>
      )}
    </div>
  );
}
