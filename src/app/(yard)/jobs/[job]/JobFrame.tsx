'use client';

import Link from '@/ui/kit/Link';
import { usePathname, useRouter, useSearchParams } from 'next/navigation';
import { QUOTE_STATE_NAMES } from '@/core/quotes/winning';
import { STAGES, type Stage } from '@/core/tab/stages';
import type { Level } from '@/core/tab/sums';
import type { JobHead } from '@/queries/jobs/job';
import { UprightGlass } from '@/ui/jobs/SightGlass';
import { useAct } from '@/ui/acting/useAct';
import { useYard } from '@/ui/frame/YardContext';
import { acts } from '../../../actions';

export function JobGlass({ level, number }: { level: Level; number: string }) {
  const { currency } = useYard();
  const router = useRouter();
  const asked = useSearchParams();
  const figure = asked.get('figure')?.split('.') ?? [];
  const chosen = STAGES.find((s) => s === figure[1]);
  return (
    <UprightGlass
      level={level}
      currency={currency}
      name={`Job ${number}`}
      chosen={chosen}
      onPick={(stage: Stage) => {
        const on = asked.get('on');
        const to = new URLSearchParams({ ...(on === null ? {} : { on }), figure: `all.${stage}` });
        router.push(`/jobs/${number}?${to}`, { scroll: false });
      }}
    />
  );
}

type Props = {
  readonly number: string;
  readonly needs: number;
  readonly orders: number;
  readonly quote: JobHead['quote'];
};

export function JobTabs({ number, needs, orders, quote }: Props) {
  const path = usePathname();
  const { may } = useYard();
  const tabs = [
    may('see money') ? { href: '', name: 'Tab' } : undefined,
    may('see money') ? { href: '/budget', name: 'Budget' } : undefined,
    { href: '/plan', name: 'Plan' },
    { href: '/buy-list', name: 'Buy list', count: needs },
    may('see orders') ? { href: '/orders', name: 'Orders', count: orders } : undefined,
    may('see money') && quote
      ? { href: '/quote', name: 'Quote', note: QUOTE_STATE_NAMES[quote.state].toLowerCase() }
      : undefined,
    may('see money') ? { href: '/papers', name: 'Documents' } : undefined,
    may('see money') ? { href: '/history', name: 'History' } : undefined,
  ].filter((t) => t !== undefined);
  return (
    <nav
      aria-label="Pages of this job"
      className="mt-3 flex gap-5 max-phone:mt-2 max-phone:flex-wrap max-phone:gap-x-4 max-phone:gap-y-1 overflow-x-auto overflow-y-hidden border-b border-line"
    >
      {tabs.map((t) => {
        const href = `/jobs/${number}${t.href}`;
        const here = path === href;
        return (
          <Link
            key={t.href}
            href={href}
            aria-current={here ? 'page' : undefined}
            className={`border-b-[3px] pb-1.5 font-semibold whitespace-nowrap max-phone:pt-3 max-phone:pb-[9px] ${here ? 'border-copper text-ink' : 'border-transparent text-ink-2 hover:text-ink'}`}
          >
            {t.name} {'count' in t && <span className="font-normal text-ink-2">{t.count}</span>}
            {'note' in t && <span className="font-normal text-ink-2">{t.note}</span>}
          </Link>
        );
      })}
    </nav>
  );
}

export function RailSwitch({ jobId, onRail }: { jobId: number; onRail: boolean }) {
  const open = useAct(acts.openOnRail);
  const close = useAct(acts.closeOnRail);
  const act = onRail ? close : open;
  return (
    <button
      type="button"
      disabled={act.busy}
      className="text-[13px] underline-offset-2 hover:underline"
      onClick={() => void act.run({ jobId })}
    >
      {onRail ? 'Remove from rail' : 'Pin to rail'}
    </button>
  );
}
