'use client';

import { formatQuantity, quantity } from '@/core/quantity/quantity';
import { unitOf } from '@/core/quantity/units';
import type { LotEvent, LotWay } from '@/queries/stores/lotHistory';
import { Fact, Shelf } from '@/ui/kit/Shelf';
import { Sheet } from '@/ui/kit/Sheet';
import Link from '@/ui/kit/Link';
import { useYard } from '@/ui/frame/YardContext';

/** What happened, in words; the words around it say where, for whom and by which document. */
function whatOf(e: LotEvent): string {
  const went = e.quantity < 0;
  switch (e.what) {
    case 'received':
      return went ? 'Reversed' : `Received from ${e.supplier ?? 'its supplier'}`;
    case 'held':
      return `Received from ${e.supplier ?? 'its supplier'}, awaiting inspection`;
    case 'rejected':
      return went ? 'Returned' : 'Rejected';
    case 'released':
      return 'Released';
    case 'issued':
      return `Issued to job ${e.job ?? ''}`;
    case 'returned':
      return `Returned from job ${e.job ?? ''}`;
    case 'sentBack':
      return went ? `Returned to ${e.supplier ?? 'its supplier'}` : 'Return reversed';
    case 'transferred':
      return went
        ? `Transferred from ${e.owner === null ? 'stores' : `job ${e.owner}`}`
        : `Transferred to ${e.owner === null ? 'stores' : `job ${e.owner}`}`;
    case 'moved':
      return went ? 'Moved out' : 'Moved';
    case 'counted':
      return went ? 'Missing at count' : 'Found at count';
    case 'scrapped':
      return 'Scrapped';
    case 'revalued':
      return 'Revalued';
  }
}

const GONE: readonly LotEvent['what'][] = ['scrapped', 'rejected', 'counted'];

/** The way of a serial number or a lot, from the door to the job, the first thing first. */
export function LotWayPage({ way }: { way: LotWay }) {
  const { day } = useYard();
  const { item } = way;
  const unit = unitOf(item.unit).short;
  const serial = item.tracking === 'serial';
  const size = (e: { readonly quantity: LotEvent['quantity'] }) =>
    `${formatQuantity(quantity(Math.abs(e.quantity)))} ${unit}`.trim();
  // A move leaves one place and comes to another: one of the two tells it.
  const told = way.events.filter((e) => !(e.quantity < 0 && (e.what === 'moved' || e.what === 'transferred')));
  const last = told.at(-1);
  return (
    <Sheet>
      <p className="text-[13px] text-ink-2">{serial ? 'Serial number' : 'Lot'}</p>
      <h1 className="mono text-[26px] leading-tight break-all">{way.number}</h1>
      <p className="mt-1 mb-5">
        <Link href={`/stores/${item.id}`} className="font-semibold hover:underline">
          {item.name}
        </Link>{' '}
        <span className="mono text-ink-2">{item.number}</span>
        {way.expiresOn !== null && <span className="text-ink-2"> · use-by date {day(way.expiresOn)}</span>}
      </p>
      <ol aria-label="Movements" className="ml-2 max-w-[680px] border-l-[3px] border-enamel">
        {told.map((e) => (
          <li key={e.key} className="relative pb-5 pl-6 last:pb-1">
            <span
              aria-hidden
              className={`absolute top-[5px] -left-[9px] h-[15px] w-[15px] rounded-full border-[3px] border-glaze ${
                e === last ? 'bg-copper' : GONE.includes(e.what) && e.quantity < 0 ? 'bg-brick' : 'bg-enamel'
              }`}
            />
            <div className="flex flex-wrap items-baseline justify-between gap-x-4">
              <b>
                {whatOf(e)}
                {!serial && `, ${size(e)}`}
              </b>
              <span className="whitespace-nowrap text-ink-2">{day(e.day)}</span>
            </div>
            <div className="text-[13px] text-ink-2">
              {[e.place, e.bin, e.owner !== null && e.what !== 'transferred' ? `job ${e.owner}’s own` : null]
                .filter(Boolean)
                .join(' · ')}
              {e.order !== null && (
                <>
                  {' · '}
                  <Link href={`/dock/${e.order}`} className="mono hover:underline">
                    {e.order}
                  </Link>
                </>
              )}
              {e.receipt !== null && <span className="mono"> {e.receipt}</span>}
            </div>
            <div className="text-[13px] text-ink-2">{[e.who, e.reason].filter(Boolean).join(': ')}</div>
          </li>
        ))}
      </ol>
      {told.length === 0 && <p className="text-ink-2">No movements yet.</p>}
      <Shelf
        facts={
          <>
            <Fact strong>{serial ? `It ${way.now}` : `${way.lies.length === 0 ? 'None in stock' : 'Here'}`}</Fact>
            {!serial &&
              way.lies.map((l) => (
                <Fact key={`${l.place}/${l.bin}/${l.job}`}>
                  {size(l)} in {[l.place, l.bin].filter(Boolean).join(', ')}
                  {l.job !== null && `, job ${l.job} stock`}
                </Fact>
              ))}
          </>
        }
      />
    </Sheet>
  );
}
