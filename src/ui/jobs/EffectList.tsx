'use client';

import Link from '@/ui/kit/Link';
import { formatAmount, formatMoney, minor } from '@/core/money/money';
import { counted } from '@/core/words';
import { STAGES } from '@/core/tab/stages';
import { headroomOf, type Level } from '@/core/tab/sums';
import { FirstOf } from '../kit/FirstOf';
import { LyingGlass } from './SightGlass';
import { useYard } from '../frame/YardContext';

type Effect = {
  readonly job: string;
  readonly code: string;
  readonly codeName: string;
  readonly before: Level;
  readonly after: Level;
};

const MOST = 12;

const endsAt = (e: Effect): number => headroomOf(e.after);

/** Every budget that is touched, before and after; one that nothing moves, as it stands. Of many, the tightest first. */
export function EffectList({ effects }: { effects: readonly Effect[] }) {
  const { currency } = useYard();
  const all = effects.length > MOST ? [...effects].sort((x, y) => endsAt(x) - endsAt(y)) : effects;
  return (
    <ul>
      <FirstOf all={all} most={MOST} more={(n) => counted(n, 'more budget')}>
        {(e) => {
          const [before, after] = [headroomOf(e.before), headroomOf(e.after)];
          const moved = STAGES.some((s) => e.before.amounts[s] !== e.after.amounts[s]);
          const name = `${e.job} ${e.code} ${e.codeName}`;
          return (
            <li key={name} className="border-b border-line py-2 last:border-0">
              <div className="flex items-baseline justify-between gap-2">
                <span className="min-w-0">
                  <Link
                    href={`/jobs/${e.job}?figure=${e.code}`}
                    className="hover:underline max-phone:inline-block max-phone:py-3.5"
                  >
                    <span className="mono font-bold">{e.job}</span> {e.code} {e.codeName}
                  </Link>
                </span>
                <b className={`whitespace-nowrap ${after < 0 ? 'text-brick' : ''}`}>
                  {after < 0 ? `${formatMoney(minor(-after), currency)} over` : `${formatMoney(after, currency)} left`}
                </b>
              </div>
              <div className="mt-1 grid grid-cols-[38px_1fr] items-center gap-x-2 text-[11.5px] text-ink-2">
                {moved && (
                  <>
                    <span>before</span>
                    <LyingGlass level={e.before} currency={currency} name={`${name}, before`} />
                  </>
                )}
                <span>{moved ? 'after' : 'now'}</span>
                <LyingGlass level={e.after} currency={currency} name={`${name}, ${moved ? 'after' : 'now'}`} />
              </div>
              {before !== after && (
                <div className="text-right text-[12px] text-ink-2">
                  headroom {formatAmount(before, currency)} → {formatAmount(after, currency)}
                </div>
              )}
            </li>
          );
        }}
      </FirstOf>
    </ul>
  );
}
