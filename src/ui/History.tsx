'use client';

import type { Day } from '@/core/calendar/workdays';
import { useYard } from './YardContext';

type Row = {
  readonly id: number;
  readonly at: string;
  readonly day: Day;
  readonly words: string;
  readonly who: string;
};

/** What happened, newest first, under the day on which it happened. */
export function History({ rows }: { rows: readonly Row[] }) {
  const { day } = useYard();
  return (
    <ol className="mt-2" aria-label="History">
      {rows.map((r, k) => (
        <li key={r.id} className="flex gap-4 border-b border-line-2 py-1.5">
          <span className="w-[104px] shrink-0 text-ink-2">{rows[k - 1]?.day === r.day ? '' : day(r.day)}</span>
          <span className="min-w-0 flex-1">{r.words}</span>
          <span className="whitespace-nowrap text-ink-2">{r.who}</span>
        </li>
      ))}
    </ol>
  );
}
