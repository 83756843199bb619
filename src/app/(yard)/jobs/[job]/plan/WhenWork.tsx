import { workdaysBetween } from '@/core/calendar/workdays';
import { counted, together } from '@/core/words';
import type { PieceOfWork } from '@/queries/buying/plan';
import { useYard } from '@/ui/frame/YardContext';

/** When each piece of work has its material, and how that stands to its start. */
export function WhenWork({ work }: { work: readonly PieceOfWork[] }) {
  return (
    <section aria-labelledby="when-work">
      <h2 id="when-work" className="mt-6 mb-1 border-b border-ink pb-1 text-[17px]">
        When work can start
      </h2>
      <ul>
        {work.map((w) => (
          <li
            key={w.number}
            className="grid grid-cols-[210px_1fr_auto] gap-x-4 border-b border-line-2 py-1.5 max-phone:grid-cols-1"
          >
            <span className="font-bold">
              {w.number} <span className="font-normal">{w.name}</span>
            </span>
            <Told piece={w} />
            <Against piece={w} />
          </li>
        ))}
      </ul>
    </section>
  );
}

const SHOWN = 3;

function Told({ piece: { ready } }: { piece: PieceOfWork }) {
  const { day } = useYard();
  if (ready.kind === 'complete') return <span>all material is in</span>;
  const names = ready.kind === 'unknown' ? ready.without : ready.last;
  const told = together([...names.slice(0, SHOWN), ...(names.length > SHOWN ? [`${names.length - SHOWN} more`] : [])]);
  if (ready.kind === 'unknown') return <span>No date yet for {told}</span>;
  return (
    <span>
      material complete <b>{day(ready.day)}</b>
      {ready.promised ? ' as promised' : ' if ordered today'} (last: {told})
    </span>
  );
}

function Against({ piece: { ready, startsOn } }: { piece: PieceOfWork }) {
  const { calendar, day, today } = useYard();
  if (ready.kind === 'complete') return <b className="text-enamel">work can start</b>;
  if (startsOn === null || ready.kind === 'unknown')
    return <b className="text-amber">{startsOn === null ? '' : `starts ${day(startsOn)}`}</b>;
  const late = workdaysBetween(startsOn, ready.day, calendar);
  if (late > 0)
    return <b className={startsOn < today ? 'text-brick' : 'text-amber'}>{counted(late, 'day')} after start date</b>;
  return <b className="text-enamel">{late === 0 ? 'in time for start' : `${counted(-late, 'day')} before start`}</b>;
}
