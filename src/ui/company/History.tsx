'use client';

import { useState } from 'react';
import type { HistoryRecord, HistoryRow } from '@/queries/company/history';
import { Slip } from '../kit/Slip';
import { useAnswer } from '../acting/useAnswer';
import { useYard } from '../frame/YardContext';

/** What happened, newest first, under the day on which it happened; each opens to what changed. */
export function History({ rows }: { rows: readonly HistoryRow[] }) {
  const { day } = useYard();
  const [open, setOpen] = useState<HistoryRow>();
  return (
    <>
      <ol className="mt-2" aria-label="History">
        {rows.map((r, k) => (
          <li
            key={r.id}
            className="flex gap-4 border-b border-line-2 py-1.5 max-phone:flex-wrap max-phone:py-3.5 max-phone:gap-x-2"
          >
            <span className="w-[104px] shrink-0 text-ink-2 max-phone:w-full max-phone:empty:hidden">
              {rows[k - 1]?.day === r.day ? '' : day(r.day)}
            </span>
            <span className="min-w-0 flex-1">
              {r.tells ? (
                <button
                  type="button"
                  className="text-left underline decoration-line decoration-dotted underline-offset-4 hover:decoration-ink"
                  onClick={() => setOpen(r)}
                >
                  {r.words}
                </button>
              ) : (
                r.words
              )}
            </span>
            <span className="whitespace-nowrap text-ink-2">{r.who}</span>
          </li>
        ))}
      </ol>
      {open !== undefined && <RecordSlip row={open} onClose={() => setOpen(undefined)} />}
    </>
  );
}

const timeOf = (at: string): string =>
  /T\d/.test(at) ? new Date(at).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' }) : '';

const FIRST = 60;

/** One record: what stood there before, and what stands there now. */
function RecordSlip({ row, onClose }: { row: HistoryRow; onClose: () => void }) {
  const { day } = useYard();
  const record = useAnswer<HistoryRecord>(`/history/${row.id}`);
  const [all, setAll] = useState(false);
  const changes = record?.changes ?? [];
  const shown = all ? changes : changes.slice(0, FIRST);
  const changed = changes.some((c) => c.from !== undefined);
  return (
    <Slip open onClose={onClose} title={row.words} detail={`${row.who}, ${day(row.day)} ${timeOf(row.at)}`}>
      {record === undefined && <p className="text-ink-2">Loading…</p>}
      {changes.length > 0 && (
        <table className="w-full text-[13.5px] [overflow-wrap:anywhere]">
          <thead>
            <tr className="border-b border-line text-left text-ink-2">
              <th className="w-[38%] py-1 font-normal">What</th>
              {changed && <th className="py-1 font-normal">Before</th>}
              <th className="py-1 font-normal">{changed ? 'After' : 'Recorded text'}</th>
            </tr>
          </thead>
          <tbody>
            {shown.map((c, k) => (
              <tr key={k} className="border-b border-line-2 align-top">
                <th scope="row" className="py-1 pr-2 text-left font-normal text-ink-2">
                  {c.what}
                </th>
                {changed && <td className="py-1 pr-2 text-ink-2">{c.from ?? '–'}</td>}
                <td className="py-1">{c.to ?? '–'}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {shown.length < changes.length && (
        <button type="button" className="step mt-2" onClick={() => setAll(true)}>
          Show all {changes.length} fields
        </button>
      )}
      {record !== undefined && changes.length === 0 && <p className="text-ink-2">No fields changed.</p>}
      {record !== undefined && record.subjects !== '' && (
        <p className="mt-4 text-ink-2">Relates to {record.subjects}</p>
      )}
      {record !== undefined && <p className="mono mt-1 text-[11.5px] break-all text-ink-2">Seal {record.seal}</p>}
    </Slip>
  );
}
