import { rowOf } from '@/store/rows';
import type { Day } from '@/core/calendar/workdays';
import type { Db } from '@/store/db';
import type { Person } from '@/store/people';
import type { Job } from '@/store/tables';
import { permit } from '../permit';

export type ReviewView = {
  readonly points: readonly {
    readonly id: number;
    readonly words: string;
    /** Who looked it over, and when; null as long as it is open. */
    readonly who: string | null;
    readonly day: Day | null;
  }[];
  readonly waived: string | null;
  readonly waivedBy: string | null;
};

/** What is looked over before work on a job starts, and who did. */
export async function loadReview(db: Db, person: Person, jobId: number): Promise<ReviewView> {
  permit(person, 'see jobs');
  const job = await rowOf<{ kind: Job['kind']; reviewWaived: string | null; waivedBy: string | null }>(
    db('job as j')
      .leftJoin('person as w', 'w.id', 'j.reviewWaivedBy')
      .where('j.id', jobId)
      .first('j.kind', 'j.reviewWaived', { waivedBy: 'w.name' }),
  );
  const points = (await db('reviewPoint as p')
    .leftJoin('jobReview as r', (on) => on.on('r.pointId', 'p.id').andOnVal('r.jobId', jobId))
    .leftJoin('person as w', 'w.id', 'r.personId')
    .where({ 'p.jobKind': job?.kind ?? '', 'p.gone': 0 })
    .orderBy('p.place')
    .select('p.id', 'p.words', 'r.day', { who: 'w.name' })) as ReviewView['points'];
  return { points, waived: job?.reviewWaived ?? null, waivedBy: job?.waivedBy ?? null };
}

/** What the company looks over before work starts, by kind of job. */
export async function loadReviewPoints(db: Db, person: Person): Promise<Readonly<Record<Job['kind'], string[]>>> {
  permit(person, 'manage people');
  const rows = await db('reviewPoint').where({ gone: 0 }).orderBy('place');
  const of = (kind: Job['kind']) => rows.filter((r) => r.jobKind === kind).map((r) => r.words);
  return { contract: of('contract'), repair: of('repair'), make: of('make') };
}
