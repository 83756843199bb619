import { groupBy } from '@/core/group';
import { isGoods, type ItemKind } from '@/core/items/kinds';
import { shareQuantity } from '@/core/invoices/share';
import { WAITING } from '@/core/invoices/states';
import type { LineKind } from '@/core/orders/kinds';
import { commitmentOf, type OrderState } from '@/core/orders/states';
import { addedInNeedUnit, NONE, type Quantity } from '@/core/quantity/quantity';
import { wantsCertificate } from '@/core/receiving/certificates';
import { exactFactor } from '@/core/quantity/units';
import type { Account } from '@/core/tab/postings';
import { stagesOf, type SplitState } from '@/core/tab/stages';
import type { Db } from '../db';
import { among, whereIn, rowsOf } from '../rows';
import type { SplitRow } from '../tables';
import { keepGone, keepSplits } from './days';
import type { TabKind } from './kind';

type Joined = SplitRow & {
  readonly state: OrderState;
  readonly sentFrom: OrderState | null;
  readonly closedShort: string | null;
  readonly invoicesEnded: string | null;
  readonly lineKind: LineKind;
  readonly shareUnit: string;
  readonly itemKind: ItemKind | null;
  readonly itemUnit: string | null;
  readonly certificate: number;
  readonly itemCertificate: number | null;
  /** Whether a certificate is attached to its line. */
  readonly certified: number;
};

export type ChargedSplit = Account &
  SplitState & {
    readonly id: number;
    readonly needId: number | null;
    readonly lineId: number;
    /** Goods of an item for stores, whose cost lies there. */
    readonly stored: boolean;
    /** Its certificate has to come with it, and is not attached. */
    readonly uncertified: boolean;
  };

const isStored = ({ jobId, lineKind, shareUnit, itemKind, itemUnit }: Joined): boolean =>
  jobId === null &&
  lineKind === 'goods' &&
  itemKind !== null &&
  isGoods(itemKind) &&
  exactFactor(itemUnit ?? '', shareUnit) !== undefined;

/** A certificate is attached to the line l. */
const CERTIFIED =
  "exists (select 1 from document d where d.about = 'certificate' and d.about_id = l.id and d.gone_on is null)";

/** The present state of splits, found by their own ids or by the needs they cover. */
export async function loadSplitStates(
  db: Db,
  by: 'id' | 'needId',
  ids: readonly number[],
  /** Whether what waiting invoices claim is wanted of lines that have not ended, too. */
  { claims: all = false } = {},
): Promise<ChargedSplit[]> {
  const rows = await rowsOf<Joined>(
    db('split as s')
      .join('orderLine as l', 'l.id', 's.lineId')
      .join('purchaseOrder as o', 'o.id', 'l.orderId')
      .leftJoin('item as i', 'i.id', 'l.itemId')
      .whereIn(`s.${by}`, among(db, ids))
      .select('s.*', 'o.state', 'o.sentFrom', 'l.closedShort', 'l.invoicesEnded', 'l.shareUnit', 'l.certificate', {
        lineKind: 'l.kind',
        itemKind: 'i.kind',
        itemUnit: 'i.unit',
        itemCertificate: 'i.certificate',
        certified: db.raw(CERTIFIED),
      } as never),
  );
  const ended = rows.filter((r) => all || r.closedShort !== null || r.invoicesEnded !== null).map((r) => r.lineId);
  const claims = await loadClaims(db, ended);
  return rows.map((row) => ({
    id: row.id,
    needId: row.needId,
    lineId: row.lineId,
    jobId: row.jobId,
    costCodeId: row.costCodeId,
    ordered: row.quantity,
    value: row.value,
    received: row.received,
    givenUp: row.givenUp,
    invoiced: row.invoiced,
    invoicedAmount: row.invoicedAmount,
    claimed: claims.get(row.id) ?? NONE,
    commitment: commitmentOf(row, { closedShort: row.closedShort !== null, invoicesEnded: row.invoicesEnded !== null }),
    stored: isStored(row),
    uncertified: row.certified === 0 && wantsCertificate(row.lineKind, row, { certificate: row.itemCertificate ?? 0 }),
  }));
}

/** What waiting invoices claim of each split of these lines; only lines that have ended need to know. */
async function loadClaims(db: Db, lineIds: readonly number[]): Promise<Map<number, Quantity>> {
  const claims = new Map<number, Quantity>();
  if (lineIds.length === 0) return claims;
  const waiting = await rowsOf<{
    id: number;
    kind: LineKind;
    invoiced: Quantity;
    factorMany: number;
    factorOne: number;
    claimed: Quantity;
  }>(
    db('invoiceLine as b')
      .join('invoice as i', 'i.id', 'b.invoiceId')
      .join('orderLine as l', 'l.id', 'b.lineId')
      .whereIn('b.lineId', among(db, lineIds))
      .whereIn('i.state', WAITING)
      .groupBy('l.id')
      .select('l.id', 'l.kind', 'l.invoiced', 'l.factorMany', 'l.factorOne')
      .sum({ claimed: 'b.quantity' }),
  );
  const rows = await whereIn(
    db,
    'split',
    'lineId',
    waiting.map((w) => w.id),
  );
  const splits = groupBy(
    rows.sort((a, b) => a.place - b.place),
    (s) => s.lineId,
  );
  for (const { id, kind, invoiced, factorMany, factorOne, claimed } of waiting) {
    const own = splits.get(id) ?? [];
    const share = addedInNeedUnit(invoiced, claimed, { many: factorMany, one: factorOne });
    const parts = shareQuantity(
      own.map((s) => ({ splitId: s.id, ordered: s.quantity, received: s.received, invoiced: s.invoiced })),
      share,
    );
    own.forEach((s, k) => claims.set(s.id, kind === 'charge' ? claimed : (parts[k] ?? NONE)));
  }
  return claims;
}

const summed = (what: string, of: string) => `coalesce((select sum(${what}) from ${of}), 0)`;

/** Each split against its receipts and matched invoices, and each line against its splits. */
const DISAGREEING = `
  select s.id as line, 'receipts' as what from split s where s.received <> ${summed('r.quantity', 'receipt_split r where r.split_id = s.id')}
    or s.given_up <> ${summed('r.given_up', 'receipt_split r where r.split_id = s.id')}
  union all select min(s.id), 'what is held, rejected or given up of the line' from order_line l join split s on s.line_id = l.id
    group by l.id having l.held <> ${summed('r.held', 'receipt_line r where r.line_id = l.id')}
      or l.rejected <> ${summed('r.rejected', 'receipt_line r where r.line_id = l.id')} or l.given_up <> ${summed('r.given_up', 'receipt_line r where r.line_id = l.id')}
  union all select s.id, 'invoiced quantity' from split s where s.invoiced <> ${summed('b.quantity', 'invoice_split b where b.split_id = s.id')}
  union all select s.id, 'invoiced amount' from split s where s.invoiced_amount <> ${summed('b.amount', 'invoice_split b where b.split_id = s.id')}
  union all select min(s.id), 'parts of the line' from order_line l join split s on s.line_id = l.id where l.kind <> 'charge'
    group by l.id having abs(sum(s.quantity) * l.factor_one - l.quantity * l.factor_many) > l.factor_one
  union all select min(s.id), 'receipts of the line' from order_line l join split s on s.line_id = l.id
    group by l.id having l.received <> ${summed('r.accepted', 'receipt_line r where r.line_id = l.id')}
      or (l.kind <> 'charge' and 2 * abs(sum(s.received) * l.factor_one - l.received * l.factor_many) > l.factor_one)
  union all select min(s.id), 'invoices of the line' from order_line l join split s on s.line_id = l.id
    group by l.id having l.invoiced <> ${summed('b.quantity', "invoice_line b join invoice i on i.id = b.invoice_id where b.line_id = l.id and i.state = 'matched'")}
      or (l.kind <> 'charge' and 2 * abs(sum(s.invoiced) * l.factor_one - l.invoiced * l.factor_many) > l.factor_one)`;

/** The parts of order lines. */
export const splits: TabKind = {
  kind: 'split',
  load: async (db, ids) =>
    new Map(
      (await loadSplitStates(db, 'id', ids)).map((s) => [
        s.id,
        [
          {
            account: { jobId: s.jobId, costCodeId: s.costCodeId },
            amounts: stagesOf(s, s.stored),
          },
        ],
      ]),
    ),
  moves: async (db, ids) =>
    (await whereIn(db, 'split', 'id', ids)).flatMap((s) => (s.needId === null ? [] : [{ by: s.id, id: s.needId }])),
  datedBack: true,
  refresh: async (trx, ids, { today: day }) => {
    const states = await loadSplitStates(trx, 'id', ids);
    await keepSplits(
      trx,
      states.map((s) => ({ ...s, stored: s.stored ? 1 : 0, day })),
    );
    const there = new Set(states.map((s) => s.id));
    await keepGone(
      trx,
      ids.filter((id) => !there.has(id)),
      day,
    );
  },
  disagreements: (db) => db.raw(DISAGREEING),
};
