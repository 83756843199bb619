import { groupBy } from '@/core/group';
import type { Db } from './db';
import { among, rowsOf } from './rows';

export type OpenPoints = { readonly job: string; readonly points: readonly string[] };

/** What is not looked over yet of these jobs, those left out for which it was waived. */
export async function loadOpenPoints(db: Db, jobIds: readonly number[]): Promise<OpenPoints[]> {
  const rows = await rowsOf<{ number: string; words: string }>(
    db('job as j')
      .join('reviewPoint as p', (on) => on.on('p.jobKind', 'j.kind').andOnVal('p.gone', 0))
      .leftJoin('jobReview as r', (on) => on.on('r.jobId', 'j.id').andOn('r.pointId', 'p.id'))
      .whereIn('j.id', among(db, jobIds))
      .whereNull('r.pointId')
      .whereNull('j.reviewWaived')
      .orderBy(['j.number', 'p.place'])
      .select('j.number', 'p.words'),
  );
  return [...groupBy(rows, (r) => r.number)].map(([job, own]) => ({ job, points: own.map((r) => r.words) }));
}
