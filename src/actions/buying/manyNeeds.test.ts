import { must, q, refusedWith, TestCompany, TODAY } from '../../../tests/support/company';
import { loadSellers } from '@/queries/items/sellers';
import { refreshNeeds } from '@/store/tab/needs';
import { loadBuyList } from '@/queries/buying/buyList';
import { insertMany, insertOne } from '@/store/rows';
import { changeNeeds } from './manyNeeds';
import { changeNeed } from './needs';
import { countStock } from '../stores/counting';
import { draftOrders } from '../orders/orders';
import { changeQuote } from '../quotes/quotes';
import { winQuote } from '../quotes/winning';

let yard: TestCompany;
let tube: number;
beforeEach(async () => {
  yard = await TestCompany.open();
  [tube] = yard.ids.items;
  const [eelmoor, pellam] = yard.ids.suppliers;
  await yard.db('supplier').where({ id: pellam }).update({ currency: 'EUR', leadDays: 20 });
  await yard.db('exchangeRate').insert({ currency: 'EUR', day: TODAY, rate: '0.5' as never });
  const part = { itemId: tube, unit: 'MTR' };
  const [one, other] = [
    await insertOne(yard.db, 'supplierPart', { ...part, supplierId: eelmoor, theirNumber: '88120' }),
    await insertOne(yard.db, 'supplierPart', { ...part, supplierId: pellam }),
  ];
  await insertMany(yard.db, 'priceBreak', [
    { partId: one, fromQuantity: 0, price: 112_000 },
    { partId: one, fromQuantity: q(40), price: 98_500 },
    { partId: other, fromQuantity: 0, price: 180_000 },
  ]);
});
afterEach(() => yard.closeProven());

const mending = async (needIds: number[], change: object, version = 1) =>
  changeNeeds(await yard.as('buyer'), { needs: needIds.map((needId) => ({ needId, version })), ...change });
const tubes = (quantity: number) =>
  yard.need({ item: tube, quantity, price: 8, neededOn: '2026-05-27', description: 'Tube' });

describe('lines to buy, several at once', () => {
  it('take their supplier’s price of today for what is open, by its breaks', async () => {
    const ids = [await tubes(12), await tubes(50)];
    must(await mending(ids, { todaysPrice: true }));
    expect((await yard.db('need').orderBy('id').select('price')).map((n) => n.price)).toEqual([112_000, 98_500]);
    expect(await yard.tab()).toEqual({ planned: 13_440 + 49_250 });
  });
  it('change supplier, and bring its price along in our currency', async () => {
    const id = await tubes(10);
    must(await mending([id], { supplierId: yard.ids.suppliers[1], todaysPrice: true }));
    expect(await yard.db('need').first('price', 'supplierId')).toEqual({
      price: 90_000,
      supplierId: yard.ids.suppliers[1],
    });
  });
  it('get a day and a cost code, unless they are bought already', async () => {
    const [open, bought] = [await tubes(10), await tubes(5)];
    must(await mending([open], { neededOn: '2026-06-01', costCodeId: yard.ids.codes[0] }));
    expect(await yard.db('need').where({ id: open }).first('neededOn', 'costCodeId', 'version')).toEqual({
      neededOn: '2026-06-01',
      costCodeId: yard.ids.codes[0],
      version: 2,
    });
    await yard.draft([{ needId: bought, buy: q(2) }]);
    expect(refusedWith(await mending([bought], { costCodeId: yard.ids.codes[0] }))).toEqual(['need.bought']);
  });
  it('take a price that is typed, whatever their supplier asks', async () => {
    const ids = [await tubes(12), await yard.need({ description: 'Hose' })];
    must(await mending(ids, { price: 75_000, todaysPrice: true }));
    expect((await yard.db('need').orderBy('id').select('price')).map((n) => n.price)).toEqual([75_000, 75_000]);
    expect(refusedWith(await mending(ids, { price: -1 }, 2))).toEqual(['input']);
  });
  it('are all mended or none', async () => {
    const ids = [await tubes(10), await yard.need({ description: 'Hose' })];
    expect(refusedWith(await mending(ids, { todaysPrice: true }))).toEqual(['need.unpriced']);
    expect(refusedWith(await mending(ids, {}))).toEqual(['mend.nothing']);
    expect(refusedWith(await mending(ids, { supplierId: 99 }))).toEqual(['missing']);
    expect(refusedWith(await mending(ids, { neededOn: '2026-06-01' }, 2))).toEqual(['clash']);
    expect((await yard.db('need').select('version')).map((n) => n.version)).toEqual([1, 1]);
  });
});

it('the suppliers of a part stand side by side, the cheapest first', async () => {
  const id = await tubes(50);
  const { actor, db } = await yard.as('buyer');
  const sellers = await loadSellers(db, actor, id, TODAY);
  expect(
    sellers.map(({ name, price, value, late, readyOn, chosen }) => ({ name, price, value, late, readyOn, chosen })),
  ).toEqual([
    // 20 days from 12 May and one to take in: three weeks and a day later than it is wanted by.
    { name: 'Pellam Bearings', price: 90_000, value: 45_000, late: 10, readyOn: '2026-06-10', chosen: false },
    { name: 'Eelmoor Metals', price: 98_500, value: 49_250, late: 0, readyOn: '2026-05-20', chosen: true },
  ]);
  expect(await loadSellers(db, actor, await yard.need(), TODAY)).toEqual([]);
});

it('a line that comes too late names the suppliers from whom it would come in time', async () => {
  const tagsOf = async (days: object, supplier: number) => {
    await yard.db('supplier').where({ id: supplier }).update(days);
    const { actor, db } = await yard.as('buyer');
    await refreshNeeds(db);
    const [line] = (await loadBuyList(db, actor, yard.ids.jobs[0], TODAY)).rows;
    return line?.tags.map((t) => t.words).filter((w) => w.includes('late') || w.includes('deliver in time'));
  };
  const [eelmoor, pellam] = yard.ids.suppliers;
  await tubes(10);
  expect(await tagsOf({ leadDays: 11 }, eelmoor)).toEqual(['1 day late']);
  expect(await tagsOf({ leadDays: 9 }, pellam)).toEqual(['1 day late', 'Pellam Bearings can deliver in time']);
  // Closed for two of the days that it has.
  await yard
    .db('supplierClosed')
    .insert({ supplierId: pellam, fromDay: '2026-05-18', untilDay: '2026-05-19', words: '' } as never);
  expect(await tagsOf({ leadDays: 9 }, pellam)).toEqual(['1 day late']);
});

it('a line says what it comes to at today’s prices, what lies in stores, and that it may not be bought', async () => {
  await tubes(50);
  await yard.db('item').where({ id: tube }).update({ bought: 0 });
  const pile = { itemId: tube, placeId: 1, jobId: null, seen: q(0), quantity: q(6), value: 5000 as never };
  await countStock(await yard.as('storekeeper'), { once: yard.once(), ...pile, reason: 'opening' });
  const { actor, db } = await yard.as('buyer');
  const [line] = (await loadBuyList(db, actor, yard.ids.jobs[0], TODAY)).rows;
  expect(line?.more).toBe(49_250 - 40_000);
  expect(line?.tags.map((t) => t.words)).toEqual(['not for purchase', '6 m in stock']);
  const picks = [{ needId: line?.id ?? 0, buy: q(1) }];
  expect(refusedWith(await draftOrders(await yard.as('buyer'), { once: yard.once(), picks }))).toEqual([
    'need.notBought',
  ]);
});

it('what is put out less than was sold is kept in hand, and says so', async () => {
  const lead = await yard.as('lead');
  const of = { quoteId: 1, once: yard.once() };
  const line = {
    kind: 'bought',
    itemId: null,
    description: 'Fitting',
    quantity: q(30),
    unit: 'HUR',
    cost: 400_000,
  } as const;
  const rest = { price: null, costCodeId: yard.ids.codes[0], supplierId: null, neededOn: null };
  must(await changeQuote(lead, { ...of, version: 1, after: 0, upTo: 0, lines: [{ ...line, ...rest }] }));
  must(await winQuote(lead, { ...of, once: yard.once(), version: 2, wonBy: 'the customer' }));
  const need = (await yard.db('need').first())!;
  const { description, unit, costCodeId, price } = need;
  const text = { description, unit, costCodeId, price, supplierId: null, neededOn: '' };
  must(await changeNeed(lead, { needId: need.id, version: 1, ...text, quantity: q(24) }));
  const [shown] = (await loadBuyList(yard.db, lead.actor, yard.ids.jobs[0], TODAY)).rows;
  expect(shown?.tags.map((t) => t.words)).toContain('6 h not bought, kept in hand');
});
