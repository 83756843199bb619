import { LIVE } from '@/core/jobs/states';
import type { Db } from './db';
import { tell } from './notices';
import { among, rowsOf } from './rows';

/** Jobs whose last piece came in: from now on their leads see it, and those are mailed who wish to be. */
export async function tellReady(trx: Db, now: string): Promise<void> {
  const jobs = await rowsOf<{ id: number; number: string; name: string; leadId: number; mails: number }>(
    trx('job as j')
      .join('person as p', 'p.id', 'j.leadId')
      .whereRaw('j.ready_on is not null and j.ready_told = 0')
      .where('j.state', LIVE)
      .select('j.id', 'j.number', 'j.name', 'j.leadId', {
        mails: trx.raw('p.mail_ready = 1 and p.active = 1'),
      } as never),
  );
  if (jobs.length === 0) return;
  const ids = jobs.map((j) => j.id);
  await trx('job').whereIn('id', among(trx, ids)).update({ readyTold: 1 });
  for (const { number, name, leadId } of jobs.filter((j) => j.mails === 1))
    await tell(
      trx,
      {
        to: [leadId],
        subject: `Work can start on ${number}: all material is in`,
        body: `All material for job ${number} ${name} is now in. Nothing is outstanding.`,
        path: `/jobs/${number}/buy-list`,
      },
      now,
    );
}
