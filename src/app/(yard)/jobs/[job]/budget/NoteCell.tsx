'use client';

import { useState } from 'react';
import type { BudgetRow } from '@/queries/jobs/budgets';
import { useAct } from '@/ui/acting/useAct';
import { acts } from '../../../../actions';

type Props = { readonly jobId: number; readonly row: BudgetRow; readonly writes: boolean };

/** A few words beside a budget, written where they stand. */
export function NoteCell({ jobId, row, writes }: Props) {
  const [typed, setTyped] = useState(row.note);
  const act = useAct(acts.noteBudget);
  if (!writes) return row.note;
  const save = () => {
    if (typed.trim() !== row.note) void act.run({ jobId, costCodeId: row.code.id, words: typed });
  };
  return (
    <input
      className="w-full rounded border border-transparent bg-transparent px-1.5 py-0.5 placeholder:text-ink-3 hover:border-line focus:border-line"
      aria-label={`Note on ${row.code.code} ${row.code.name}`}
      placeholder="note"
      maxLength={300}
      value={typed}
      onChange={(e) => setTyped(e.target.value)}
      onBlur={save}
      onKeyDown={(e) => e.key === 'Enter' && save()}
    />
  );
}
