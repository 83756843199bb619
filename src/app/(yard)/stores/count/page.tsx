import { formatDay } from '@/core/calendar/workdays';
import { may } from '@/core/people/rights';
import { COUNT_STATE_NAMES } from '@/core/stores/sheet';
import { counted } from '@/core/words';
import { listCounts, listToCount } from '@/queries/stores/counts';
import { Empty, PlaceTitle, Sheet } from '@/ui/kit/Sheet';
import Link from '@/ui/kit/Link';
import { yardPage } from '../../../server/yardPage';
import { BeginCount } from './BeginCount';

export const metadata = { title: 'Stock counts' };

/** Counts of our places, in progress and ended. */
export default yardPage(async ({ db, person, today }) => {
  const counts = await listCounts(db, person);
  const open = counts.filter((c) => c.state === 'open' || c.state === 'counted').length;
  return (
    <Sheet>
      <PlaceTitle title="Stock counts" count={`${open} in progress`} />
      {counts.length === 0 && (
        <Empty title="No stock counts yet">
          A count sheet lists the stock at a location or bin. Counts are compared with book quantities and posted after
          review.
        </Empty>
      )}
      <ul className="max-w-[860px]">
        {counts.map((c) => (
          <li key={c.id} className="border-b border-line-2">
            <Link
              href={`/stores/count/${c.id}`}
              className="flex min-h-[44px] flex-wrap items-baseline gap-x-4 py-2 hover:bg-glaze-2"
            >
              <span className="mono w-[84px] font-bold">{c.number}</span>
              <span className="min-w-0 flex-1 max-phone:basis-[220px]">
                <b>{c.bin ?? c.place}</b>
                {c.bin !== null && <span className="text-ink-2"> {c.place}</span>}
                {c.blind === 1 && <span className="tag ml-2">blind</span>}
              </span>
              <span className="text-ink-2">
                {formatDay(c.begunOn, today)}, {c.begunBy}
              </span>
              <span className="w-[150px] text-right max-phone:w-auto">
                {c.counted} of {counted(c.lines, 'line')}
              </span>
              <span className="w-[150px]">
                <span className={`tag ${c.state === 'counted' ? 'tag-care' : c.state === 'posted' ? 'tag-good' : ''}`}>
                  {COUNT_STATE_NAMES[c.state]}
                </span>
              </span>
            </Link>
          </li>
        ))}
      </ul>
      <BeginCount places={await listToCount(db, person)} may={may(person, 'keep stores')} open={open} />
    </Sheet>
  );
});
