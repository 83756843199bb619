import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import type { UnitPrice } from '@/core/money/money';
import { findUnproven } from '@/store/ledger';
import { findOrder, type StoredOrder } from '@/store/orders';
import { App } from '../support/app';
import { Caller } from '../support/caller';
import { firstLine, orderInput } from '../support/typed';
import { tried } from '../support/proof';

let app: App;
beforeAll(async () => {
  app = await App.own();
  await app.withoutLadder();
});
afterAll(() => app.stop());

describe('a price list, killed while it is taken', () => {
  it('leaves a price list taken whole or not at all, and takes it once', async () => {
    const parts = await app.look((db) =>
      db('supplierPart')
        .join('item', 'item.id', 'supplierPart.itemId')
        .where('supplierPart.supplierId', 1)
        .select('item.number'),
    );
    const list = (price: number) =>
      ['Our number,Price', ...(parts as unknown as { number: string }[]).map((p) => `${p.number},${price}`)].join('\n');
    const prices = () =>
      app.look((db) =>
        db('priceBreak as b')
          .join('supplierPart as p', 'p.id', 'b.partId')
          .where('p.supplierId', 1)
          .whereNull('b.untilDay')
          .distinct('b.price'),
      ) as unknown as Promise<{ price: number }[]>;
    expect(parts.length).toBeGreaterThan(5);
    for (const round of tried([1, 2, 3, 4, 5, 6])) {
      const mina = await Caller.as(app.base, 'mina');
      const path = `/suppliers/1/prices?from=2031-01-0${round}&once=killed-list-${round}`;
      const sent = mina.ask(path, { method: 'POST', body: list(round) }).catch(() => undefined);
      await pause(round * 6);
      await app.end('SIGKILL');
      await sent;
      await app.serve();
      // All parts cost what the list says, or none does.
      const told = (await prices()).map((p) => p.price);
      expect(told.includes(round * 10_000) ? told : [0]).toEqual(
        told.includes(round * 10_000) ? [round * 10_000] : [0],
      );
      const again = await Caller.as(app.base, 'mina');
      expect((await again.ask(path, { method: 'POST', body: list(round) })).status).toBe(200);
      expect((await prices()).map((p) => p.price)).toEqual([round * 10_000]);
    }
  });
});

describe('a revision, killed while it is sent', () => {
  /** Sets the first line of an order two dearer, in a revision of its own. */
  async function revise(order: StoredOrder): Promise<StoredOrder> {
    const mina = await Caller.as(app.base, 'mina');
    const { id, revision } = order;
    const begun = { once: `revise-${revision}`, orderId: id, version: order.version, reason: 'The price went up' };
    expect(await mina.act('beginRevision', begun)).toBe('done');
    const content = orderInput(order);
    firstLine(content).price = ((firstLine(content).price ?? 0) + 20_000) as UnitPrice;
    const version = await app.look(async (db) => ((await findOrder(db, id)) as StoredOrder).version);
    const change = { once: `change-${revision}`, orderId: id, version, ...content };
    expect(await mina.act('changeRevision', change)).toBe('done');
    return app.look((db) => findOrder(db, id)) as Promise<StoredOrder>;
  }

  const standing = (id: number) =>
    app.look(async (db) => ({
      order: (await findOrder(db, id)) as StoredOrder,
      writing: (await db('orderChange').where({ orderId: id })).length,
      message: await db('message').where({ about: 'order', aboutId: id }).orderBy('id', 'desc').first(),
    }));
  /** Mails that the server outside has taken, of what was to go to the supplier. */
  const taken = () => readdirSync(join(app.folder, 'mail')).filter((name) => name.endsWith('.eml')).length;

  it('knows whether it went, is in force only if it did, and goes once more only on purpose', async () => {
    let order = await app.look(async (db) => {
      const { id } = (await db('purchaseOrder').where({ state: 'sent', currency: 'GBP' }).orderBy('id').first()) as {
        id: number;
      };
      return (await findOrder(db, id)) as StoredOrder;
    });
    const became = new Set<string>();
    for (const wait of tried([0, 40, 80, 140, 240, 4000])) {
      const { id } = order;
      const written = await revise(order);
      const mina = await Caller.as(app.base, 'mina');
      const before = taken();
      const going = mina.act('sendOrder', { once: `send-${wait}`, orderId: id, version: written.version });
      await app.killAfter(wait, going);
      await going.catch(() => undefined);
      await app.serve();

      const now = await standing(id);
      const went = now.order.revision === written.revision + 1;
      became.add(went ? 'went' : `${now.message?.state}`);
      expect(now.order.state).toBe(order.state);
      expect(now.order.lines[0]?.price).toBe((order.lines[0]?.price ?? 0) + (went ? 20_000 : 0));
      expect(now.writing).toBe(went ? 0 : 1);
      expect(['taken', 'failed', 'unknown', undefined]).toContain(now.message?.state);
      const mails = taken() - before;
      if (went) expect(mails).toBe(1);
      else if (now.message?.state === 'failed') expect(mails).toBe(0);
      else expect(mails).toBeLessThanOrEqual(1);
      expect(await app.look(findUnproven)).toEqual([]);

      if (!went) {
        const again = await Caller.as(app.base, 'mina');
        const ask = { orderId: id, version: now.order.version };
        const unasked = await again.act('sendOrder', { once: `unasked-${wait}`, ...ask });
        expect(unasked).toBe(now.message?.state === 'unknown' ? 'refused' : 'done');
        if (unasked === 'refused')
          expect(await again.act('sendOrder', { once: `again-${wait}`, ...ask, again: true })).toBe('done');
      }
      order = (await standing(id)).order;
      expect(order.revision).toBe(written.revision + 1);
    }
    expect(became.size).toBeGreaterThan(1);
    expect(await app.look(findUnproven)).toEqual([]);
  });
});
