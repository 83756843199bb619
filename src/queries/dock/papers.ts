import { rowsOf, rowOf } from '@/store/rows';
import { measured } from '@/core/quantity/units';
import { quantity, type Quantity } from '@/core/quantity/quantity';
import type { Label } from '@/formats/pdf/labels';
import type { ReturnPaper } from '@/formats/pdf/returnNote';
import type { Day } from '@/core/calendar/workdays';
import { loadCompany } from '@/store/company';
import type { Db } from '@/store/db';
import type { Person } from '@/store/people';
import { dayOnPaper } from '@/workings/orders/orderInWords';
import { permit } from '../permit';

/** The note that goes along with goods sent back; undefined for a receipt that is none. */
export async function loadReturnPaper(
  db: Db,
  person: Person,
  receiptId: number,
  today: Day,
): Promise<ReturnPaper | undefined> {
  permit(person, 'see dock');
  const head = await rowOf<{
    number: string;
    day: Day;
    note: string;
    carrier: string;
    order: string;
    supplier: string;
    address: string;
    by: string;
  }>(
    db('receipt as r')
      .join('purchaseOrder as o', 'o.id', 'r.orderId')
      .join('supplier as s', 's.id', 'o.supplierId')
      .join('person as p', 'p.id', 'r.personId')
      .where({ 'r.id': receiptId, 'r.kind': 'sentBack' })
      .first('r.number', 'r.day', 'r.note', 'r.carrier', {
        order: 'o.number',
        supplier: 's.name',
        address: 's.address',
        by: 'p.name',
      }),
  );
  if (head === undefined) return undefined;
  const company = await loadCompany(db);
  const lines = await rowsOf<{
    id: number;
    description: string;
    ourNumber: string;
    theirNumber: string;
    unit: string;
    accepted: Quantity;
    rejected: Quantity;
    givenUp: Quantity;
  }>(
    db('receiptLine as r')
      .join('orderLine as l', 'l.id', 'r.lineId')
      .where({ receiptId })
      .orderBy('l.place')
      .select(
        'l.id',
        'l.description',
        'l.ourNumber',
        'l.theirNumber',
        'l.unit',
        'r.accepted',
        'r.rejected',
        'r.givenUp',
      ),
  );
  const numbers = await rowsOf<{ lineId: number; number: string }>(
    db.raw(
      `select l.line_id, n.number from receipt_lot l join lot n on n.id = l.lot_id where l.receipt_id = ?
     union select s.line_id, n.number from stock_move m join split s on s.id = m.split_id join lot n on n.id = m.lot_id where m.receipt_id = ?
     order by 2`,
      [receiptId, receiptId],
    ),
  );
  return {
    number: head.number,
    order: head.order,
    date: dayOnPaper(head.day, today),
    size: company.paper,
    company,
    supplier: { name: head.supplier, address: head.address },
    reason: head.note,
    carrier: head.carrier,
    by: head.by,
    lines: lines.map((l) => ({
      description: l.description,
      number: [l.ourNumber, l.theirNumber && `Your item no. ${l.theirNumber}`].filter(Boolean).join(' · '),
      quantity: measured(quantity(-l.accepted - l.rejected), l.unit),
      awaited: l.givenUp > 0 ? 'credit note' : 'replacement',
      numbers: numbers
        .filter((n) => n.lineId === l.id)
        .map((n) => n.number)
        .join(', '),
    })),
  };
}

/** Labels for what a receipt brought: one for each job and line, and one for each piece that has a serial number. */
export async function loadLabels(db: Db, person: Person, receiptId: number): Promise<Label[]> {
  permit(person, 'see dock');
  const rows = await rowsOf<{
    id: number;
    description: string;
    ourNumber: string;
    shareUnit: string;
    quantity: Quantity;
    order: string;
    place: string;
    job: string | null;
    tracking: string | null;
  }>(
    db.raw(
      `select s.id, l.description, l.our_number, l.share_unit, r.quantity, o.number as "order", p.name as place, j.number as job, i.tracking
     from receipt_split r join split s on s.id = r.split_id join order_line l on l.id = s.line_id join purchase_order o on o.id = l.order_id
     join delivery_place p on p.id = coalesce(l.place_id, o.place_id) left join job j on j.id = s.job_id left join item i on i.id = l.item_id
     where r.receipt_id = ? and r.quantity > 0 order by l.place, s.place`,
      [receiptId],
    ),
  );
  const pieces = await rowsOf<{ splitId: number; number: string; bin: string | null }>(
    db('stockMove as m')
      .join('lot as n', 'n.id', 'm.lotId')
      .leftJoin('bin as b', 'b.id', 'm.binId')
      .where({ receiptId })
      .select('m.splitId', 'n.number', { bin: 'b.name' }),
  );
  const bins = await rowsOf<{ splitId: number; bin: string }>(
    db('stockMove as m')
      .join('bin as b', 'b.id', 'm.binId')
      .where({ receiptId })
      .select('m.splitId', { bin: 'b.name' }),
  );
  return rows.flatMap((r): Label[] => {
    const bin = bins.find((b) => b.splitId === r.id)?.bin;
    const label: Label = {
      whose: r.job === null ? 'Stores' : `Job ${r.job}`,
      description: r.description,
      code: r.ourNumber || r.order,
      quantity: measured(r.quantity, r.shareUnit),
      order: r.order,
      place: bin === undefined ? r.place : `${r.place}, ${bin}`,
    };
    const own = r.tracking === 'serial' ? pieces.filter((p) => p.splitId === r.id) : [];
    if (own.length === 0) return [label];
    return own.map((p) => ({ ...label, code: p.number, quantity: measured(quantity(10_000), r.shareUnit) }));
  });
}

/** A photo, a delivery note or a certificate as it was kept. */
export async function loadDockPaper(
  db: Db,
  person: Person,
  documentId: number,
): Promise<{ name: string; type: string; bytes: Buffer } | undefined> {
  permit(person, 'see dock');
  return db('document')
    .where({ id: documentId })
    .whereIn('about', ['receipt', 'certificate'])
    .first('name', 'type', 'bytes');
}
