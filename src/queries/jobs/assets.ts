import { rowOf } from '@/store/rows';
import type { Db } from '@/store/db';
import type { Person } from '@/store/people';
import type { Asset } from '@/store/tables';
import { permit } from '../permit';

export type JobAsset = {
  /** What the job works on; null where that is not said. */
  readonly own: Asset | null;
  /** What the customer is known to have, what was worked on last first. */
  readonly known: readonly Asset[];
  readonly version: number;
};

const KNOWN = 50;

/** What of its customer's a job works on, and what else that has. */
export async function loadJobAsset(db: Db, person: Person, jobId: number): Promise<JobAsset> {
  permit(person, 'see jobs');
  const job = await db('job').where({ id: jobId }).first('assetId', 'customerId', 'version');
  const known = await db('asset')
    .where({ customerId: job?.customerId ?? 0 })
    .orderBy('id', 'desc')
    .limit(KNOWN);
  const own = await rowOf<Asset>(
    db('asset')
      .where({ id: job?.assetId ?? 0 })
      .first(),
  );
  return { own: own ?? null, known, version: job?.version ?? 0 };
}
