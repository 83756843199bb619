import { App } from './app';
import { Caller } from './caller';

/** The sample company without its ladder, which awaits three orders; one has bilge pumps with serial numbers. */
export async function pumpsOrdered(): Promise<App> {
  const app = await App.start();
  await app.withoutLadder();
  await orderThePumps(app);
  return app;
}

/** What the newest order line of an item says of it. */
export const newestLine = (app: App, number: string) =>
  app.look((db) =>
    db('orderLine as l')
      .join('item as i', 'i.id', 'l.itemId')
      .where({ 'i.number': number })
      .orderBy('l.id', 'desc')
      .first('l.received', 'l.rejected', 'l.promisedOn'),
  );

/** Sends what the sample company has drafted, and orders the bilge pumps that a job of it wants. */
async function orderThePumps(app: App): Promise<void> {
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
