import { groupBy } from '@/core/group';
import type { Day } from '@/core/calendar/workdays';
import type { Material } from '@/core/needs/material';
import { NONE, type Quantity } from '@/core/quantity/quantity';
import type { Db } from '@/store/db';
import { among, rowsOf } from '@/store/rows';
import type { Person } from '@/store/people';
import { loadComing, type Coming } from '../dock/coming';
import { permit } from '../permit';

export type MissingRow = {
  readonly id: number;
  readonly jobId: number;
  readonly planLineId: number | null;
  readonly itemId: number | null;
  readonly supplierId: number | null;
  readonly description: string;
  readonly open: Quantity;
  readonly drafted: number;
} & Coming;

/** What keeps jobs from starting: their goods that are neither in, nor there for them in stores, nor issued. */
export async function listMissing(db: Db, jobIds: readonly number[]): Promise<MissingRow[]> {
  const rows = await rowsOf<Omit<MissingRow, keyof Coming>>(
    db('need as n')
      .whereIn('n.jobId', among(db, jobIds))
      .whereRaw('n.missing > 0')
      .orderBy('n.id')
      .select(
        'n.id',
        'n.jobId',
        'n.planLineId',
        'n.itemId',
        'n.supplierId',
        'n.description',
        'n.open',
        db.raw(
          "(select count(*) from split s join order_line l on l.id = s.line_id join purchase_order o on o.id = l.order_id where s.need_id = n.id and o.sent_on is null and o.state <> 'cancelled') as drafted",
        ),
      ),
  );
  const coming = await loadComing(
    db,
    rows.map((r) => r.id),
  );
  return rows.map((r) => ({ ...r, ...coming(r.id) }));
}

/** Whether some of a missing line is not on order yet. */
export const isToOrder = (row: Pick<MissingRow, 'open' | 'drafted'>): boolean => row.open > NONE || row.drafted > 0;

/** How the material of jobs stands, by job; jobs that need no goods are left out. */
export async function loadMaterial(db: Db, person: Person, jobIds: readonly number[]): Promise<Map<number, Material>> {
  permit(person, 'see jobs');
  const jobs = await rowsOf<{ id: number; readyOn: Day | null; lines: number }>(
    db('jobSum as m')
      .join('job as j', 'j.id', 'm.jobId')
      .whereIn('m.jobId', among(db, jobIds))
      .where('m.goods', '>', 0)
      .select('j.id', 'j.readyOn', { lines: 'm.goods' }),
  );
  const missing = groupBy(await listMissing(db, jobIds), (r) => r.jobId);
  return new Map(
    jobs.map(({ id, readyOn, lines }) => {
      const rows = missing.get(id) ?? [];
      const ordered = rows.filter((r) => !isToOrder(r));
      const days = ordered.flatMap((r) => r.promisedOn ?? []).sort();
      return [
        id,
        {
          ...{ lines, readyOn, missing: rows.length, toOrder: rows.length - ordered.length },
          undated: ordered.length - days.length,
          promisedOn: days.at(-1) ?? null,
        },
      ];
    }),
  );
}
