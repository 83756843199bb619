'use client';

import { useState } from 'react';
import type { Day } from '@/core/calendar/workdays';
import type { ChangeLineText } from '@/core/records/budget';
import { formatAmount, formatMoney, minor, type Minor } from '@/core/money/money';
import { counted } from '@/core/words';
import type { BudgetRow, BudgetView, ChangeView } from '@/queries/jobs/budgets';
import type { CompletionView } from '@/queries/jobs/completion';
import { later } from '@/ui/acting/later';
import { useKey } from '@/ui/frame/keys';
import { FilterDay } from '@/ui/kit/Filters';
import { Dash, Empty } from '@/ui/kit/Sheet';
import { Fact, Shelf, ShelfMain } from '@/ui/kit/Shelf';
import { TakeOut } from '@/ui/kit/TakeOut';
import type { Column } from '@/ui/ledger/column';
import { LedgerTable } from '@/ui/ledger/LedgerTable';
import { useYard } from '@/ui/frame/YardContext';
import { BudgetFile } from './BudgetFile';
import { Changes } from './Changes';
import { CompletionTable } from './CompletionTable';
import { NoteCell } from './NoteCell';

const ChangeSlip = later(() => import('./ChangeSlip'));

type Props = {
  readonly view: BudgetView;
  readonly job: { readonly id: number; readonly number: string; readonly open: boolean };
  readonly on: Day | undefined;
  readonly endings: CompletionView;
};

/** A job's budget by cost code, what is held back of it, and everything that moved it. */
export function Budget({ view, job, on, endings }: Props) {
  const { currency, day, may } = useYard();
  const [slip, setSlip] = useState<'new' | ChangeView>();
  /** What a file said of the budget, which a new change begins with. */
  const [begin, setBegin] = useState<readonly ChangeLineText[]>();
  const close = () => {
    setSlip(undefined);
    setBegin(undefined);
  };
  const writes = may('write budget changes') && job.open && on === undefined;
  useKey('N', 'New budget change', () => setSlip('new'), writes && slip === undefined);
  const amount = (a: Minor) => (a === 0 ? <Dash /> : formatAmount(a, currency));
  const signed = (a: Minor) => (a === 0 ? <Dash /> : `${a > 0 ? '+' : ''}${formatAmount(a, currency)}`);
  const columns: Column<BudgetRow>[] = [
    {
      key: 'code',
      head: 'Cost code',
      leads: true,
      className: '!font-semibold whitespace-nowrap',
      by: (r) => r.code.code,
      cell: (r) => `${r.code.code} ${r.code.name}`,
    },
    { key: 'opening', head: 'Opening', num: true, wide: true, by: (r) => r.opening, cell: (r) => amount(r.opening) },
    { key: 'changed', head: 'Changes', num: true, wide: true, by: (r) => r.changed, cell: (r) => signed(r.changed) },
    {
      key: 'now',
      head: on === undefined ? 'Current' : 'At date',
      num: true,
      by: (r) => r.now,
      cell: (r) => <b>{amount(r.now)}</b>,
    },
    {
      key: 'pending',
      head: <span title="submitted, not agreed yet">Pending</span>,
      num: true,
      by: (r) => r.pending,
      cell: (r) => <span className="text-amber">{signed(r.pending)}</span>,
    },
    {
      key: 'note',
      head: 'Note',
      wide: true,
      className: 'pl-6 w-[260px]',
      cell: (r) => <NoteCell jobId={job.id} row={r} writes={writes} />,
    },
  ];
  const { whole, contingency, price, rows } = view;
  const foot = {
    code: 'Job total',
    opening: amount(whole.opening),
    changed: signed(whole.changed),
    now: amount(whole.now),
    pending: signed(whole.pending),
  };
  const pending = view.changes.filter((c) => c.state === 'pending').length;
  return (
    <>
      <div className="flex h-[34px] items-center justify-between text-[13px] text-ink-2 max-phone:h-auto max-phone:justify-end max-phone:pt-4">
        <span className="max-phone:hidden">
          {on === undefined ? `Amounts in ${currency}` : `As at end of ${day(on)}`}
        </span>
        <span className="flex items-center gap-3 max-phone:flex-wrap max-phone:justify-end">
          <TakeOut list="budget" of={{ job: job.number }} />
          <FilterDay name="on" label="As of" back />
        </span>
      </div>
      {rows.length === 0 && contingency.now === 0 ? (
        <Empty title="No budget yet">
          It opens with the quote’s cost when the quote is won, or with the first budget change.
        </Empty>
      ) : (
        <LedgerTable
          label="The job’s budget by cost code"
          rows={rows}
          columns={columns}
          keyOf={(r) => r.code.id}
          foot={foot}
        />
      )}
      {(contingency.now !== 0 || contingency.pending !== 0) && (
        <p className="mt-2 flex flex-wrap gap-x-5 border-b border-line pb-2">
          <span>
            <b className="font-semibold">Contingency</b> {formatMoney(contingency.now, currency)}
          </span>
          {contingency.pending !== 0 && <span className="text-amber">pending {signed(contingency.pending)}</span>}
          <span className="text-ink-2">
            total {formatMoney(minor(whole.now + contingency.now), currency)} with the budget; in no cost code until
            drawn
          </span>
        </p>
      )}
      {price !== null && (
        <p className="mt-2 text-ink-2">
          Contract price {formatMoney(minor(price.quoted + price.changed), currency)}
          {price.changed !== 0 &&
            `: ${formatMoney(price.quoted, currency)} quoted, ${price.changed > 0 ? '+' : ''}${formatMoney(price.changed, currency)} by budget changes`}
        </p>
      )}
      <CompletionTable view={endings} jobId={job.id} writes={writes} />
      <Changes view={view} mayWrite={writes} onOpen={setSlip} />
      <Shelf
        facts={
          <>
            <Fact strong>Buying budget {formatMoney(whole.now, currency)}</Fact>
            <Fact>
              {pending === 0 ? 'No changes pending' : `${counted(pending, 'change')} awaiting agreement`}
              {on !== undefined && ' on that date'}
            </Fact>
          </>
        }
      >
        {writes && (
          <BudgetFile
            job={job.number}
            onTake={(lines) => {
              setBegin(lines);
              setSlip('new');
            }}
          />
        )}
        {writes && (
          <ShelfMain onClick={() => setSlip('new')} hint="N">
            Budget change
          </ShelfMain>
        )}
      </Shelf>
      {slip !== undefined && (
        <ChangeSlip
          key={slip === 'new' ? 'new' : slip.id}
          jobId={job.id}
          job={job.number}
          change={slip === 'new' ? undefined : slip}
          stands={rows.map((r) => [r.code.id, r.now])}
          contingency={contingency.now}
          begin={begin}
          onClose={close}
        />
      )}
    </>
  );
}
