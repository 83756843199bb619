import { addDayOff, removeDayOff } from '@/actions/company/company';
import { countStock } from '@/actions/stores/counting';
import { savePart } from '@/actions/items/items';
import { saveSupplier } from '@/actions/items/suppliers';
import { must, q, TestCompany, TODAY } from '../../../tests/support/company';
import { plusDays, type Day } from '@/core/calendar/workdays';
import type { Minor } from '@/core/money/money';
import { obstaclesOf } from '@/core/needs/obstacles';
import { insertOne } from '@/store/rows';
import { GATHER_GROUPS, listOpenNeeds, pageOfOpenNeeds, type GatherFilter, type GatherGroup } from './openNeeds';

let yard: TestCompany;
beforeEach(async () => {
  yard = await TestCompany.open();
});
afterEach(() => yard.closeProven());

const buyer = async () => (await yard.as('buyer')).actor;
const names = async (filter: GatherFilter) =>
  (await listOpenNeeds(yard.db, await buyer(), TODAY, filter)).rows.map((n) => n.description);

/** Eelmoor, said to take so many working days. */
const lead = (version: number, leadDays: number) => ({
  ...{ once: yard.once(), id: yard.ids.suppliers[0], version, leadDays, taxCodeId: 1 },
  ...{ name: 'Eelmoor Metals', email: 'orders@eelmoor.example', currency: 'GBP' },
});

const aPart = (itemId: number, supplierId: number, leadDays: number) => ({
  once: yard.once(),
  ...{ itemId, supplierId, version: 0, theirNumber: '', theirName: '', unit: 'MTR', factorMany: 1, factorOne: 1 },
  ...{ minimum: q(0), pack: q(0), leadDays, usual: false },
  breaks: [{ fromQuantity: q(0), price: 100_000, priceQuantity: 1, fromDay: '2000-01-01' as Day, untilDay: null }],
});

/** One line for each thing that can stand in the way, and one that nothing does. */
async function everyObstacle() {
  const { db, ids } = yard;
  const later = plusDays(TODAY, 200);
  await yard.need({ description: 'clear', neededOn: later });
  await yard.need({ description: 'no supplier', supplier: null, neededOn: later });
  await yard.need({ description: 'late', neededOn: TODAY });
  await yard.need({ description: 'no price', price: null, neededOn: later });
  const forbidden = await insertOne(db, 'item', { number: 'NO-1', name: 'Own make', unit: 'MTR', bought: 0 });
  await yard.need({ description: 'not bought', item: forbidden, neededOn: later });
  must(await savePart(await yard.as('buyer'), aPart(ids.items[0], ids.suppliers[0], 3) as never));
  await yard.need({ description: 'priced by its part', item: ids.items[0], price: null, neededOn: later });
  await yard.need({ description: 'measured in another unit', item: ids.items[0], unit: 'KGM', neededOn: later });
  await yard.need({
    description: 'measured in a unit that converts',
    item: ids.items[0],
    unit: 'MMT',
    neededOn: later,
  });
  const euro = await insertOne(db, 'supplier', { name: 'Motor', currency: 'EUR', email: 'm@m.example', taxCodeId: 1 });
  await db('need')
    .where({ id: await yard.need({ description: 'no rate', neededOn: later }) })
    .update({ supplierId: euro });
  await quoted(await yard.need({ description: 'not agreed', neededOn: later }), { cost: 80_000, agreed: null });
  await quoted(await yard.need({ description: 'agreed', neededOn: later }), { cost: 80_000, agreed: 1 });
  await quoted(await yard.need({ description: 'above quote', neededOn: later }), { cost: 79_900, agreed: 1 });
  const counted = { once: yard.once(), itemId: ids.items[1], placeId: 1, jobId: null, seen: q(0), reason: 'opening' };
  must(await countStock(await yard.as('manager'), { ...counted, quantity: q(5), value: 1500 as Minor }));
  await yard.need({ description: 'in stores', item: ids.items[1], neededOn: later });
}

/** Says that a need comes from a line of the first job's quote. */
async function quoted(needId: number, { cost, agreed }: { cost: number; agreed: 1 | null }): Promise<void> {
  const line = { quoteId: 1, place: needId, description: 'Hose', quantity: q(12), unit: 'MTR', cost, agreed, net: 0 };
  const quoteLineId = await insertOne(yard.db, 'quoteLine', { ...line, costCodeId: yard.ids.codes[1] });
  await yard.db('need').where({ id: needId }).update({ quoteLineId });
}

describe('lines to buy', () => {
  it('are found by what stands in their way, as their own words tell it', async () => {
    await everyObstacle();
    const { rows } = await listOpenNeeds(yard.db, await buyer(), TODAY, {});
    const told = rows.filter((n) => n.tags.some((t) => t.weight !== 'note')).map((n) => n.description);
    expect(rows).toHaveLength(13);
    expect(told.sort()).toEqual([
      'above quote',
      'late',
      'measured in another unit',
      'no price',
      'no rate',
      'no supplier',
      'not agreed',
      'not bought',
    ]);
    expect(rows.find((n) => n.description === 'in stores')?.tags[0]?.words).toBe('5 m in stock');
    // What is dearer than its quote is told beside its price, and not looked for.
    expect((await names({ show: 'trouble' })).sort()).toEqual(told.filter((name) => name !== 'above quote'));
    expect(await names({ show: 'late' })).toEqual(['late']);
    expect(await names({ show: 'unpriced' })).toEqual(['no price']);
    // The fixture has every obstacle of the core.
    const all = obstaclesOf(
      {
        ...{ supplierId: null, hasPrice: false, hasRate: false, hasUnit: false, hasItem: false, mayBeBought: false },
        ...{ agreed: false, freeInStores: q(1), unit: 'MTR', aboveQuote: 1 as never, currency: 'GBP', neededOn: TODAY },
        lead: { days: 5, calendar: { week: new Set([1, 2, 3, 4, 5]), off: new Set() } },
      },
      TODAY,
      1,
      { week: new Set([1, 2, 3, 4, 5]), off: new Set() },
    );
    expect(all.map((o) => o.kind).sort()).toEqual([
      ...['aboveQuote', 'inStores', 'late', 'noItem', 'noPrice', 'noRate', 'noSupplier', 'notAgreed', 'notBought'],
      'unit',
    ]);
  });

  it('know their last day to order, which follows the lead of supplier and part', async () => {
    const { ids } = yard;
    const needId = await yard.need({ item: ids.items[0], neededOn: '2026-07-01' });
    const last = async () => (await yard.db('need').where({ id: needId }).first())?.orderBy;
    must(await saveSupplier(await yard.as('buyer'), lead(1, 0)));
    const soon = await last();
    must(await saveSupplier(await yard.as('buyer'), lead(2, 10)));
    // Ten working days are two weeks.
    expect(await last()).toBe(plusDays(soon as Day, -14));
    must(await savePart(await yard.as('buyer'), aPart(ids.items[0], ids.suppliers[0], 5) as never));
    expect(await last()).toBe(plusDays(soon as Day, -7));
    expect(await names({ lead: 'short' })).toEqual(['Hose']);
    expect(await names({ lead: 'middle' })).toEqual([]);
    await yard.draft([{ needId, buy: q(12) }]);
    expect(await last()).toBeNull();
  });

  it('know it by the days on which the company works', async () => {
    const needId = await yard.need({ neededOn: '2026-07-01' });
    const last = async () => (await yard.db('need').where({ id: needId }).first())?.orderBy;
    const before = await last();
    const off = { once: yard.once(), day: '2026-06-29' as Day, name: 'Regatta' };
    must(await addDayOff(await yard.as('administrator'), off));
    expect(await last()).toBe(plusDays(before as Day, -1));
    must(await removeDayOff(await yard.as('administrator'), { day: '2026-06-29' }));
    expect(await last()).toBe(before);
  });

  it('come page by page in the order of every group, each once', async () => {
    const days = [undefined, '2026-07-01', '2026-06-01'];
    for (let k = 0; k < 23; k += 1)
      await yard.need({
        description: `Line ${k % 7}`,
        job: (k % 2) as 0 | 1,
        item: k % 3 === 0 ? yard.ids.items[0] : null,
        supplier: k % 5 === 0 ? null : ((k % 2) as 0 | 1),
        ...(days[k % 3] === undefined ? {} : { neededOn: days[k % 3] as string }),
      });
    for (const group of Object.keys(GATHER_GROUPS) as GatherGroup[]) {
      const whole = await pageOfOpenNeeds(yard.db, await buyer(), TODAY, { group }, undefined);
      const paged: number[] = [];
      let after: string | undefined;
      do {
        const page = await pageOfOpenNeeds(yard.db, await buyer(), TODAY, { group }, after, 4);
        paged.push(...page.rows.map((r) => r.id));
        after = page.next;
      } while (after !== undefined);
      expect(new Set(paged).size).toBe(23);
      expect(paged).toEqual(whole.rows.map((r) => r.id));
    }
  });

  it.each(['', '[', '[1]', '{"a":1}', '["x",null,1]'])('begin at the first where %j is no place', async (after) => {
    await yard.need();
    const { rows } = await pageOfOpenNeeds(yard.db, await buyer(), TODAY, {}, after);
    expect(rows).toHaveLength(1);
  });
});
