import { isLive } from '@/core/jobs/states';
import Link from '@/ui/kit/Link';
import type { Day } from '@/core/calendar/workdays';
import { may } from '@/core/people/rights';
import type { JobHead } from '@/queries/jobs/job';
import type { Person } from '@/store/people';
import { Fact, Shelf } from '@/ui/kit/Shelf';
import { counted } from '@/core/words';

type Props = { readonly person: Person; readonly job: JobHead; readonly on?: Day; readonly fact: string };

/** The shelf of a job's pages that change nothing: what is left to buy, and the way to gather it. */
export function JobShelf({ person, job, on, fact }: Props) {
  const toBuy = job.counts.open;
  if (on !== undefined) return <Shelf facts={<Fact>{fact} on that date</Fact>} />;
  return (
    <Shelf
      facts={
        <>
          <Fact strong>
            {job.counts.needs === 0
              ? 'Buy list is empty'
              : toBuy === 0
                ? 'Everything on the buy list is bought'
                : `${counted(toBuy, 'line')} to buy`}
          </Fact>
          <Fact>{fact}</Fact>
        </>
      }
    >
      {toBuy > 0 && isLive(job) && may(person, 'draft orders') && (
        <Link href={`/gather?job=${job.number}`} className="btn btn-main h-[38px]">
          Gather for {job.number}
        </Link>
      )}
    </Shelf>
  );
}
