import fc from 'fast-check';
import { dueOf, leftOf, progressOf } from '@/core/orders/states';
import { quantity, type Quantity } from '@/core/quantity/quantity';
import { awaitedOf } from '@/core/tab/stages';
import { insertOne } from './rows';
import { loadSplitStates } from './tab/splits';
import type { OrderLineRow } from './tables';
import { q, TestCompany } from '../../tests/support/company';
import { AWAITS_SPLIT, BRINGS_GOODS, BRINGS_SOMETHING, GOODS_DUE, SPLIT_AWAITED } from './comes';

let yard: TestCompany;
beforeAll(async () => {
  yard = await TestCompany.open();
});
afterAll(() => yard.close());

/** Lines in every state there is, those included that no act leads to: SQL and core mean the same of each. */
const line = fc.record({
  kind: fc.constantFrom('goods', 'service', 'charge'),
  quantity: fc.constantFrom(q(1), q(10), q(12)),
  received: fc.constantFrom(q(0), q(4), q(10), q(13)),
  invoiced: fc.constantFrom(q(0), q(3), q(12)),
  held: fc.constantFrom(q(0), q(2), q(8)),
  givenUp: fc.constantFrom(q(0), q(1), q(6)),
  closedShort: fc.constantFrom(null, '3 of 12'),
  invoicesEnded: fc.constantFrom(null, '3 of 12'),
});

type Found = OrderLineRow & { due: Quantity; goods: number; something: number };

describe('what is still to come of a line', () => {
  it('is told in SQL as in the core, whatever became of it', async () => {
    const order = await yard.draft([{ needId: await yard.need(), buy: q(12) }]);
    const lines = fc.sample(line, { numRuns: 400, seed: 20_261_201 });
    const [{ id: _, ...plain }] = (await yard.db('orderLine').where({ orderId: order.id })) as [OrderLineRow];
    for (const [k, change] of lines.entries())
      await insertOne(yard.db, 'orderLine', { ...plain, ...change, place: k + 2, net: 0 });
    const found = (await yard
      .db('orderLine as l')
      .where({ orderId: order.id })
      .select(
        'l.*',
        yard.db.raw(`${GOODS_DUE} as due, (${BRINGS_GOODS}) as goods, (${BRINGS_SOMETHING}) as something`),
      )) as unknown as Found[];
    const core = found.map((l) => {
      const due = dueOf(progressOf(l));
      return [l.id, l.kind === 'goods' && due > 0, (l.kind === 'goods' ? due : leftOf(progressOf(l))) > 0];
    });
    expect(found.map((l) => [l.id, l.goods === 1, l.something === 1])).toEqual(core);
    for (const l of found.filter((f) => f.goods === 1)) expect([l.id, l.due]).toEqual([l.id, dueOf(progressOf(l))]);
    // So that both answers are among them.
    expect(new Set(core.map(([, goods, something]) => `${goods} ${something}`)).size).toBe(3);
  });

  it('is told of a split as in the core', async () => {
    const splits = await yard.db('split').select('id', 'lineId');
    const odd = fc.sample(line, { numRuns: 60, seed: 20_261_202 });
    for (const { kind: _, held: __, closedShort, invoicesEnded, ...change } of odd) {
      const [{ id, lineId }] = splits as [{ id: number; lineId: number }];
      await yard
        .db('split')
        .where({ id })
        .update(change as never);
      await yard.db('orderLine').where({ id: lineId }).update({ closedShort, invoicesEnded });
      await yard.db('purchaseOrder').update({ state: 'sent' });
      const [row] = (await yard
        .db('split as s')
        .join('orderLine as l', 'l.id', 's.lineId')
        .where('s.id', id)
        .select(yard.db.raw(`${SPLIT_AWAITED} as awaited, (${AWAITS_SPLIT}) as awaits`))) as unknown as [
        { awaited: number; awaits: number },
      ];
      const [state] = await loadSplitStates(yard.db, 'id', [id]);
      const core = state === undefined ? undefined : awaitedOf(state);
      expect(row.awaits === 1 ? quantity(row.awaited) : q(0)).toBe(core);
    }
  });
});
