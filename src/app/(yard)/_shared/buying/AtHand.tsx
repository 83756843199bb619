'use client';

import { measured } from '@/core/quantity/units';
import type { AtHand as Told } from '@/queries/buying/atHand';
import Link from '@/ui/kit/Link';
import { useAnswer } from '@/ui/acting/useAnswer';
import { useYard } from '@/ui/frame/YardContext';

/** What of a part there is, whom it is promised to, and what is coming for whom, at a glance. */
export function AtHand({ itemId }: { itemId: number }) {
  const { day } = useYard();
  const told = useAnswer<Told>(`/items/${itemId}/at-hand`);
  if (told === undefined) return null;
  const { unit, onHand, free, ofJobs, promised, coming } = told;
  return (
    <section aria-label="At hand" className="text-[12.5px]">
      <p>
        <Link
          href={`/stores/${itemId}`}
          className="font-semibold hover:underline max-phone:inline-block max-phone:py-3.5"
        >
          {onHand === 0 ? 'None in stock' : `${measured(onHand, unit)} in stock, ${measured(free, unit)} free`}
        </Link>
        {ofJobs > 0 && <span className="text-ink-2"> · {measured(ofJobs, unit)} job stock</span>}
        {promised.length > 0 && (
          <span className="text-ink-2">
            {' '}
            ·{' '}
            {promised
              .map(
                (p) =>
                  `${measured(p.quantity, unit)} reserved for ${p.job}${p.neededOn === null ? '' : ` by ${day(p.neededOn)}`}`,
              )
              .join(', ')}
          </span>
        )}
      </p>
      {coming.length > 0 && (
        <p className="text-ink-2">
          On order:{' '}
          {coming
            .map(
              (c) =>
                `${measured(c.quantity, c.unit)} for ${c.job ?? 'stores'}, expected ${day(c.on)} (${c.order} ${c.supplier})`,
            )
            .join('; ')}
        </p>
      )}
    </section>
  );
}
