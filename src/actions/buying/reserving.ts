import { isLive } from '@/core/jobs/states';
import { z } from 'zod';
import { PLANNING, PLANNING_NAMES } from '@/core/planning/netting';
import { counted } from '@/core/words';
import { groupBy } from '@/core/group';
import { dropCounted, loadShortfall, movedNeeds, needsOfJob, needsToPlan, reservationsOf } from '@/store/planning';
import { among, whereIn } from '@/store/rows';
import { addClaims } from '@/store/stock/claims';
import type { Job } from '@/store/tables';
import { defineAction, found, once, refuse, sameVersion, type Work } from '../action';

export const jobRef = { jobId: z.number().int(), version: z.number().int() };

/** A live job that nobody else planned since it was opened; what is planned of it next stands over it. */
export async function planOf({ trx }: Work, jobId: number, version: number): Promise<Job> {
  const job = sameVersion(found(await trx('job').where({ id: jobId }).first(), 'This job'), version, 'This job’s plan');
  if (!isLive(job)) refuse('job.state', `Job ${job.number} isn’t live. Mark its quote won to start buying.`);
  await trx('job')
    .where({ id: jobId })
    .update({ version: version + 1 });
  return job;
}

/** Counts anew on what stores and incoming orders have for needs of a job that buys the shortfall. */
export async function countOn(
  { trx, today, touch }: Work,
  job: Pick<Job, 'id' | 'planning'>,
  needIds: readonly number[],
) {
  const { covers } = job.planning === 'shortfall' ? await loadShortfall(trx, needIds, today) : { covers: [] };
  await dropCounted(trx, needIds);
  await addClaims(trx, reservationsOf(covers, false));
  touch('Planned', 'job', job.id, needIds);
}

/** Plans a job in full, or its shortfall: what stores and incoming orders do not cover in time. */
export const choosePlanning = defineAction({
  name: 'choosePlanning',
  right: 'change buy lists',
  input: z.object({ ...jobRef, planning: z.enum(PLANNING) }),
  run: async (work, { jobId, version, planning }) => {
    const { trx, audit } = work;
    const job = await planOf(work, jobId, version);
    await trx('job').where({ id: jobId }).update({ planning });
    await countOn(work, { id: jobId, planning }, await needsOfJob(trx, jobId));
    await audit({
      words: `Replanned job ${job.number}: ${PLANNING_NAMES[planning]}`,
      subjects: [['job', jobId]],
      before: { planning: job.planning },
      after: { planning },
    });
  },
});

/** Plans every live job anew that buys its shortfall: stock and deliveries go to what is needed first, whichever job's. */
export const planAll = defineAction({
  name: 'planAll',
  right: 'change buy lists',
  input: z.object({ once }),
  run: async ({ trx, today, audit, touch }) => {
    const needIds = await needsToPlan(trx);
    const { covers } = await loadShortfall(trx, needIds, today);
    const fresh = reservationsOf(covers, false);
    const moved = new Set(await movedNeeds(trx, needIds, fresh));
    await dropCounted(trx, [...moved]);
    await addClaims(
      trx,
      fresh.filter((r) => moved.has(r.needId)),
    );
    const needs = await whereIn(trx, 'need', 'id', [...moved]);
    const jobs = groupBy(needs, (n) => n.jobId);
    for (const [jobId, own] of jobs)
      touch(
        'Planned',
        'job',
        jobId,
        own.map((n) => n.id),
      );
    await audit({
      words: `Replanned all jobs: ${counted(moved.size, 'line')} on ${counted(jobs.size, 'job')} changed`,
      subjects: [...jobs.keys()].map((id) => ['job', id] as const),
      after: { lines: needIds.length, moved: moved.size },
    });
    return { lines: needIds.length, moved: moved.size, jobs: jobs.size };
  },
});

/** Reserves for lines to buy what is there and coming: firmly, so that no other plan counts on it. */
export const reserve = defineAction({
  name: 'reserve',
  right: 'reserve stock',
  input: z.object({ once, jobId: z.number().int(), needIds: z.array(z.number().int()).min(1).max(1000) }),
  run: async ({ trx, today, audit, touch }, { jobId, needIds }) => {
    const needs = await whereIn(trx, 'need', 'id', needIds);
    if (needs.length < new Set(needIds).size)
      refuse('missing', 'A line of the buy list has been removed. Refresh the page and select again.');
    if (needs.some((n) => n.jobId !== jobId)) refuse('need.job', 'A line is on another job’s buy list.');
    const { covers } = await loadShortfall(trx, needIds, today);
    if (covers.length === 0) refuse('stores.none', 'No free stock, and none due in time. Order it instead.');
    await dropCounted(trx, needIds);
    await addClaims(trx, reservationsOf(covers, true));
    touch('Reserved', 'job', jobId, needIds);
    const ids = [...new Set(covers.map((c) => c.needId))];
    await audit({
      words: `Reserved stock for ${counted(ids.length, 'line')}`,
      subjects: [['job', jobId], ...ids.map((id) => ['need', id] as const)],
      after: covers,
    });
    return { lines: ids.length };
  },
});

/** Lets go what is reserved for lines to buy, or counted on for them. */
export const unreserve = defineAction({
  name: 'unreserve',
  right: 'reserve stock',
  input: z.object({ jobId: z.number().int(), needIds: z.array(z.number().int()).min(1).max(1000) }),
  run: async ({ trx, audit, touch }, { jobId, needIds }) => {
    const needs = await whereIn(trx, 'need', 'id', needIds);
    if (needs.some((n) => n.jobId !== jobId)) refuse('need.job', 'A line is on another job’s buy list.');
    const reserved = await whereIn(trx, 'reservation', 'needId', needIds);
    if (reserved.length === 0) refuse('stores.none', 'Nothing is reserved for these lines.');
    await trx('reservation').whereIn('needId', among(trx, needIds)).delete();
    touch('Unreserved', 'job', jobId, needIds);
    const ids = [...new Set(reserved.map((h) => h.needId))];
    await audit({
      words: `Unreserved stock for ${counted(ids.length, 'line')}`,
      subjects: [['job', jobId], ...ids.map((id) => ['need', id] as const)],
      before: reserved,
    });
  },
});
