'use client';

import { useState } from 'react';
import { formatAmount, type Minor } from '@/core/money/money';
import { formatDecimal } from '@/core/money/decimal';
import type { CompletionRowView, CompletionView } from '@/queries/jobs/completion';
import { later } from '@/ui/acting/later';
import { Dash } from '@/ui/kit/Sheet';
import type { Column } from '@/ui/ledger/column';
import { LedgerTable } from '@/ui/ledger/LedgerTable';
import { useYard } from '@/ui/frame/YardContext';

const EndingSlip = later(() => import('./CompletionSlip'));

type Props = { readonly view: CompletionView; readonly jobId: number; readonly writes: boolean };

const index = (scaled: number | null | undefined) =>
  scaled === null || scaled === undefined ? <Dash /> : formatDecimal(Math.round(scaled / 100), 2);

/** How each cost code ends: as it is forecast, or as somebody said with a reason. */
export function CompletionTable({ view, jobId, writes }: Props) {
  const { currency, day } = useYard();
  const [open, setOpen] = useState<CompletionRowView>();
  const amount = (a: Minor | null | undefined) => (a === 0 || a == null ? <Dash /> : formatAmount(a, currency));
  const left = (a: Minor) => <span className={a < 0 ? 'font-bold text-brick' : ''}>{amount(a)}</span>;
  const columns: Column<CompletionRowView>[] = [
    {
      key: 'code',
      head: 'Cost code',
      leads: true,
      className: '!font-semibold whitespace-nowrap',
      cell: (r) =>
        writes ? (
          <button type="button" className="font-semibold hover:underline" onClick={() => setOpen(r)}>
            {r.code.code} {r.code.name}
          </button>
        ) : (
          `${r.code.code} ${r.code.name}`
        ),
    },
    {
      key: 'incurred',
      head: <span title="received + actual">Cost to date</span>,
      num: true,
      wide: true,
      cell: (r) => amount(r.ends.incurred),
    },
    {
      key: 'done',
      head: '% complete',
      num: true,
      wide: true,
      cell: (r) => (r.said?.done == null ? <Dash /> : `${formatDecimal(r.said.done, 2, 0)} %`),
    },
    {
      key: 'earned',
      head: <span title="budget × % complete">Earned value</span>,
      num: true,
      wide: true,
      cell: (r) => amount(r.ends.earned?.value),
    },
    {
      key: 'index',
      head: <span title="earned value ÷ cost to date">Cost index</span>,
      num: true,
      wide: true,
      cell: (r) => index(r.ends.earned?.costIndex),
    },
    {
      key: 'byIndex',
      head: <span title="projected final cost at the present rate: budget ÷ cost index">Projected by index</span>,
      num: true,
      wide: true,
      cell: (r) => amount(r.ends.earned?.byIndex),
    },
    {
      key: 'ends',
      head: 'Cost at completion',
      num: true,
      cell: (r) => (
        <>
          {r.said?.amount != null && (
            <span className="tag mr-2" title={`${r.said.who}, ${day(r.said.day)}: ${r.said.reason}`}>
              set by hand
            </span>
          )}
          {amount(r.ends.atCompletion)}
        </>
      ),
    },
    {
      key: 'variance',
      head: <span title="budget − cost at completion">Variance</span>,
      num: true,
      cell: (r) => left(r.ends.variance),
    },
  ];
  const { whole, rows } = view;
  if (rows.length === 0) return null;
  return (
    <section aria-label="Cost at completion" className="mt-6">
      <h2 className="text-[16px]">Cost at completion</h2>
      <LedgerTable
        label="Cost at completion by cost code"
        rows={rows}
        columns={columns}
        keyOf={(r) => r.code.id}
        onOpen={writes ? setOpen : undefined}
        foot={{
          code: 'Job total',
          incurred: amount(whole.incurred),
          ends: amount(whole.atCompletion),
          variance: left(whole.variance),
        }}
      />
      {open !== undefined && (
        <EndingSlip key={open.code.id} jobId={jobId} row={open} onClose={() => setOpen(undefined)} />
      )}
    </section>
  );
}
