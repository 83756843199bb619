import { insertMany, insertOne } from '@/store/rows';
import { noteUse } from '@/actions/people/ownViews';
import { must, TestCompany, TODAY } from '../../../tests/support/company';
import { find } from './find';
import { listChoices, nameChoices } from './choices';

let yard: TestCompany;
beforeEach(async () => {
  yard = await TestCompany.open();
});
afterEach(() => yard.close());

const buyer = async () => (await yard.as('buyer')).actor;
const items = async (text: string) =>
  (await listChoices(yard.db, await buyer(), 'item', text, TODAY)).map((i) => i.number);
const found = async (text: string, role: 'buyer' | 'storekeeper' = 'buyer') =>
  (await find(yard.db, (await yard.as(role)).actor, text)).map((f) => `${f.kind} ${f.label}`);

describe('things as one types', () => {
  beforeEach(async () => {
    await insertMany(yard.db, 'item', [
      { number: 'TU-316-38', name: 'Tube 316L 38 × 2 mm', unit: 'MTR', gtin: '5012345678900' },
      { number: 'TU-316-25', name: 'Tube 316L 25 × 2 mm', unit: 'MTR' },
      { number: 'PL-6', name: 'Plate, Grünspan 6 mm', unit: 'XST' },
    ]);
    await insertOne(yard.db, 'supplierPart', { supplierId: 1, itemId: 3, theirNumber: 'E/88120', unit: 'MTR' });
  });

  it('stand first where their name begins as typed', async () => {
    await insertMany(yard.db, 'item', [
      { number: 'A-1', name: 'Clamp for plate', unit: 'C62' },
      { number: 'A-2', name: 'Plate clamp', unit: 'C62' },
      { number: 'A-3', name: 'Hose with clamp', unit: 'C62' },
    ]);
    expect((await items('clamp'))[0]).toBe('A-1');
    expect((await items('plate')).slice(0, 2).sort()).toEqual(['A-2', 'PL-6']);
  });

  it.each([
    ['tueb 316', ['TU-316-25', 'TU-316-38']],
    ['plte', ['PL-6']],
    ['grunspam', ['PL-6']],
    ['Grünspann 6', ['PL-6']],
    // A number is meant as it is typed, and so is what is found.
    ['tu-317', []],
    ['plate 7', []],
  ])('with a slip: “%s”', async (text, numbers) => {
    expect((await items(text)).sort()).toEqual(numbers);
    expect((await found(text)).filter((f) => f.startsWith('item')).sort()).toEqual(numbers.map((n) => `item ${n}`));
  });

  it.each([
    ['tu-316', ['TU-316-25', 'TU-316-38']],
    ['TU31638', ['TU-316-38']],
    ['tube 38', ['TU-316-38']],
    ['38 tube', ['TU-316-38']],
    ['316l', ['TU-316-25', 'TU-316-38']],
    ['5012345678900', ['TU-316-38']],
    ['88120', ['TU-316-38']],
    ['grunspan', ['PL-6']],
    ['tu-1', ['TU-1']],
    ['"or" * ()', []],
    ['nothing like it', []],
  ])('“%s” finds %s', async (text, numbers) => expect((await items(text)).sort()).toEqual(numbers));

  it('are named by pasted words only when they are called exactly so', async () => {
    const named = await nameChoices(
      yard.db,
      await buyer(),
      'item',
      ['tu-316-38', ' tube  316l 38 × 2 MM', 'e/88120', '5012345678900', 'TU-316', '', 'PL-6'],
      TODAY,
    );
    expect(named.map((t) => t?.number)).toEqual([
      'TU-316-38',
      'TU-316-38',
      'TU-316-38',
      'TU-316-38',
      undefined,
      undefined,
      'PL-6',
    ]);
  });

  it('are not named by words that several are called by, unless one has them as its number', async () => {
    await insertMany(yard.db, 'item', [
      { number: 'SHIM', name: 'Shim, brass', unit: 'C62' },
      { number: 'S-1', name: 'Shim', unit: 'C62' },
      { number: 'S-2', name: 'Wedge', unit: 'C62' },
      { number: 'S-3', name: 'wedge', unit: 'C62' },
    ]);
    const named = await nameChoices(yard.db, await buyer(), 'item', ['shim', 'Wedge'], TODAY);
    expect(named.map((t) => t?.number)).toEqual(['SHIM', undefined]);
  });

  it('puts the number typed first, then what the person used last, then the newest', async () => {
    expect(await items('tu')).toEqual(['TU-316-25', 'TU-316-38', 'TU-1']);
    must(await noteUse(await yard.as('buyer'), { kind: 'item', id: 1 }));
    expect(await items('tu')).toEqual(['TU-1', 'TU-316-25', 'TU-316-38']);
    expect((await items('')).slice(0, 2)).toEqual(['TU-1', 'PL-6']);
    expect((await items('TU-316-38'))[0]).toBe('TU-316-38');
  });

  it('keeps in step with what is written', async () => {
    await yard.db('item').where({ id: 5 }).update({ name: 'Sheet, brass' });
    expect([await items('grunspan'), await items('brass')]).toEqual([[], ['PL-6']]);
    await yard.db('supplierPart').where({ itemId: 3 }).delete();
    expect(await items('88120')).toEqual([]);
    await yard.db('item').where({ id: 5 }).delete();
    expect(await items('brass')).toEqual([]);
    await yard.db('supplier').where({ id: 1 }).update({ name: 'Marsh Metals' });
    const order = await yard.draft([{ needId: await yard.need(), buy: 10_000 as never }]);
    await yard.db('supplier').where({ id: 1 }).update({ name: 'Creek Metals' });
    expect(await found('creek')).toEqual([`order ${order.number}`, 'supplier Creek Metals']);
    expect(await found('marsh metals')).toEqual([]);
  });

  it('brings a part’s unit, code, supplier and price, the price for one of its own units', async () => {
    const partId = 1;
    await yard.db('supplierPart').where({ id: partId }).update({ unit: 'XRL', factorMany: 60, factorOne: 1 });
    await insertMany(yard.db, 'priceBreak', [
      { partId, fromQuantity: 0, price: 1_770_000, priceQuantity: 1 },
      { partId, fromQuantity: 50_000, price: 1_500_000, priceQuantity: 1 },
    ]);
    await yard.db('item').where({ id: 3 }).update({ supplierId: 1, costCodeId: yard.ids.codes[1] });
    const [tube] = await listChoices(yard.db, await buyer(), 'item', 'TU-316-38', TODAY);
    expect(tube).toMatchObject({
      unit: 'MTR',
      price: 29_500,
      costCode: { number: '02', name: 'Machinery' },
      supplier: { name: 'Eelmoor Metals' },
    });
    const [seen] = await listChoices(yard.db, (await yard.as('storekeeper')).actor, 'item', 'TU-316-38', TODAY);
    expect(seen).toMatchObject({ price: null });
  });

  it.each([
    ['supplier', 'pel', ['Pellam Bearings']],
    ['supplier', '', ['Eelmoor Metals', 'Pellam Bearings']],
    ['costCode', '2', ['Machinery']],
    ['costCode', 'hull', ['Hull']],
    ['costCode', '', ['Hull', 'Machinery', 'Freight']],
    ['customer', 'surv', ['Estuary Survey Trust']],
    ['person', 'lead', ['The lead']],
    ['job', '41', ['Job 418', 'Job 412']],
  ] as const)('a %s by “%s”', async (kind, text, names) =>
    expect((await listChoices(yard.db, await buyer(), kind, text, TODAY)).map((t) => t.name)).toEqual(names),
  );

  it('offers nobody who is let in no more', async () => {
    await yard.db('person').where({ email: 'lead@yard.example' }).update({ active: 0 });
    expect(await listChoices(yard.db, await buyer(), 'person', 'lead', TODAY)).toEqual([]);
  });
});

describe('finding', () => {
  it('finds by any number, ours or theirs', async () => {
    const order = await yard.send(await yard.draft([{ needId: await yard.need(), buy: 50_000 as never }]));
    must(await yard.takeIn(order, 2));
    must(await yard.invoice(order, 2, { number: 'INV/0077-B' }));
    const receipt = (await yard.db('receipt').first('number')) as { number: string };
    expect(await found(order.number)).toEqual([
      `order ${order.number}`,
      expect.stringContaining('invoice'),
      expect.stringContaining('receipt'),
    ]);
    expect(await found(String(Number(order.number.slice(-4))))).toContain(`order ${order.number}`);
    expect(await found('0077')).toEqual(['invoice INV/0077-B']);
    expect(await found('dn 1')).toEqual([`receipt ${receipt.number}`]);
    expect(await found('hose')).toEqual(['need Hose']);
    expect((await found('412'))[0]).toBe('job 412');
    expect(await found('q-418')).toEqual(['quote Q-418']);
  });

  it('shows what is open first, and nothing that a person may not see', async () => {
    const first = await yard.draft([{ needId: await yard.need(), buy: 10_000 as never }]);
    const second = await yard.draft([{ needId: await yard.need(), buy: 10_000 as never }]);
    await yard.db('purchaseOrder').where({ id: second.id }).update({ state: 'settled' });
    expect((await found('eelmoor')).filter((f) => f.startsWith('order'))).toEqual([
      `order ${first.number}`,
      `order ${second.number}`,
    ]);
    expect(await found('eelmoor', 'storekeeper')).toEqual([`order ${first.number}`, `order ${second.number}`]);
    expect(await found('q-418', 'storekeeper')).toEqual([]);
  });

  it('offers what was used last before anything is typed', async () => {
    expect(await found('')).toEqual([]);
    for (const [kind, id] of [
      ['job', 1],
      ['supplier', 2],
      ['job', 2],
    ] as const)
      must(
        await noteUse(
          {
            ...(await yard.as('buyer')),
            clock: { today: () => '2026-05-12' as never, now: () => `2026-05-12T10:00:0${id}${kind}` },
          },
          { kind, id },
        ),
      );
    expect(await found('')).toEqual(['supplier Pellam Bearings', 'job 418', 'job 412']);
    expect(await found('', 'storekeeper')).toEqual([]);
  });
});
