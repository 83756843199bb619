'use client';

import { useState, type ReactNode } from 'react';
import type { Refusal } from '@/core/result';
import { Faults, TextField } from './Field';
import { Question } from './Slip';

type Props = {
  readonly title: string;
  readonly words: string;
  /** What is asked for: a reason, unless something else is. */
  readonly label?: string;
  /** The field of the action that it goes into. */
  readonly field?: string;
  /** The button that does nothing. */
  readonly keep: string;
  /** The button that goes on. */
  readonly go: string;
  readonly act: {
    readonly busy: boolean;
    readonly refusals: readonly Refusal[];
    readonly clash: { readonly message: string } | undefined;
  };
  readonly onGo: (reason: string) => void;
  readonly onClose: () => void;
  /** What it would do. */
  readonly children?: ReactNode;
};

/** Asks for the reason of something that cannot be undone. */
export function ReasonQuestion({
  title,
  words,
  label = 'Reason',
  field = 'reason',
  keep,
  go,
  act,
  onGo,
  onClose,
  children,
}: Props) {
  const { busy, refusals, clash } = act;
  const [reason, setReason] = useState('');
  const others = refusals.filter((r) => r.field !== field).map((r) => r.message);
  return (
    <Question open onClose={onClose} title={title}>
      <form
        noValidate
        onSubmit={(e) => {
          e.preventDefault();
          if (!busy) onGo(reason);
        }}
      >
        <p className="mb-3 text-ink-2">{words}</p>
        {children}
        <TextField
          label={label}
          value={reason}
          onChange={(e) => setReason(e.target.value)}
          autoFocus
          fault={refusals.find((r) => r.field === field)?.message}
        />
        <div className="mt-3">
          <Faults messages={clash === undefined ? others : [clash.message]} />
        </div>
        <div className="mt-3 flex justify-end gap-3">
          <button type="button" className="btn btn-plain" onClick={onClose}>
            {keep}
          </button>
          <button type="submit" className="btn btn-main" disabled={busy}>
            {go}
          </button>
        </div>
      </form>
    </Question>
  );
}
