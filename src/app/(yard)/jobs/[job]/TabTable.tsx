'use client';

import Link from '@/ui/kit/Link';
import { useRouter } from 'next/navigation';
import type { Day } from '@/core/calendar/workdays';
import { formatAmount, type Minor } from '@/core/money/money';
import { STAGE_NAMES, STAGES, type Stage } from '@/core/tab/stages';
import { forecastOf, headroomOf, type Level } from '@/core/tab/sums';
import type { Tab } from '@/queries/jobs/job';
import { FilterDay } from '@/ui/kit/Filters';
import { TakeOut } from '@/ui/kit/TakeOut';
import { Dash } from '@/ui/kit/Sheet';
import type { Column } from '@/ui/ledger/column';
import { LedgerTable } from '@/ui/ledger/LedgerTable';
import { LyingGlass } from '@/ui/jobs/SightGlass';
import { useYard } from '@/ui/frame/YardContext';

type Row = Tab['rows'][number];

const over = (level: Level): string => (headroomOf(level) < 0 ? '!font-bold !text-brick' : '');

/** The tab by cost code; every figure opens to the postings it is the sum of. */
export function TabTable({ tab, number, on }: { tab: Tab; number: string; on?: Day }) {
  const router = useRouter();
  const { currency, day } = useYard();
  const href = (figure: string) => `/jobs/${number}?${new URLSearchParams({ ...(on ? { on } : {}), figure })}`;
  const shown = (amount: Minor) => (amount === 0 ? <Dash /> : formatAmount(amount, currency));
  const figure = (level: Level, stage: Stage, code: string) =>
    level.amounts[stage] === 0 ? (
      <Dash />
    ) : (
      <Link href={href(`${code}.${stage}`)} scroll={false} className="underline-offset-2 hover:underline">
        {shown(level.amounts[stage])}
      </Link>
    );
  const glass = (r: Row) => <LyingGlass level={r} currency={currency} name={`${r.code.code} ${r.code.name}`} />;
  const headroom = (level: Level) => formatAmount(headroomOf(level), currency);
  const columns: Column<Row>[] = [
    {
      key: 'code',
      head: 'Cost code',
      leads: true,
      className: '!font-semibold whitespace-nowrap',
      by: (r) => r.code.code,
      cell: (r) => (
        <>
          <Link href={href(r.code.code)} scroll={false} className="hover:underline">
            {r.code.code} {r.code.name}
          </Link>
          <span className="block phone:hidden">{glass(r)}</span>
        </>
      ),
    },
    { key: 'budget', head: 'Budget', num: true, by: (r) => r.budget, cell: (r) => shown(r.budget) },
    ...STAGES.map((s): Column<Row> => ({
      key: s,
      head: STAGE_NAMES[s],
      num: true,
      wide: true,
      by: (r) => r.amounts[s],
      cell: (r) => figure(r, s, r.code.code),
    })),
    {
      key: 'forecast',
      head: <span title="planned + drafted + on order + received + actual">Forecast</span>,
      num: true,
      wide: true,
      by: forecastOf,
      cell: (r) => shown(forecastOf(r)),
    },
    { key: 'level', head: 'Gauge', wide: true, className: 'w-[120px] pl-4', cell: glass },
    {
      key: 'headroom',
      head: 'Headroom',
      num: true,
      by: headroomOf,
      tone: over,
      cell: headroom,
    },
  ];
  const { whole } = tab;
  const foot = {
    code: 'Job total',
    budget: shown(whole.budget),
    ...Object.fromEntries(STAGES.map((s) => [s, figure(whole, s, 'all')])),
    forecast: shown(forecastOf(whole)),
    headroom: <span className={over(whole)}>{headroom(whole)}</span>,
  };
  return (
    <>
      <div className="flex h-[34px] items-center justify-between text-[13px] text-ink-2 max-phone:h-auto max-phone:justify-end max-phone:pt-4">
        <span className="max-phone:hidden">
          {on ? (
            <>
              As at end of <b className="text-ink">{day(on)}</b>
            </>
          ) : (
            `Amounts in ${currency}, excl. recoverable tax`
          )}
        </span>
        <span className="flex items-center gap-3 max-phone:flex-wrap max-phone:justify-end">
          <TakeOut list="tab" of={{ job: number }} />
          <FilterDay name="on" label="As of" back />
        </span>
      </div>
      <LedgerTable
        label="The job’s tab by cost code"
        rows={tab.rows}
        columns={columns}
        keyOf={(r) => r.code.id}
        onOpen={(r) => router.push(href(r.code.code), { scroll: false })}
        foot={foot}
      />
    </>
  );
}
