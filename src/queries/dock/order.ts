import { isGoodsLine } from '@/core/orders/kinds';
import { wantsCertificate } from '@/core/receiving/certificates';
import type { Day } from '@/core/calendar/workdays';
import type { Tracking } from '@/core/items/kinds';
import { dueOf, progressOf, type OrderState } from '@/core/orders/states';
import type { Factor, Quantity } from '@/core/quantity/quantity';
import { lineToItem } from '@/core/receiving/itemUnit';
import type { ReasonDoes } from '@/core/receiving/reasons';
import type { Db } from '@/store/db';
import { lastRests } from '@/store/docked';
import { findOrder, type StoredLine } from '@/store/orders';
import { among, whereIn, rowsOf, rowOf } from '@/store/rows';
import type { Person } from '@/store/people';
import type { Bin, Item, ReceiptKind } from '@/store/tables';
import { permit } from '../permit';

export type DockLine = {
  readonly id: number;
  readonly description: string;
  readonly ourNumber: string;
  readonly theirNumber: string;
  readonly unit: string;
  readonly ordered: Quantity;
  readonly received: Quantity;
  /** What is still to come. */
  readonly due: Quantity;
  /** Here and not released; rejected, and lying here. */
  readonly held: Quantity;
  readonly rejected: Quantity;
  /** Nothing more is expected of it. */
  readonly closed: boolean;
  readonly wantedOn: Day | null;
  readonly promisedOn: Day | null;
  readonly itemId: number | null;
  readonly tracking: Tracking;
  readonly numberPattern: string;
  /** Whether what comes waits for its inspection. */
  readonly inspected: boolean;
  /** What this line alone is marked for, and what its item always is. */
  readonly marks: Readonly<Record<'inspected' | 'certificate', boolean>> & {
    readonly byItem: Readonly<Record<'inspected' | 'certificate', boolean>>;
  };
  /** From its unit to the item's, which numbers are counted in. */
  readonly toItem: Factor;
  /** Numbers of what is held, and of what was rejected. */
  readonly heldNumbers: readonly string[];
  readonly rejectedNumbers: readonly string[];
  /** Where it goes, and whether that is a place of ours. */
  readonly place: string;
  readonly placeId: number;
  readonly own: boolean;
  readonly for: readonly { readonly job: string | null; readonly ordered: Quantity; readonly received: Quantity }[];
  /** Its certificate: not asked for, wanted, or here. */
  readonly certificate: 'none' | 'wanted' | 'here';
  readonly certificates: readonly DockPaper[];
  /** What was said last of what did not come. */
  readonly rest: string | null;
};

export type DockPaper = { readonly id: number; readonly name: string };

export type DockReceipt = {
  readonly id: number;
  readonly number: string;
  readonly kind: ReceiptKind;
  readonly day: Day;
  readonly note: string;
  readonly carrier: string;
  readonly packages: number | null;
  /** Where it came to, when that is another place than its order says. */
  readonly placeId: number | null;
  readonly who: string;
  /** Taken back, or what took another one back. */
  readonly back: number;
  readonly papers: readonly DockPaper[];
  readonly lines: readonly {
    readonly lineId: number;
    readonly accepted: Quantity;
    readonly held: Quantity;
    readonly rejected: Quantity;
    readonly givenUp: Quantity;
    readonly reason: string | null;
    /** The bin that all of it went to; null for none, and for more than one. */
    readonly binId: number | null;
  }[];
};

export type ReasonChoice = { readonly id: number; readonly does: ReasonDoes; readonly name: string };

export type DockOrder = {
  readonly id: number;
  readonly version: number;
  readonly number: string;
  readonly supplier: string;
  readonly state: OrderState;
  readonly wantedOn: Day | null;
  readonly carrier: string;
  readonly lines: readonly DockLine[];
  readonly receipts: readonly DockReceipt[];
  readonly reasons: readonly ReasonChoice[];
  readonly bins: readonly Pick<Bin, 'id' | 'placeId' | 'name'>[];
};

/** Why a delivery may not be as ordered, as it is offered. */
export async function loadReasons(db: Db, person: Person): Promise<readonly ReasonChoice[]> {
  permit(person, 'see dock');
  return db('reason').where({ gone: 0 }).orderBy(['does', 'name']).select('id', 'does', 'name');
}

/** An order as the dock sees it: without a price. */
export async function loadDockOrder(db: Db, person: Person, number: string): Promise<DockOrder | undefined> {
  permit(person, 'see dock');
  const head = await rowOf<Pick<DockOrder, 'id' | 'version' | 'state' | 'wantedOn' | 'carrier' | 'supplier'>>(
    db('purchaseOrder as o')
      .join('supplier as s', 's.id', 'o.supplierId')
      .where({ number })
      .first('o.id', 'o.version', 'o.state', 'o.wantedOn', 'o.carrier', { supplier: 's.name' }),
  );
  const order = head && (await findOrder(db, head.id));
  if (head === undefined || order === undefined) return undefined;
  const goods = order.lines.filter((l) => isGoodsLine(l));
  const ids = goods.map((l) => l.id);
  const items = await byId(
    whereIn(
      db,
      'item',
      'id',
      goods.flatMap((l) => l.itemId ?? []),
    ),
  );
  const jobs = await byId(
    whereIn(
      db,
      'job',
      'id',
      goods.flatMap((l) => l.splits.flatMap((s) => s.jobId ?? [])),
    ),
  );
  const places = await byId(
    whereIn(
      db,
      'deliveryPlace',
      'id',
      goods.map((l) => l.placeId ?? order.placeId),
    ),
  );
  const [numbers, rests] = [await numbersAtDoor(db, ids), await lastRests(db, ids)];
  const certificates = await papersOf(db, 'certificate', ids);
  return {
    ...head,
    number,
    receipts: await receiptsOf(db, head.id),
    reasons: await loadReasons(db, person),
    bins: (await db('bin').where({ closed: 0 }).orderBy('name').select('id', 'placeId', 'name')) as DockOrder['bins'],
    lines: goods.map((l) => {
      const item = items.get(l.itemId ?? 0);
      const placeId = l.placeId ?? order.placeId;
      const place = places.get(placeId);
      const of = (kind: 'held' | 'rejected') =>
        numbers.filter((n) => n.lineId === l.id && n[kind] > 0).map((n) => n.number);
      return {
        id: l.id,
        description: l.description,
        ourNumber: l.ourNumber,
        theirNumber: l.theirNumber,
        unit: l.unit,
        ordered: l.quantity,
        received: l.received,
        due: dueOf(progressOf(l)),
        held: l.held,
        rejected: l.rejected,
        closed: l.closedShort !== null || l.invoicesEnded !== null,
        wantedOn: l.wantedOn,
        promisedOn: l.promisedOn,
        itemId: l.itemId,
        tracking: item?.tracking ?? 'none',
        numberPattern: item?.numberPattern ?? '',
        inspected: l.inspected === 1 || item?.inspected === 1,
        marks: {
          ...{ inspected: l.inspected === 1, certificate: l.certificate === 1 },
          byItem: { inspected: item?.inspected === 1, certificate: item?.certificate === 1 },
        },
        toItem: lineToItem(l.factor, l.shareUnit, item?.unit),
        heldNumbers: of('held'),
        rejectedNumbers: of('rejected'),
        place: place?.name ?? '',
        placeId,
        own: place?.kind === 'own' || l.splits.some((s) => s.jobId === null),
        for: l.splits.map((s) => ({
          job: s.jobId === null ? null : (jobs.get(s.jobId)?.number ?? ''),
          ordered: s.quantity,
          received: s.received,
        })),
        certificate: certificateOf(
          l,
          item,
          certificates.some((c) => c.aboutId === l.id),
        ),
        certificates: certificates.filter((c) => c.aboutId === l.id),
        rest: rests.get(l.id)?.name ?? null,
      };
    }),
  };
}

const byId = async <T extends { readonly id: number }>(rows: Promise<readonly T[]>): Promise<Map<number, T>> =>
  new Map((await rows).map((r) => [r.id, r]));

const certificateOf = (line: StoredLine, item: Item | undefined, here: boolean): DockLine['certificate'] =>
  here ? 'here' : wantsCertificate(line.kind, line, item) ? 'wanted' : 'none';

const numbersAtDoor = async (db: Db, lineIds: readonly number[]) =>
  await rowsOf<{
    lineId: number;
    number: string;
    held: number;
    rejected: number;
  }>(
    db('receiptLot as r')
      .join('lot as l', 'l.id', 'r.lotId')
      .whereIn('r.lineId', among(db, lineIds))
      .groupBy('r.lineId', 'l.id')
      .orderBy('l.number')
      .select('r.lineId', 'l.number')
      .sum({ held: 'r.held', rejected: 'r.rejected' }),
  );

const papersOf = (db: Db, about: 'receipt' | 'certificate', ids: readonly number[]) =>
  db('document')
    .where({ about })
    .whereIn('aboutId', among(db, ids))
    .whereNull('goneOn')
    .orderBy('id')
    .select('id', 'aboutId', 'name');

async function receiptsOf(db: Db, orderId: number): Promise<DockReceipt[]> {
  const receipts = await rowsOf<Omit<DockReceipt, 'lines' | 'papers'>>(
    db('receipt as r')
      .join('person as p', 'p.id', 'r.personId')
      .where({ orderId })
      .orderBy('r.id', 'desc')
      .select(
        'r.id',
        'r.number',
        'r.kind',
        'r.day',
        'r.note',
        'r.carrier',
        'r.packages',
        'r.placeId',
        { who: 'p.name' },
        db.raw('r.reverses_id is not null or exists (select 1 from receipt b where b.reverses_id = r.id) as back'),
      ),
  );
  const ids = receipts.map((r) => r.id);
  const papers = await papersOf(db, 'receipt', ids);
  const lines = await rowsOf<DockReceipt['lines'][number] & { receiptId: number }>(
    db('receiptLine as l')
      .leftJoin('reason as w', 'w.id', 'l.reasonId')
      .whereIn('l.receiptId', among(db, ids))
      .select(
        ...(['l.receiptId', 'l.lineId', 'l.accepted', 'l.held', 'l.rejected', 'l.givenUp'] as const),
        { reason: 'w.name' },
        db.raw(`(select case when count(distinct ifnull(m.bin_id, 0)) = 1 then max(m.bin_id) end
        from stock_move m join split s on s.id = m.split_id
        where m.receipt_id = l.receipt_id and s.line_id = l.line_id and m.quantity > 0) as bin_id`),
      ),
  );
  return receipts.map((r) => ({
    ...r,
    papers: papers.filter((p) => p.aboutId === r.id),
    lines: lines.filter((l) => l.receiptId === r.id),
  }));
}
