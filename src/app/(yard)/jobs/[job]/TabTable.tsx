'use client';

import Link from '@/ui/Link';
import type { Day } from '@/core/calendar/workdays';
import { formatAmount, type Minor } from '@/core/money/money';
import { STAGE_NAMES, STAGES } from '@/core/tab/stages';
import { forecastOf, headroomOf, type Level } from '@/core/tab/sums';
import type { Tab } from '@/queries/job';
import { FilterDay } from '@/ui/kit/Filters';
import { Dash } from '@/ui/kit/Sheet';
import { LyingGlass } from '@/ui/SightGlass';
import { useYard } from '@/ui/YardContext';

/** The tab by cost code; every figure opens to the postings it is the sum of. */
export function TabTable({ tab, number, on }: { tab: Tab; number: string; on?: Day }) {
  const { currency, day } = useYard();
  const href = (figure: string) => `/jobs/${number}?${new URLSearchParams({ ...(on ? { on } : {}), figure })}`;
  return (
    <>
      <div className="flex h-[34px] items-center justify-between text-[13px] text-ink-2">
        <span className="max-phone:hidden">
          {on ? (
            <>
              As it stood at the end of <b className="text-ink">{day(on)}</b>
            </>
          ) : (
            `Amounts in ${currency}, tax that is recovered left out`
          )}
        </span>
        <FilterDay name="on" label="As of" back />
      </div>
      <div className="relative max-phone:overflow-x-auto">
        <table className="ledger" aria-label="The job’s tab by cost code">
          <thead>
            <tr>
              <th scope="col">Cost code</th>
              <th scope="col" className="num">
                Budget
              </th>
              {STAGES.map((s) => (
                <th key={s} scope="col" className="num max-phone:hidden">
                  {STAGE_NAMES[s]}
                </th>
              ))}
              <th scope="col" className="num" title="planned + drafted + on order + received + actual">
                Forecast
              </th>
              <th scope="col" className="w-[120px] pl-4 max-phone:hidden">
                Level
              </th>
              <th scope="col" className="num" title="budget − forecast">
                Headroom
              </th>
            </tr>
          </thead>
          <tbody>
            {tab.rows.map((r) => (
              <tr key={r.code.id}>
                <th scope="row" className="!font-semibold whitespace-nowrap">
                  <Link href={href(r.code.code)} scroll={false} className="hover:underline">
                    {r.code.code} {r.code.name}
                  </Link>
                  <span className="block phone:hidden">
                    <LyingGlass level={r} currency={currency} name={`${r.code.code} ${r.code.name}`} />
                  </span>
                </th>
                <Figures level={r} href={(stage) => href(`${r.code.code}.${stage}`)} />
                <td className="pl-4 max-phone:hidden">
                  <LyingGlass level={r} currency={currency} name={`${r.code.code} ${r.code.name}`} />
                </td>
                <Headroom level={r} />
              </tr>
            ))}
            <tr className="whole">
              <th scope="row">Whole job</th>
              <Figures level={tab.whole} href={(stage) => href(`all.${stage}`)} />
              <td className="max-phone:hidden" />
              <Headroom level={tab.whole} />
            </tr>
          </tbody>
        </table>
      </div>
    </>
  );
}

function Figures({ level, href }: { level: Level; href: (stage: string) => string }) {
  const { currency } = useYard();
  const shown = (amount: Minor) => (amount === 0 ? <Dash /> : formatAmount(amount, currency));
  return (
    <>
      <td className="num">{shown(level.budget)}</td>
      {STAGES.map((s) => (
        <td key={s} className="num max-phone:hidden">
          {level.amounts[s] === 0 ? (
            <Dash />
          ) : (
            <Link href={href(s)} scroll={false} className="underline-offset-2 hover:underline">
              {shown(level.amounts[s])}
            </Link>
          )}
        </td>
      ))}
      <td className="num">{shown(forecastOf(level))}</td>
    </>
  );
}

function Headroom({ level }: { level: Level }) {
  const { currency } = useYard();
  const headroom = headroomOf(level);
  return <td className={`num ${headroom < 0 ? '!font-bold !text-brick' : ''}`}>{formatAmount(headroom, currency)}</td>;
}
