import { plusDays } from '@/core/calendar/workdays';
import { ALWAYS } from '@/core/sourcing/prices';
import { loadParts, partKey } from '@/store/gathering';
import { must, refusedWith, TestCompany, TODAY } from '../../../tests/support/company';
import { saveItem, savePart, takePriceList } from './items';

let yard: TestCompany;
beforeEach(async () => {
  yard = await TestCompany.open();
});
afterEach(() => yard.close());

const cable = {
  id: null,
  version: 0,
  number: 'CA-9',
  name: 'Cable',
  unit: 'MTR',
  stocked: true,
  costCodeId: null,
  supplierId: null,
};
const reel = {
  theirNumber: '88',
  unit: 'XRL',
  factorMany: 60,
  factorOne: 1,
  minimum: 0 as never,
  pack: 10_000 as never,
};
const priced = (price: number, more: object = {}) => ({
  fromQuantity: 0 as never,
  price: price as never,
  priceQuantity: 1,
  ...more,
});

async function addCable(): Promise<number> {
  const { id } = must(await saveItem(await yard.as('buyer'), { once: yard.once(), ...cable }));
  return id;
}
const sold = async (itemId: number, change: object = {}) =>
  savePart(await yard.as('buyer'), {
    once: yard.once(),
    itemId,
    version: 0,
    supplierId: yard.ids.suppliers[0],
    ...reel,
    breaks: [priced(1_770_000)],
    ...change,
  });
const priceOn = async (itemId: number, day = TODAY) =>
  (await loadParts(yard.db, [itemId], day))
    .get(partKey(yard.ids.suppliers[0], itemId))
    ?.terms.prices.map((p) => p.price);

describe('an item', () => {
  it('has a number of its own', async () => {
    await addCable();
    expect(
      refusedWith(await saveItem(await yard.as('buyer'), { once: yard.once(), ...cable, number: 'ca-9' })),
    ).toEqual(['item.number']);
  });
});

describe('how a supplier sells an item', () => {
  it('is kept, and is the usual way where that is said', async () => {
    const id = await addCable();
    must(await sold(id, { usual: true, leadDays: 7 }));
    expect(await priceOn(id)).toEqual([1_770_000]);
    expect(await yard.db('item').where({ id }).first('supplierId', 'version')).toEqual({
      supplierId: yard.ids.suppliers[0],
      version: 2,
    });
    must(await sold(id, { version: 1, usual: false }));
    expect(await yard.db('item').where({ id }).first('supplierId')).toEqual({ supplierId: null });
    expect(await yard.db('supplierPart').where({ itemId: id }).first('leadDays', 'version')).toEqual({
      leadDays: null,
      version: 2,
    });
  });

  it('leaves the usual supplier alone where another’s way is said', async () => {
    const id = await addCable();
    must(await sold(id, { usual: true }));
    must(await sold(id, { supplierId: yard.ids.suppliers[1] }));
    expect(await yard.db('item').where({ id }).first('supplierId')).toEqual({ supplierId: yard.ids.suppliers[0] });
  });

  it.each([
    ['a conversion of zero', { factorMany: 0 }, 'input'],
    ['metres that are not a metre', { unit: 'MTR', factorMany: 2 }, 'part.factor'],
    ['a price below zero', { breaks: [priced(-1)] }, 'input'],
    ['two prices for one quantity', { breaks: [priced(5), priced(6)] }, 'input'],
    [
      'prices that overlap in time',
      { breaks: [priced(5, { untilDay: '2026-06-30' }), priced(6, { fromDay: '2026-06-30' })] },
      'input',
    ],
    [
      'a price that ends before it begins',
      { breaks: [priced(5, { fromDay: '2026-07-01', untilDay: '2026-06-30' })] },
      'input',
    ],
    ['no supplier', { supplierId: 0 }, 'input'],
  ])('refuses %s', async (_, change, code) => {
    const id = await addCable();
    expect(refusedWith(await sold(id, change))).toEqual([code]);
    expect(await yard.db('supplierPart').where({ itemId: id })).toEqual([]);
  });

  it('asks the price of the day', async () => {
    const id = await addCable();
    const [last, first] = [plusDays(TODAY, 9), plusDays(TODAY, 10)];
    must(await sold(id, { breaks: [priced(5, { untilDay: last }), priced(6, { fromDay: first })] }));
    expect([await priceOn(id, last), await priceOn(id, first)]).toEqual([[5], [6]]);
  });

  it('is said once, and a second person is told', async () => {
    const id = await addCable();
    must(await sold(id));
    expect(refusedWith(await sold(id))).toEqual(['part.twice']);
    must(await sold(id, { version: 1, theirNumber: '89' }));
    expect(await sold(id, { version: 1, theirNumber: '90' })).toMatchObject({ status: 'clash' });
  });
});

describe('a price list', () => {
  const take = async (itemId: number, fromDay: string, breaks: readonly object[], more: object = {}) =>
    takePriceList(await yard.as('buyer'), {
      once: yard.once(),
      supplierId: yard.ids.suppliers[0],
      fromDay,
      parts: [{ itemId, theirNumber: '88', unit: 'XRL', factorMany: 60, factorOne: 1, breaks, ...more }] as never,
    });

  it('takes over from its day; what was stays in the past', async () => {
    const id = await addCable();
    must(await sold(id, { leadDays: 3, breaks: [priced(1_770_000), priced(1_700_000, { fromQuantity: 50_000 })] }));
    const day = plusDays(TODAY, 30);
    must(await take(id, day, [priced(1_800_000)]));
    expect(await priceOn(id)).toEqual([1_770_000, 1_700_000]);
    expect(await priceOn(id, day)).toEqual([1_800_000]);
    expect(
      await yard.db('priceBreak').orderBy(['fromDay', 'fromQuantity']).select('fromDay', 'untilDay', 'price'),
    ).toEqual([
      { fromDay: ALWAYS, untilDay: plusDays(day, -1), price: 1_770_000 },
      { fromDay: ALWAYS, untilDay: plusDays(day, -1), price: 1_700_000 },
      { fromDay: day, untilDay: null, price: 1_800_000 },
    ]);
    // A list for an earlier day replaces what was to begin later.
    must(await take(id, TODAY, [priced(1_790_000)]));
    expect([await priceOn(id), await priceOn(id, day)]).toEqual([[1_790_000], [1_790_000]]);
    expect(await yard.db('supplierPart').where({ itemId: id }).first('leadDays', 'pack')).toEqual({
      leadDays: 3,
      pack: 10_000,
    });
  });

  it('brings parts that the supplier did not sell so far, all of them or none', async () => {
    const id = await addCable();
    must(await take(id, TODAY, [priced(1_800_000)], { minimum: 20_000 }));
    expect(await yard.db('supplierPart').where({ itemId: id }).first('minimum', 'pack')).toEqual({
      minimum: 20_000,
      pack: 0,
    });
    expect(refusedWith(await take(999, TODAY, [priced(1)]))).toEqual(['missing']);
    expect(refusedWith(await take(id, TODAY, [priced(1)], { unit: 'MMT', factorMany: 3 }))).toEqual(['part.factor']);
    expect(await priceOn(id)).toEqual([1_800_000]);
  });
});
