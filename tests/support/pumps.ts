import type { App } from './app';
import { Caller } from './caller';

/** Sends what the sample company has drafted, and orders the bilge pumps that a job of it wants. */
export async function orderThePumps(app: App): Promise<void> {
  const mina = await Caller.as(app.base, 'mina');
  const need = await app.look((db) =>
    db('need as n').join('item as i', 'i.id', 'n.itemId').where({ 'i.number': 'PU-BG-24' }).first('n.id', 'n.open'),
  );
  const picks = [{ needId: need?.id, buy: need?.open }];
  expect(await mina.act('draftOrders', { once: 'draft-the-pumps', picks })).toBe('done');
  const drafts = await app.look((db) =>
    db('purchaseOrder').whereIn('number', ['K26-0023', 'K26-0026']).select('id', 'version'),
  );
  for (const { id, version } of drafts)
    expect(await mina.act('markSentByHand', { once: `send-order-${id}`, orderId: id, version })).toBe('done');
}
