import { draftOrders, holdOrder } from '@/actions/orders/orders';
import { insertMany } from '@/store/rows';
import { must, q, refusedWith, TestCompany, TODAY } from '../../../tests/support/company';
import { gatherEffects, orderEffects } from '@/workings/orders/effects';
import { loadGatherPreview } from './gather';
import { loadLevels } from '@/store/levels';
import { listOpenNeeds } from './openNeeds';

let yard: TestCompany;
beforeEach(async () => {
  yard = await TestCompany.open();
});
afterEach(() => yard.closeProven());

const buyer = async () => (await yard.as('buyer')).actor;

describe('what a purchase does to budgets', () => {
  it('is the same in the preview, on the draft, and in the ledger', async () => {
    await yard.budget(50_000);
    const a = await yard.need({ quantity: 30, item: yard.ids.items[0], description: 'Tube', price: 9 });
    const b = await yard.need({ job: 1, quantity: 10, item: yard.ids.items[0], description: 'Tube', price: 7 });
    const picks = [
      { needId: a, buy: q(30) },
      { needId: b, buy: q(4) },
    ];
    const before = await loadLevels(yard.db, yard.ids.jobs);
    const preview = await gatherEffects(yard.db, picks, TODAY);
    expect(await loadLevels(yard.db, yard.ids.jobs)).toEqual(before);
    const order = await yard.draft(picks);
    const after = await loadLevels(yard.db, yard.ids.jobs);
    const drafted = await orderEffects(yard.db, order);
    for (const e of preview.effects) {
      const { budget, amounts } = after.find((l) => l.jobId === e.jobId && l.costCodeId === e.costCodeId) ?? {};
      expect({ budget, amounts }).toEqual(e.after);
      expect(drafted.find((d) => d.jobId === e.jobId && d.costCodeId === e.costCodeId)?.before).toEqual(e.before);
    }
    expect(drafted).toEqual(preview.effects);
  });

  it('says what minimum and pack add, and where it goes', async () => {
    await insertMany(yard.db, 'supplierPart', [
      {
        supplierId: yard.ids.suppliers[0],
        itemId: yard.ids.items[1],
        unit: 'XRL',
        factorMany: 60,
        factorOne: 1,
        pack: 10_000,
      },
    ]);
    await insertMany(yard.db, 'priceBreak', [{ partId: 1, fromQuantity: 0, price: 1_770_000 }]);
    const needId = await yard.need({ item: yard.ids.items[1], quantity: 110 });
    const view = await loadGatherPreview(yard.db, await buyer(), TODAY, {
      picks: [{ needId, buy: q(110) }],
      joins: {},
    });
    expect(view.bundles[0]).toMatchObject({
      goods: 35_400,
      lines: 1,
      jobs: ['412'],
      carriage: 2500,
      added: ['Cable: 2 reel ordered; 10 m surplus to stores'],
    });
  });

  it('tells a line’s value as its order will have it: 40 m of a 60 m reel at 177.00 are 118.00', async () => {
    const part = { supplierId: yard.ids.suppliers[0], itemId: yard.ids.items[1], unit: 'XRL', factorMany: 60 };
    await insertMany(yard.db, 'supplierPart', [part]);
    await insertMany(yard.db, 'priceBreak', [{ partId: 1, fromQuantity: 0, price: 1_770_000 }]);
    await yard.need({ item: yard.ids.items[1], quantity: 40 });
    const { rows } = await listOpenNeeds(yard.db, await buyer(), TODAY, {});
    expect(rows[0]?.buying).toMatchObject({ price: 1_770_000, unit: 'XRL', value: 11_800 });
  });

  it('leaves out what cannot be bought, and says why', async () => {
    const view = await loadGatherPreview(yard.db, await buyer(), TODAY, {
      picks: [
        { needId: await yard.need({ supplier: null }), buy: q(1) },
        { needId: 999, buy: q(1) },
      ],
      joins: {},
    });
    expect([view.bundles, view.refusals.map((r) => r.code)]).toEqual([[], ['need.supplier', 'need.gone']]);
  });
});

describe('picks that join a draft', () => {
  const pickOf = async (change: Parameters<TestCompany['need']>[0], buy: number) => ({
    needId: await yard.need(change),
    buy: q(buy),
  });
  const preview = async (picks: { needId: number; buy: ReturnType<typeof q> }[], joins: Record<string, number> = {}) =>
    loadGatherPreview(yard.db, await buyer(), TODAY, { picks, joins });
  const add = async (
    picks: { needId: number; buy: ReturnType<typeof q> }[],
    into: { orderId: number; version: number }[],
  ) => draftOrders(await yard.as('buyer'), { once: yard.once(), picks, into });

  it('are offered the open drafts of their supplier, and join one that is held open unless told otherwise', async () => {
    const plain = await yard.draft([await pickOf({}, 12)]);
    await yard.draft([await pickOf({ supplier: 1 }, 12)]);
    const picks = [await pickOf({ description: 'Clamp' }, 12)];
    const [offered] = (await preview(picks)).bundles;
    expect([offered?.drafts.map((d) => d.number), offered?.into]).toEqual([['K26-0001'], null]);
    expect((await preview(picks, { [yard.ids.suppliers[0]]: plain.id })).bundles[0]?.into?.number).toBe('K26-0001');
    const held = await yard.draft([await pickOf({}, 1)]);
    must(await holdOrder(await yard.as('buyer'), { orderId: held.id, version: held.version, hold: true }));
    const [bundle] = (await preview(picks)).bundles;
    expect([bundle?.drafts.map((d) => d.number), bundle?.into?.number]).toEqual([['K26-0003', 'K26-0001'], 'K26-0003']);
    expect((await preview(picks, { [yard.ids.suppliers[0]]: 0 })).bundles[0]?.into).toBeNull();
  });

  it('do to the budgets what the preview says, and what was on the draft stays as it is', async () => {
    const draft = await yard.draft([await pickOf({ neededOn: '2026-06-10' }, 12)]);
    const picks = [await pickOf({ job: 1, description: 'Clamp', price: 3, neededOn: '2026-06-03' }, 12)];
    const told = await preview(picks, { [yard.ids.suppliers[0]]: draft.id });
    expect(told.bundles[0]).toMatchObject({ adds: 3600, goods: 13_200, carriage: 2500 });
    must(await add(picks, [{ orderId: draft.id, version: draft.version }]));
    const levels = await loadLevels(yard.db, yard.ids.jobs);
    for (const e of told.effects)
      expect(levels.find((l) => l.jobId === e.jobId && l.costCodeId === e.costCodeId)?.amounts).toEqual(
        e.after.amounts,
      );
    const now = await yard.order(draft.id);
    expect(now.lines.map((l) => [l.description, l.net])).toEqual([
      ['Hose', 9600],
      ['Carriage', 2500],
      ['Clamp', 3600],
    ]);
    expect(now.lines[0]?.id).toBe(draft.lines[0]?.id);
    expect([now.version, now.wantedOn, now.net]).toEqual([draft.version + 1, '2026-06-02', 15_700]);
  });

  it('end the supplier’s carriage once the goods reach free carriage', async () => {
    const draft = await yard.draft([await pickOf({}, 12)]);
    const picks = [await pickOf({ description: 'Plate', quantity: 40 }, 40)];
    const told = await preview(picks, { [yard.ids.suppliers[0]]: draft.id });
    expect(told.bundles[0]).toMatchObject({ adds: 32_000 - 2500, goods: 41_600, carriage: 0 });
    must(await add(picks, [{ orderId: draft.id, version: draft.version }]));
    expect((await yard.order(draft.id)).lines.map((l) => l.description)).toEqual(['Hose', 'Plate']);
    expect(await yard.tab()).toEqual({ drafted: 41_600 });
  });

  it('join nothing that is in another currency than the supplier sells in now', async () => {
    const draft = await yard.draft([await pickOf({}, 12)]);
    await yard.db('supplier').where({ id: draft.supplierId }).update({ currency: 'EUR' });
    const picks = [await pickOf({ description: 'Clamp' }, 1)];
    expect((await preview(picks)).refusals.map((r) => r.code)).toEqual(['rate.none']);
    await insertMany(yard.db, 'exchangeRate', [{ currency: 'EUR', day: TODAY, rate: '0.86' }]);
    expect((await preview(picks)).bundles[0]?.drafts).toEqual([]);
    const refused = await add(picks, [{ orderId: draft.id, version: draft.version }]);
    expect(refusedWith(refused)).toEqual(['order.currency']);
  });

  it('join nothing that was changed or sent in the meantime', async () => {
    const draft = await yard.draft([await pickOf({}, 12)]);
    const picks = [await pickOf({ description: 'Clamp' }, 1)];
    expect((await add(picks, [{ orderId: draft.id, version: draft.version - 1 }])).status).toBe('clash');
    const sent = await yard.send(draft);
    const refused = await add(picks, [{ orderId: sent.id, version: sent.version }]);
    expect(refusedWith(refused)).toEqual(['order.state']);
    expect((await preview(picks)).bundles[0]?.drafts).toEqual([]);
  });
});
