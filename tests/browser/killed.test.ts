import { setTimeout as pause } from 'node:timers/promises';
import { App } from '../support/app';
import { Caller } from '../support/caller';

let app: App;
beforeAll(async () => {
  app = await App.start();
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
    for (let round = 1; round <= 6; round += 1) {
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
