'use client';

import { JOB_KIND_NAMES, JOB_STATE_NAMES, isLive } from '@/core/jobs/states';
import Link from '@/ui/kit/Link';
import { useRouter } from 'next/navigation';
import { formatAmount, signOf, type Minor } from '@/core/money/money';
import { committedOf, forecastOf, headroomOf } from '@/core/tab/sums';
import { type JobRow } from '@/queries/jobs/jobs';
import { useKey } from '@/ui/frame/keys';
import type { Column } from '@/ui/ledger/column';
import { LedgerTable } from '@/ui/ledger/LedgerTable';
import type { Listed } from '@/ui/ledger/Listed';
import { Dash } from '@/ui/kit/Sheet';
import { LyingGlass } from '@/ui/jobs/SightGlass';
import { useYard } from '@/ui/frame/YardContext';

export function JobsTable({ rows, list }: { rows: readonly JobRow[]; list: Listed }) {
  const { currency, day, may, today } = useYard();
  const late = (j: JobRow) => isLive(j) && j.dueOn !== null && j.dueOn < today;
  const router = useRouter();
  useKey('N', 'New job', () => router.push('/jobs/new'), may('open jobs'));
  const amountOf = (amount: Minor | undefined) =>
    amount === undefined || amount === 0 ? <Dash /> : formatAmount(amount, currency);
  const columns: Column<JobRow>[] = [
    {
      key: 'number',
      head: 'Job',
      by: (j) => j.number,
      cell: (j) => (
        <Link href={`/jobs/${j.number}`} className="mono font-bold">
          {j.number}
        </Link>
      ),
    },
    {
      key: 'name',
      head: 'Name',
      by: (j) => j.name,
      cell: (j) => (
        <>
          <span className="font-semibold">{j.name}</span> <span className="tag">{JOB_KIND_NAMES[j.kind]}</span>
          <span className="block text-[12.5px] text-ink-2 lg:hidden">{j.customer}</span>
        </>
      ),
    },
    {
      key: 'customer',
      head: 'Customer',
      by: (j) => j.customer,
      cell: (j) => <span className="text-ink-2">{j.customer}</span>,
      className: 'max-lg:hidden',
    },
    { key: 'lead', head: 'Job lead', by: (j) => j.lead, cell: (j) => j.lead, extra: true, wide: true },
    { key: 'state', head: 'Status', by: (j) => j.state, cell: (j) => JOB_STATE_NAMES[j.state], wide: true },
    {
      key: 'due',
      head: 'Due',
      by: (j) => j.dueOn ?? '9999',
      cell: (j) => (
        <span className={`whitespace-nowrap ${late(j) ? 'font-bold text-brick' : ''}`}>
          {day(j.dueOn)}
          {late(j) && <span className="sr-only">, late</span>}
        </span>
      ),
      wide: true,
    },
    {
      key: 'toBuy',
      head: 'To buy',
      num: true,
      by: (j) => j.toBuy,
      cell: (j) => (j.toBuy === 0 ? <Dash /> : j.toBuy),
      wide: true,
    },
    { key: 'missing', head: 'Material', by: (j) => j.missing, cell: (j) => <Material row={j} />, wide: true },
  ];
  const money: Column<JobRow>[] = [
    {
      key: 'budget',
      head: `Budget ${signOf(currency)}`,
      num: true,
      by: (j) => j.level?.budget ?? 0,
      cell: (j) => amountOf(j.level?.budget),
      wide: true,
    },
    {
      key: 'committed',
      head: 'Committed',
      num: true,
      by: (j) => (j.level ? committedOf(j.level) : 0),
      cell: (j) => amountOf(j.level ? committedOf(j.level) : undefined),
      wide: true,
    },
    {
      key: 'forecast',
      head: 'Forecast',
      num: true,
      by: (j) => (j.level ? forecastOf(j.level) : 0),
      cell: (j) => amountOf(j.level ? forecastOf(j.level) : undefined),
      wide: true,
    },
    {
      key: 'headroom',
      head: 'Headroom',
      num: true,
      by: (j) => (j.level ? headroomOf(j.level) : 0),
      cell: (j) => <Headroom row={j} currency={currency} />,
    },
    {
      key: 'level',
      head: 'Gauge',
      cell: (j) =>
        j.level && (j.level.budget !== 0 || forecastOf(j.level) !== 0) ? (
          <LyingGlass level={j.level} currency={currency} name={`Job ${j.number}`} />
        ) : (
          <Dash />
        ),
      className: 'w-[140px]',
      wide: true,
    },
  ];
  return (
    <LedgerTable
      label="Jobs"
      list={list}
      rows={rows}
      columns={rows.some((r) => r.level !== null) ? [...columns, ...money] : columns}
      keyOf={(j) => j.id}
      hrefOf={(j) => `/jobs/${j.number}`}
    />
  );
}

/** Whether work can start: all goods are in, or how many lines are missing. */
function Material({ row: { state, goods, missing, number } }: { row: JobRow }) {
  if (!isLive({ state }) || goods === 0) return <Dash />;
  return (
    <Link href={`/jobs/${number}/plan`} className="whitespace-nowrap hover:underline">
      {missing === 0 ? <span className="tag tag-good">complete</span> : `${missing} outstanding`}
    </Link>
  );
}

function Headroom({ row, currency }: { row: JobRow; currency: string }) {
  if (row.level === null || (row.level.budget === 0 && forecastOf(row.level) === 0)) return <Dash />;
  const headroom = headroomOf(row.level);
  return <span className={headroom < 0 ? 'font-bold text-brick' : ''}>{formatAmount(headroom, currency)}</span>;
}
