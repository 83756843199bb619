'use client';

import dynamic from 'next/dynamic';
import { useEffect, useRef, useState } from 'react';
import { formatWhole, type Minor } from '@/core/money/money';
import type { CourseView } from '@/queries/jobs/course';
import { useYard } from '@/ui/frame/YardContext';

const CourseChart = dynamic(() => import('./CourseChart'), { ssr: false });
const LEAST_POINTS = 3;

/** How forecast, committed and actual cost went against the budget, over time, and what moved them most. */
export function Course({ view: { points, events } }: { view: CourseView }) {
  const { currency, today, day } = useYard();
  const box = useRef<HTMLDivElement>(null);
  const [inView, setInView] = useState(false);
  useEffect(() => {
    const watch = new IntersectionObserver((seen) => setInView((now) => now || seen.some((s) => s.isIntersecting)));
    if (box.current !== null) watch.observe(box.current);
    return () => watch.disconnect();
  }, []);
  const last = points.at(-1);
  if (points.length < LEAST_POINTS || last === undefined) return null;
  const money = (amount: Minor) => formatWhole(amount, currency);
  return (
    <section aria-label="Over time" className="mt-6">
      <h2 className="border-b border-line pb-1 text-[16px]">Over time</h2>
      <div className="mt-1 flex flex-wrap gap-x-5 text-[12.5px] text-ink-2">
        <span>
          <span className="mr-1.5 inline-block h-[3px] w-4 bg-brick align-middle" />
          Budget {money(last.budget)}
        </span>
        <span>
          <span className="mr-1.5 inline-block size-3 align-[-2px] st-onOrder" />
          Committed {money(last.committed)}
        </span>
        <span>
          <span className="mr-1.5 inline-block size-3 align-[-2px] st-actual" />
          Actual {money(last.actual)}
        </span>
        <span>
          <span className="mr-1.5 inline-block h-0 w-4 border-t-2 border-dashed border-[var(--st-received)] align-middle" />
          Forecast {money(last.forecast)}
        </span>
      </div>
      <div ref={box} className="h-[170px]" aria-hidden>
        {inView && (
          <CourseChart points={last.day < today ? [...points, { ...last, day: today }] : points} events={events} />
        )}
      </div>
      <ol className="mt-1 grid gap-x-8 text-[12.5px] grid-cols-1 lg:grid-cols-2" aria-label="Largest movements">
        {events.map((e, k) => (
          <li key={`${e.day} ${e.what}`} className="flex min-w-0 items-baseline gap-2 border-b border-line-2 py-1">
            <span className="w-4 text-center font-semibold text-copper-text">{k + 1}</span>
            <span className="w-[88px] shrink-0 text-ink-2">{day(e.day)}</span>
            <span className="min-w-0 flex-1 truncate max-phone:whitespace-normal" title={e.words}>
              {e.words}
            </span>
            <span className="whitespace-nowrap">
              {e.what === 'budget' ? 'budget' : 'committed'} {e.amount > 0 ? '+' : ''}
              {money(e.amount)}
            </span>
          </li>
        ))}
      </ol>
    </section>
  );
}
