import type { Minor } from '@/core/money/money';
import { insertMany, insertOne } from '@/store/rows';
import type { StoredOrder } from '@/store/orders';
import { must, q, refusedWith, TestCompany } from '../../tests/support/company';
import { changeDraft, firstLine, orderInput, type OrderInput } from '../../tests/support/typed';
import { addNeed, changeNeed } from './buying/needs';
import { closeShort } from './orders/ending';
import { draftOrders } from './orders/orders';
import { saveSupplier } from './items/suppliers';

/** The odd cases together: each was, or could be, a wrong figure that every single case left hidden. */

let yard: TestCompany;
beforeEach(async () => {
  yard = await TestCompany.open();
});
afterEach(() => yard.closeProven());

const change = (order: StoredOrder, edit: (text: OrderInput) => unknown) => changeDraft(yard, order, edit);
const free = () => yard.db('supplier').update({ carriage: 0 as Minor });
const supplierTax = (taxCodeId: number) => yard.db('supplier').update({ taxCodeId, carriage: 0 as Minor });
const openOf = async (id: number) => (await yard.db('need').where({ id }).first('open'))?.open;
const stores = async () => {
  const rows = (await yard.db('posting').whereNull('jobId').sum({ n: 'amount' })) as { n: number | null }[];
  return rows[0]?.n ?? 0;
};

describe('parts of a line', () => {
  it('with the same job, code and need are saved as often as one likes: 5 + 3 stays 5 + 3', async () => {
    await free();
    const order = await yard.draft([{ needId: await yard.need({ quantity: 8, price: 10 }), buy: q(8) }]);
    must(
      await change(order, (t) => {
        const [only] = firstLine(t).splits;
        firstLine(t).splits = [
          { ...only, quantity: q(5) } as never,
          { ...only, id: undefined, quantity: q(3) } as never,
        ];
      }),
    );
    for (let k = 0; k < 3; k += 1) must(await change(await yard.order(order.id), () => {}));
    const now = await yard.order(order.id);
    expect(now.lines[0]?.splits.map((s) => [s.quantity, s.value])).toEqual([
      [q(5), 5000],
      [q(3), 3000],
    ]);
    expect((await yard.tab()).drafted).toBe(8000);
  });

  it('keep covering their need under another cost code, and not for another job', async () => {
    const needId = await yard.need();
    const order = await yard.draft([{ needId, buy: q(12) }]);
    must(
      await change(order, (t) => ((firstLine(t).splits[0] as { costCodeId: number }).costCodeId = yard.ids.codes[0])),
    );
    expect([await openOf(needId), (await yard.tab()).planned]).toEqual([0, undefined]);
    const again = await yard.order(order.id);
    must(await change(again, (t) => ((firstLine(t).splits[0] as { jobId: number }).jobId = yard.ids.jobs[1])));
    expect(await openOf(needId)).toBe(q(12));
  });

  it('are refused when a line has none, or a charge has nothing left to follow', async () => {
    const order = await yard.draft([{ needId: await yard.need(), buy: q(12) }]);
    expect(refusedWith(await change(order, (t) => (firstLine(t).splits = [])))).toEqual(['line.split']);
    expect(refusedWith(await change(order, (t) => (t.lines = t.lines.slice(1))))).toEqual(['order.charge']);
  });
});

describe('another unit', () => {
  beforeEach(async () => {
    await free();
    const part = {
      supplierId: yard.ids.suppliers[0],
      itemId: yard.ids.items[1],
      unit: 'XRL',
      factorMany: 60,
      factorOne: 1,
    };
    const partId = await insertOne(yard.db, 'supplierPart', part);
    await insertMany(yard.db, 'priceBreak', [{ partId, fromQuantity: 0, price: 1_770_000 }]);
  });
  const cable = (quantity: number, job: 0 | 1 = 0) => yard.need({ job, item: yard.ids.items[1], quantity });

  it('is shared exactly: 40 m of a 60 m reel at 177.00 are 118.00, and 20 m go to stores at 59.00', async () => {
    await yard.draft([{ needId: await cable(40), buy: q(40) }]);
    expect([(await yard.tab()).drafted, await stores()]).toEqual([11_800, 5900]);
  });

  it('covers what came: one of two reels for 110 m is 60 m', async () => {
    const needId = await cable(110);
    const order = await yard.send(await yard.draft([{ needId, buy: q(110) }]));
    must(await yard.takeIn(order, 1));
    const lineId = order.lines[0]?.id ?? 0;
    const ref = { once: yard.once(), orderId: order.id, version: (await yard.order(order.id)).version };
    must(await closeShort(await yard.as('buyer'), { ...ref, lineId, reason: 'no more' }));
    expect(await openOf(needId)).toBe(q(50));
  });

  it('shares a reel between two jobs by their metres, and invoices it so', async () => {
    const picks = [
      { needId: await cable(40), buy: q(40) },
      { needId: await cable(20, 1), buy: q(20) },
    ];
    const order = await yard.send(await yard.draft(picks));
    must(await yard.takeIn(order, 1));
    const invoice = { typedTotal: 21_600 as Minor, lines: [yard.invoiced(order, 1, 180)] };
    const { id } = must(await yard.invoice(order, 1, invoice));
    must(await yard.match(id, 'new price', 'manager'));
    expect([await yard.tab(0), await yard.tab(1)]).toEqual([{ actual: 12_000 }, { actual: 6000 }]);
  });

  it('is whole when it is drafted, and refused for what it cannot hold', async () => {
    const order = await yard.draft([{ needId: await cable(70), buy: q(70) }]);
    expect(order.lines[0]?.quantity).toBe(q(2));
    const half = await change(order, (t) => (firstLine(t).quantity = q(1.5)));
    expect(refusedWith(half)).toContain('quantity.whole');
    const weight = { once: yard.once(), jobId: yard.ids.jobs[0], itemId: yard.ids.items[1], description: 'Cable' };
    const need = {
      quantity: q(3),
      unit: 'KGM',
      costCodeId: yard.ids.codes[0],
      price: null,
      supplierId: null,
      neededOn: '',
    };
    expect(refusedWith(await addNeed(await yard.as('lead'), { ...weight, ...need }))).toEqual(['need.unit']);
  });

  it('takes an estimate for a metre as one for a reel', async () => {
    await yard.db('priceBreak').delete();
    const order = await yard.draft([
      { needId: await yard.need({ item: yard.ids.items[1], quantity: 60, price: 3 }), buy: q(60) },
    ]);
    expect(order.lines[0]).toMatchObject({ unit: 'XRL', quantity: q(1), price: 1_800_000, net: 18_000 });
  });
});

describe('needs', () => {
  it('are planned with the tax that cannot be recovered, so that drafting changes nothing', async () => {
    await supplierTax(2);
    const needId = await yard.need({ quantity: 15 });
    expect(await yard.tab()).toEqual({ planned: 14_400 });
    await yard.draft([{ needId, buy: q(15) }]);
    expect(await yard.tab()).toEqual({ drafted: 14_400 });
  });

  it('follow their supplier’s tax when it changes', async () => {
    await yard.need({ quantity: 15 });
    const s = await yard.db('supplier').where({ id: yard.ids.suppliers[0] }).first();
    if (s === undefined) throw new Error('There is no supplier.');
    const { id, version, name, contact, address, currency, carriage, carriageFreeFrom, carrier } = s;
    const text = {
      id,
      version,
      name,
      contact,
      email: s.email ?? '',
      address,
      currency,
      carriage,
      carriageFreeFrom,
      carrier,
    };
    const row = { once: yard.once(), ...text, paymentDays: 30, leadDays: 5, taxCodeId: 2 };
    must(await saveSupplier(await yard.as('buyer'), row));
    expect(await yard.tab()).toEqual({ planned: 14_400 });
  });

  const cut = async (needId: number, n: number, surplus?: 'job' | 'stores') => {
    const need = await yard.db('need').where({ id: needId }).first();
    if (need === undefined) throw new Error('There is no need.');
    const { version, description, unit, costCodeId, price, supplierId } = need;
    const text = { description, unit, costCodeId, price, supplierId, neededOn: '' };
    return changeNeed(await yard.as('lead'), { needId, version, ...text, quantity: q(n), ...(surplus && { surplus }) });
  };

  it('are not cut below what is ordered without saying what becomes of the rest', async () => {
    await free();
    const needId = await yard.need({ supplier: 1 });
    const order = await yard.send(await yard.draft([{ needId, buy: q(12) }]));
    must(await yard.takeIn(order, 5));
    expect(refusedWith(await cut(needId, 7))).toEqual(['need.surplus']);
    expect(refusedWith(await cut(needId, 3, 'stores'))).toEqual(['need.in']);
    must(await cut(needId, 7, 'stores'));
    expect([await yard.tab(), await stores()]).toEqual([{ onOrder: 1600, received: 4000 }, 4000]);
    must(await cut(needId, 5, 'job'));
    expect(await yard.tab()).toEqual({ onOrder: 1600, received: 4000 });
  });

  it('in kilograms and in metres never share a line', async () => {
    const a = await yard.need({ description: 'Bar', unit: 'KGM', quantity: 5 });
    const b = await yard.need({ description: 'Bar', unit: 'MTR', quantity: 5 });
    const order = await yard.draft([a, b].map((needId) => ({ needId, buy: q(5) })));
    expect(order.lines.filter((l) => l.kind === 'goods').map((l) => [l.unit, l.quantity])).toEqual([
      ['KGM', q(5)],
      ['MTR', q(5)],
    ]);
  });
});

describe('lines that join a draft', () => {
  it('leave a charge alone that only happens to cost as much as carriage', async () => {
    const order = await yard.draft([{ needId: await yard.need(), buy: q(12) }]);
    const fee = {
      ...firstLine(orderInput(order)),
      id: undefined,
      kind: 'charge',
      description: 'Crane',
      price: 250_000,
      splits: [],
    };
    must(await change(order, (t) => t.lines.push(fee as never)));
    const now = await yard.order(order.id);
    const more = { needId: await yard.need({ description: 'Plate', quantity: 40 }), buy: q(40) };
    const join = { once: yard.once(), picks: [more], into: [{ orderId: now.id, version: now.version }] };
    must(await draftOrders(await yard.as('buyer'), join));
    expect((await yard.order(order.id)).lines.map((l) => l.description)).toEqual(['Hose', 'Crane', 'Plate']);
  });

  it('keep a charge’s money exact over three equal jobs', async () => {
    const order = await yard.draft([{ needId: await yard.need({ quantity: 3, supplier: 1 }), buy: q(3) }]);
    must(
      await change(order, (t) => {
        const [only] = firstLine(t).splits;
        firstLine(t).splits = [yard.ids.jobs[0], yard.ids.jobs[1], null].map((jobId, k) => ({
          ...only,
          id: k === 0 ? only?.id : undefined,
          jobId,
          costCodeId: jobId === null ? null : yard.ids.codes[1],
          quantity: q(1),
        })) as never;
        (t.lines[1] as { price: number }).price = 90_000_000;
      }),
    );
    const [, charge] = (await yard.order(order.id)).lines;
    expect(charge?.splits.map((s) => s.value)).toEqual([300_000, 300_000, 300_000]);
  });
});
