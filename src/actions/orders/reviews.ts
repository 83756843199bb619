import { JOB_KINDS } from '@/core/jobs/states';
import { z } from 'zod';
import { text } from '@/core/records/fields';
import { refusal } from '@/core/result';
import { together } from '@/core/words';
import type { Db } from '@/store/db';
import { loadOpenPoints } from '@/store/reviews';
import { insertMany } from '@/store/rows';
import { defineAction, found, Refused, refuse, type Work } from '../action';
import { checkLive } from '../jobs/jobs';

/** Nothing is ordered for a job before what the company looks over is ticked, or waived with a reason. */
export async function checkReviewed(trx: Db, jobIds: readonly number[]): Promise<void> {
  for (const { job, points } of await loadOpenPoints(trx, jobIds))
    throw new Refused([
      refusal(
        'job.review',
        `Pre-start checks of job ${job} are open: ${together(points)}. Tick them on its plan, or waive them with a reason.`,
      ),
    ]);
}

/** What may be ordered for: live jobs that are looked over. */
export async function checkOrderable(trx: Db, jobIds: readonly number[]): Promise<void> {
  await checkLive(trx, jobIds);
  await checkReviewed(trx, jobIds);
}

const MOST_POINTS = 20;

/** Says what is looked over before work starts on jobs of a kind; points that stay keep their ticks. */
export const saveReviewPoints = defineAction({
  name: 'saveReviewPoints',
  right: 'manage people',
  input: z.object({
    kind: z.enum(JOB_KINDS),
    points: z
      .array(text(120, 'Enter what to check.'))
      .max(MOST_POINTS, `No more than ${MOST_POINTS} checks.`)
      .refine((all) => new Set(all).size === all.length, 'The same check appears twice.'),
  }),
  run: async ({ trx, audit }, { kind, points }) => {
    const before = await trx('reviewPoint').where({ jobKind: kind, gone: 0 }).orderBy('place');
    const known = new Map((await trx('reviewPoint').where({ jobKind: kind })).map((p) => [p.words, p.id]));
    await trx('reviewPoint').where({ jobKind: kind }).update({ gone: 1 });
    for (const [place, words] of points.entries()) {
      const id = known.get(words);
      if (id !== undefined) await trx('reviewPoint').where({ id }).update({ place, gone: 0 });
    }
    const fresh = points.flatMap((words, place) => (known.has(words) ? [] : [{ jobKind: kind, place, words }]));
    await insertMany(trx, 'reviewPoint', fresh);
    await audit({
      words: `Changed pre-start checks of ${kind} jobs`,
      subjects: [['company', 1]],
      before: { points: before.map((p) => p.words) },
      after: { points },
    });
  },
});

const jobOf = async ({ trx }: Work, jobId: number) =>
  found(await trx('job').where({ id: jobId }).first('id', 'kind', 'reviewWaived'), 'This job');

/** Ticks a point of a job as looked over, by name and day, or takes the tick off. */
export const tickPoint = defineAction({
  name: 'tickPoint',
  right: 'win quotes',
  input: z.object({ jobId: z.number().int(), pointId: z.number().int(), ticked: z.boolean() }),
  run: async (work, { jobId, pointId, ticked }) => {
    const { trx, actor, today, audit } = work;
    const job = await jobOf(work, jobId);
    const point = found(await trx('reviewPoint').where({ id: pointId, gone: 0 }).first(), 'This check');
    if (point.jobKind !== job.kind) refuse('review.kind', 'This check belongs to another job type.');
    await trx('jobReview').where({ jobId, pointId }).delete();
    if (ticked) await trx('jobReview').insert({ jobId, pointId, personId: actor.id, day: today });
    await audit({
      words: `${ticked ? 'Ticked' : 'Unticked'} pre-start check: ${point.words}`,
      subjects: [['job', jobId]],
      after: { pointId, ticked },
    });
  },
});

/** Lets a job be ordered for with points open, for a reason; or asks for them again. */
export const waiveReview = defineAction({
  name: 'waiveReview',
  right: 'win quotes',
  input: z.object({ jobId: z.number().int(), reason: text(200, 'Give a reason for waiving the checks.').nullable() }),
  run: async (work, { jobId, reason }) => {
    const { trx, actor, audit } = work;
    const job = await jobOf(work, jobId);
    await trx('job')
      .where({ id: jobId })
      .update({ reviewWaived: reason, reviewWaivedBy: reason === null ? null : actor.id });
    await audit({
      words: reason === null ? 'Reinstated pre-start checks' : `Waived pre-start checks: ${reason}`,
      subjects: [['job', jobId]],
      before: { reviewWaived: job.reviewWaived },
      after: { reviewWaived: reason },
    });
  },
});
