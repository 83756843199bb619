'use client';

import dynamic from 'next/dynamic';
import type { Day } from '@/core/calendar/workdays';
import { formatPrice, signOf, type UnitPrice } from '@/core/money/money';
import { unitOf } from '@/core/quantity/units';
import { counted } from '@/core/words';
import type { PaidPart, PriceCourse } from '@/queries/items/priceCourse';
import { FilterChoice } from '@/ui/kit/Filters';
import { useYard } from '@/ui/frame/YardContext';
import type { PricePoint } from './PriceChart';

const PriceChart = dynamic(() => import('./PriceChart'), { ssr: false });

type Props = {
  readonly parts: readonly PaidPart[];
  readonly part: PaidPart;
  readonly course: PriceCourse;
  readonly currency: string;
};

/** How the price of one part went: as it was listed, and as it was paid. */
export function PriceOverTime({ parts, part, course, currency }: Props) {
  const { today, day } = useYard();
  const { paid, listed, unit } = course;
  const first = paid[0];
  const last = paid.at(-1);
  if (first === undefined || last === undefined) return null;
  const points = pointsOf(course, today);
  const money = (price: number) => `${signOf(currency)}\u202f${formatPrice(Math.round(price) as UnitPrice, currency)}`;
  return (
    <section aria-label="Prices over time" className="mt-6">
      <div className="flex flex-wrap items-baseline gap-x-4 border-b border-line pb-1">
        <h2 className="text-[16px]">Prices over time</h2>
        <FilterChoice
          name="part"
          label="Item"
          fallback={String(parts[0]?.itemId)}
          options={parts.map((p) => [String(p.itemId), `${p.number} ${p.name}`] as const)}
        />
        <span className="text-[12.5px] text-ink-2">
          paid {counted(paid.length, 'time')}, last {money(last.price)} / {unitOf(unit).short || unitOf(unit).name} on{' '}
          {day(last.day)}
          {listed.length === 0 && ', no list price'}
        </span>
      </div>
      <div className="mt-1 flex gap-x-5 text-[12.5px] text-ink-2">
        <span>
          <span className="mr-1.5 inline-block size-2 rounded-full bg-[var(--st-actual)]" />
          paid
        </span>
        {listed.length > 0 && (
          <span>
            <span className="mr-1.5 inline-block h-0 w-4 border-t-2 border-[var(--st-received)] align-middle" />
            list price (lowest quantity)
          </span>
        )}
      </div>
      <div className="h-[160px]" aria-hidden>
        <PriceChart points={points} currency={currency} />
      </div>
      <ul className="sr-only" aria-label={`Prices paid for ${part.name}`}>
        {paid.map((p) => (
          <li key={`${p.order} ${p.day}`}>
            {day(p.day)}, {p.order}: {money(p.price)}
          </li>
        ))}
      </ul>
    </section>
  );
}

/** What is drawn: list prices at the days they begin and today, as far back as anything was paid, and what was paid. */
function pointsOf({ paid, listed }: PriceCourse, today: Day): PricePoint[] {
  const from = paid[0]?.day ?? today;
  const holding = (day: Day) => listed.findLast((l) => l.fromDay <= day && (l.untilDay === null || day <= l.untilDay));
  const days = [from, ...listed.map((l) => l.fromDay).filter((d) => d > from && d <= today), today];
  const steps = [...new Set(days)].flatMap((day): PricePoint[] => {
    const listedAt = holding(day)?.price;
    return listedAt === undefined ? [] : [{ day, listed: listedAt }];
  });
  const dots = paid.map((p): PricePoint => ({ day: p.day, paid: p.price, order: p.order }));
  return [...steps, ...dots].sort((a, b) => a.day.localeCompare(b.day));
}
