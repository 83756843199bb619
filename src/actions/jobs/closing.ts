import { LIVE, isClosed, isLive } from '@/core/jobs/states';
import { z } from 'zod';
import { closingFaults } from '@/core/jobs/closing';
import { text } from '@/core/records/fields';
import { loadOpen } from '@/workings/jobs/openWork';
import type { Job } from '@/store/tables';
import { defineAction, found, once, Refused, refuse, sameVersion, type Work } from '../action';
import { jobRef } from '../buying/reserving';

const jobOf = async ({ trx }: Work, jobId: number, version: number): Promise<Job> => {
  const job = found(await trx('job').where({ id: jobId }).first(), 'This job');
  return sameVersion(job, version, `Job ${job.number}`);
};

const save = ({ trx }: Work, { id, version }: Job, change: Partial<Job>) =>
  trx('job')
    .where({ id })
    .update({ ...change, version: version + 1 });

/** Puts a job on hold, with the reason that a rule of buying tells; or lets it go on. */
export const holdJob = defineAction({
  name: 'holdJob',
  right: 'close jobs',
  input: z.object({ ...jobRef, reason: text(200, 'Give a reason for putting it on hold.').nullable() }),
  run: async (work, { jobId, version, reason }) => {
    const job = await jobOf(work, jobId, version);
    if (!isLive(job)) refuse('job.state', `Job ${job.number} isn’t live.`);
    await save(work, job, { onHold: reason });
    await work.audit({
      words: reason === null ? `Resumed job ${job.number}` : `Put job ${job.number} on hold: ${reason}`,
      subjects: [['job', jobId]],
      before: { onHold: job.onHold },
      after: { onHold: reason },
    });
  },
});

/** Closes a job that owes nothing and is owed nothing: nothing is charged to it any more. */
export const closeJob = defineAction({
  name: 'closeJob',
  right: 'close jobs',
  input: z.object({ once, ...jobRef }),
  run: async (work, { jobId, version }) => {
    const job = await jobOf(work, jobId, version);
    if (!isLive(job)) refuse('job.state', `Job ${job.number} isn’t live, so it can’t be closed.`);
    const faults = closingFaults(await loadOpen(work.trx, jobId));
    if (faults.length > 0) throw new Refused(faults);
    await save(work, job, { state: 'complete', onHold: null });
    await work.audit({
      words: `Closed job ${job.number}`,
      subjects: [['job', jobId]],
      before: { state: job.state },
      after: { state: 'complete' },
    });
  },
});

/** Opens a closed job again, for a reason. */
export const reopenJob = defineAction({
  name: 'reopenJob',
  right: 'close jobs',
  input: z.object({ ...jobRef, reason: text(200, 'Give a reason for reopening it.') }),
  run: async (work, { jobId, version, reason }) => {
    const job = await jobOf(work, jobId, version);
    if (!isClosed(job)) refuse('job.state', `Job ${job.number} isn’t closed.`);
    await save(work, job, { state: LIVE });
    await work.audit({
      words: `Reopened job ${job.number}: ${reason}`,
      subjects: [['job', jobId]],
      before: { state: job.state },
      after: { state: LIVE },
    });
  },
});
