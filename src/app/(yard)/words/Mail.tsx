'use client';

import { useState } from 'react';
import type { MailKind, MailText } from '@/core/orders/mail';
import { AreaField, Faults, TextField } from '@/ui/kit/Field';
import { useAct } from '@/ui/acting/useAct';
import { acts } from '../../actions';

type Props = {
  readonly kind: MailKind;
  readonly title: string;
  readonly supplierId: number | null;
  readonly own: MailText | null;
  readonly else: MailText;
};

/** The words of one kind of mail. */
export function Mail({ kind, title, supplierId, own, else: other }: Props) {
  const saved = own ?? other;
  const [typed, setTyped] = useState(saved);
  const act = useAct(acts.saveMailWords, { said: () => 'Email wording saved' });
  const changed = typed.subject !== saved.subject || typed.body !== saved.body;
  return (
    <section aria-label={title} className="mt-4 max-w-[720px]">
      <h2 className="mb-1 text-[16px]">
        {title} {own !== null && <span className="tag ml-1 align-[2px]">customised</span>}
      </h2>
      <div className="grid gap-2">
        <TextField
          label={`Subject, ${title.toLowerCase()}`}
          hideLabel
          value={typed.subject}
          onChange={(e) => setTyped({ ...typed, subject: e.target.value })}
        />
        <AreaField
          label={`Text, ${title.toLowerCase()}`}
          hideLabel
          rows={6}
          value={typed.body}
          onChange={(e) => setTyped({ ...typed, body: e.target.value })}
        />
        <Faults messages={act.refusals.map((r) => r.message)} />
        <div className="flex gap-3">
          <button
            type="button"
            className="btn btn-plain"
            disabled={act.busy || !changed}
            onClick={() => void act.run({ supplierId, kind, ...typed })}
          >
            Save
          </button>
          {own !== null && (
            <button
              type="button"
              className="step"
              disabled={act.busy}
              onClick={() => {
                setTyped(other);
                void act.run({ supplierId, kind, subject: '', body: '' });
              }}
            >
              {supplierId === null ? 'Reset to Kettle Tab’s wording' : 'Reset to the wording for all suppliers'}
            </button>
          )}
        </div>
      </div>
    </section>
  );
}
