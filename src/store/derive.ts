import { rowsOf, rowOf } from './rows';
import type { Day } from '@/core/calendar/workdays';
import type { Db } from './db';
import { beginDueDays } from './dueDays';
import { post } from './ledger';
import { marksNow, NOTHING_WRITTEN, sealSince } from './seals';
import { beginDays, beginReadiness, refreshNeeds } from './tab/needs';

/**
 * Works out what is kept beside the documents of a file whose schema was just brought to today's: once, by today's code,
 * after every step of the schema. A file older than a step that began to keep something gets it here.
 *
 * @param isNew whether the file did not have this step of the schema before
 */
export async function derive(trx: Db, isNew: (step: string) => boolean): Promise<void> {
  const marks = isNew('011-record') ? NOTHING_WRITTEN : await marksNow(trx);
  if (isNew('013-stock')) {
    await bringStoresToLedger(trx);
    await beginReadiness(trx);
  }
  await refreshNeeds(trx);
  if (isNew('014-due')) await beginDueDays(trx);
  if (isNew('017-days')) await beginDays(trx);
  await sealSince(trx, marks);
}

/** Brings what lies in stores to the ledger, for a file that kept stores beside it; posted on its last day. */
async function bringStoresToLedger(trx: Db): Promise<void> {
  const last = await rowOf<{ personId: number; day: Day; at: string }>(
    trx('posting').orderBy('id', 'desc').first('personId', 'day', 'at'),
  );
  const lines = (
    await rowsOf<{ id: number }>(
      trx.raw(
        'select split_id as id from receipt_split where here <> 0 union select split_id from stock_move where split_id is not null union select id from issue union select id from stock_change',
      ),
    )
  ).map((r) => r.id);
  if (last === undefined || lines.length === 0) return;
  await post(trx, [{ happening: { event: 'Stores on the ledger', document: 'item', documentId: 0, ...last }, lines }]);
}
