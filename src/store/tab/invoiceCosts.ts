import { NOTHING } from '@/core/tab/stages';
import { whereIn } from '../rows';
import type { TabKind } from './kind';

/** What matched invoices cost beside their order lines: what was not ordered, and differences passed on the whole invoice. */
export const invoiceCosts: TabKind = {
  kind: 'invoiceCost',
  load: async (db, ids) =>
    new Map(
      (await whereIn(db, 'invoiceCost', 'id', ids)).map(({ id, jobId, costCodeId, amount }) => [
        id,
        [{ account: { jobId, costCodeId }, amounts: { ...NOTHING, actual: amount } }],
      ]),
    ),
  disagreements: (db) =>
    db.raw(
      "select c.id as line, 'an invoice that is not matched' as what from invoice_cost c join invoice i on i.id = c.invoice_id where i.state <> 'matched'",
    ),
};
