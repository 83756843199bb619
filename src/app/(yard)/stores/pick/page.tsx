import { formatDay } from '@/core/calendar/workdays';
import { counted } from '@/core/words';
import { listToPick } from '@/queries/stores/picking';
import { Fact, Shelf } from '@/ui/kit/Shelf';
import { Empty, PlaceTitle, Sheet } from '@/ui/kit/Sheet';
import Link from '@/ui/kit/Link';
import { yardPage } from '../../../server/yardPage';

export const metadata = { title: 'To pick' };

const SHOWN = 200;

/** Jobs that something is put by for, or lies here for. */
export default yardPage(async ({ db, person, today }) => {
  const { rows, count } = await listToPick(db, person, { most: SHOWN });
  return (
    <Sheet>
      <PlaceTitle title="To pick" count={counted(count, 'job')} />
      {rows.length === 0 && (
        <Empty title="Nothing to pick">Stock reserved for a job, and goods received for it, appear here.</Empty>
      )}
      <ul className="max-w-[860px]">
        {rows.map((j) => (
          <li key={j.number} className="border-b border-line-2">
            <Link
              href={`/stores/pick/${j.number}`}
              className="flex min-h-[44px] flex-wrap items-baseline gap-x-4 py-2 hover:bg-glaze-2"
            >
              <span className="w-[56px] mono font-bold">{j.number}</span>
              <span className="min-w-0 flex-1 font-semibold">{j.name}</span>
              <span className={j.readyOn === null ? 'text-ink-2' : 'font-semibold text-enamel'}>
                {j.readyOn === null ? 'material not complete' : 'material complete'}
              </span>
              <span className="w-[150px] text-ink-2">
                {j.startsOn !== null &&
                  `${j.startsOn < today ? 'start was due' : 'starts'} ${formatDay(j.startsOn, today)}`}
              </span>
              <span className="w-[64px] text-right">{counted(j.lines, 'item')}</span>
            </Link>
          </li>
        ))}
      </ul>
      <Shelf facts={<Fact strong>{counted(count, 'job')} jobs to pick</Fact>} />
    </Sheet>
  );
});
