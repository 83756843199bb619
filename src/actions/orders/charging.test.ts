import type { Minor } from '@/core/money/money';
import { must, q, refusedWith, TestCompany, TODAY } from '../../../tests/support/company';
import { orderInput } from '../../../tests/support/typed';
import { chargeElsewhere } from './charging';
import { enterInvoice } from '../invoices/invoices';
import { openJob } from '../jobs/jobs';
import { changeOrder, draftOrders } from './orders';
import { scrapStock } from '../stores/moving';
import type { StoredOrder } from '@/store/orders';

let yard: TestCompany;
beforeEach(async () => {
  yard = await TestCompany.open();
});
afterEach(() => yard.closeProven());

const second = async (state: 'quoted' | 'live' | 'complete' | 'lost') =>
  yard.db('job').where({ id: yard.ids.jobs[1] }).update({ state });

describe.each(['quoted', 'complete', 'lost'] as const)('a job that is %s is charged with nothing', (state) => {
  it('that is picked for it', async () => {
    const needId = await yard.need({ job: 1 });
    await second(state);
    const input = { once: yard.once(), picks: [{ needId, buy: q(1) }] };
    expect(refusedWith(await draftOrders(await yard.as('buyer'), input))).toEqual(['job.state']);
  });

  it('that an order is given for it', async () => {
    const draft = await yard.draft([{ needId: await yard.need(), buy: q(2) }]);
    await second(state);
    const typed = orderInput(draft);
    const lines = typed.lines.map((l) => ({
      ...l,
      splits: l.splits.map((s) => ({ ...s, jobId: s.jobId === null ? null : (yard.ids.jobs[1] ?? 0) })),
    }));
    const input = { once: yard.once(), orderId: draft.id, version: draft.version, ...typed, lines };
    expect(refusedWith(await changeOrder(await yard.as('buyer'), input as never))).toEqual(['job.state']);
  });

  it('that an invoice has beside the order', async () => {
    const order = await yard.send(await yard.draft([{ needId: await yard.need(), buy: q(2) }]));
    await second(state);
    const to = { kind: 'job' as const, jobId: yard.ids.jobs[1] ?? 0, costCodeId: yard.ids.codes[0] ?? 0 };
    const extras = [{ description: 'Fee', net: 900 as Minor, taxCodeId: 2, to }];
    const invoice = { orderId: order.id, number: 'A 1', day: TODAY, typedTotal: 900 as Minor, lines: [], extras };
    expect(refusedWith(await enterInvoice(await yard.as('accounts'), { once: yard.once(), ...invoice }))).toEqual([
      'job.state',
    ]);
    await second('live');
    must(await enterInvoice(await yard.as('accounts'), { once: yard.once(), ...invoice }));
    for (const number of ['A 1', 'a1', ' A  1 '])
      expect(
        refusedWith(await enterInvoice(await yard.as('accounts'), { once: yard.once(), ...invoice, number })),
      ).toEqual(['invoice.number']);
  });
});

describe('an order that was sent', () => {
  const attach = async (state: 'quoted' | 'complete') => {
    const order = await yard.send(await yard.draft([{ needId: await yard.need(), buy: q(12) }]));
    await second(state);
    const split = { id: order.lines[0]?.splits[0]?.id ?? 0, jobId: yard.ids.jobs[1], costCodeId: yard.ids.codes[1] };
    const ref = { once: yard.once(), orderId: order.id, version: order.version, reason: 'for their quote' };
    return chargeElsewhere(await yard.as('buyer'), { ...ref, splits: [split] });
  };

  it('can be attached to a job whose quote is not won yet, with what stands on the tab for it', async () => {
    must(await attach('quoted'));
    expect([await yard.tab(), await yard.tab(1)]).toEqual([{ planned: 9600 }, { onOrder: 9600 + 2500 }]);
  });

  it('cannot be attached to one that is complete', async () => {
    expect(refusedWith(await attach('complete'))).toEqual(['job.state']);
  });
});

it.each(['new', 'New', 'NEW'])('a job is not called %s, which is the address of its form', async (number) => {
  const job = { number, name: 'Job', shortName: '', kind: 'repair' as const, customer: 'A', leadId: 1, site: '' };
  const input = { once: yard.once(), ...job, startsOn: '', dueOn: '' };
  expect(refusedWith(await openJob(await yard.as('buyer'), input))).toEqual(['input']);
});

it('goods of which some were scrapped at the average of all stay with their job, whose pile keeps what is left', async () => {
  await yard.db('supplier').update({ carriage: 0 as never });
  const item = yard.ids.items[0];
  const ordered = async (price: number) =>
    yard.send(await yard.draft([{ needId: await yard.need({ item, price, quantity: 1 }), buy: q(1) }]));
  const [dear, cheap] = [await ordered(10), await ordered(2)];
  must(await yard.takeIn(dear, 1));
  must(await yard.takeIn(cheap, 1));
  const pile = { itemId: item, placeId: 1, jobId: yard.ids.jobs[0], quantity: q(1) };
  must(await scrapStock(await yard.as('storekeeper'), { once: yard.once(), ...pile, reason: 'bent' }));
  const move = async (of: StoredOrder) => {
    const { version, lines } = await yard.order(of.id);
    const splits = lines.flatMap((l) =>
      l.splits.map((s) => ({ id: s.id, jobId: yard.ids.jobs[1], costCodeId: yard.ids.codes[1] })),
    );
    const ref = { once: yard.once(), orderId: of.id, version };
    return chargeElsewhere(await yard.as('buyer'), { ...ref, splits, reason: 'wrong job' });
  };
  // 6.00 are left of 12.00: neither order's piece is worth that.
  expect(refusedWith(await move(dear))).toEqual(['split.issued']);
  expect(refusedWith(await move(cheap))).toEqual(['split.issued']);
  expect(await yard.db('stockSum').where({ itemId: item }).select('quantity', 'value')).toEqual([
    { quantity: q(1), value: 600 },
  ]);
});
