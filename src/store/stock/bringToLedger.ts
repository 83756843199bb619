import type { Day } from '@/core/calendar/workdays';
import type { Db } from '../connection';
import { post } from '../ledger';
import { marksNow, sealSince } from '../seals';

/** Brings what lies in stores to the ledger, for a file that kept stores beside it; posted on its last day. */
export async function bringToLedger(trx: Db): Promise<void> {
  const last = (await trx('posting').orderBy('id', 'desc').first('personId', 'day', 'at')) as
    { personId: number; day: Day; at: string } | undefined;
  const ids = (
    (await trx.raw(
      'select split_id as id from receipt_split where here <> 0 union select split_id from stock_move where split_id is not null union select id from issue union select id from stock_change',
    )) as { id: number }[]
  ).map((r) => r.id);
  if (last === undefined || ids.length === 0) return;
  const marks = await marksNow(trx);
  const happening = { event: 'Stores on the ledger', document: 'item' as const, documentId: 0, ...last };
  await post(trx, [{ happening, lines: ids }]);
  await sealSince(trx, marks);
}
