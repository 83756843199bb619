import { insertOne } from '@/store/rows';
import { receive } from '@/actions/dock/receiving';
import { ONE, type Quantity } from '@/core/quantity/quantity';
import type { Db } from '@/store/db';
import type { StoredOrder } from '@/store/orders';
import { q, TestCompany } from './company';

type Arrival = Parameters<typeof receive>[1]['arrivals'][number];

/** Serial numbers of one piece each. */
export const numbered = (...numbers: readonly string[]) => numbers.map((number) => ({ number, quantity: q(1) }));

/** What lies at each spot, by owner (0 for the company), bin and lot, in units of the item. */
export const spotsIn = async (
  db: Db,
): Promise<[jobId: number, bin: string | null, lot: string | null, many: number][]> =>
  (
    (await db('stockSpot as s')
      .leftJoin('bin as b', 'b.id', 's.binId')
      .leftJoin('lot as l', 'l.id', 's.lotId')
      .where('s.quantity', '>', 0)
      .orderBy(['s.jobId', 'b.name', 'l.number'])
      .select('s.jobId', 's.quantity', { bin: 'b.name', lot: 'l.number' })) as {
      jobId: number;
      bin: string | null;
      lot: string | null;
      quantity: Quantity;
    }[]
  ).map((s) => [s.jobId, s.bin, s.lot, s.quantity / ONE]);

/** Orders of one part that come to the dock of a company, and what became of them. */
function atDock(yard: TestCompany) {
  const tube = yard.ids.items[0];
  const need = (n: number, job: 0 | 1 = 0, more = {}) =>
    yard.need({
      item: tube,
      unit: 'MTR',
      quantity: n,
      price: 8,
      description: 'Tube',
      job,
      neededOn: '2026-06-10',
      ...more,
    });
  const order = async (...picks: readonly { needId: number; buy: Quantity }[]) => yard.send(await yard.draft(picks));
  const ordered = async (n: number) => {
    const needId = await need(n);
    return { needId, order: await order({ needId, buy: q(n) }) };
  };
  const take = async (of: StoredOrder, n: number, more: Partial<Arrival> = {}, head = {}) => {
    const { version, lines } = await yard.order(of.id);
    const arrival = { lineId: lines[0]?.id ?? 0, arrives: q(n), keepOver: false, ...more };
    const ref = { once: yard.once(), orderId: of.id, version, note: '', ...head };
    return receive(await yard.as('storekeeper'), { ...ref, arrivals: [arrival] });
  };
  const line = async (of: StoredOrder) => (await yard.order(of.id)).lines[0] as StoredOrder['lines'][number];
  const reason = async (does: string) =>
    (
      await yard
        .db('reason')
        .where({ does: does as never })
        .first('id')
    )?.id ?? 0;
  const openOf = async (id: number) => yard.db('need').where({ id }).first('open', 'missing');
  const pile = async (jobId: number) => yard.db('stockSum').where({ itemId: tube, jobId }).first('quantity', 'value');
  /** Every piece of the tube has a number from now on, and it is counted in pieces. */
  const serial = async (numberPattern = '') => {
    await yard.db('item').where({ id: tube }).update({ tracking: 'serial', unit: 'C62', numberPattern });
  };
  const pieces = (n: number, job: 0 | 1 = 0) => need(n, job, { unit: 'C62' });

  /** A place that is none of ours. */
  const site = () => insertOne(yard.db, 'deliveryPlace', { name: 'Slip', address: 'Slip 2', kind: 'site' });
  return { tube, need, order, ordered, take, line, reason, openOf, pile, serial, pieces, site };
}

export type Dock = ReturnType<typeof atDock>;

/** A company whose suppliers ask for no carriage, with its dock. */
export async function openDock() {
  const yard = await TestCompany.open();
  await yard.db('supplier').update({ carriage: 0 as never });
  return { yard, dock: atDock(yard) };
}
