import type { Minor } from '@/core/money/money';
import { may, ROLES, type Role } from '@/core/people/rights';
import { listDue } from '@/queries/dock/dock';
import { loadDockOrder } from '@/queries/dock/order';
import { find } from '@/queries/frame/find';
import { loadDesk } from '@/queries/frame/desk';
import { loadFrame } from '@/queries/frame/frame';
import { listJobs } from '@/queries/jobs/jobs';
import { loadBuyList } from '@/queries/buying/buyList';
import { listOrders } from '@/queries/orders/orders';
import { findPerson } from '@/store/people';
import { ACTIONS, ASKS } from '../../tests/support/actions';
import { must, q, refusedWith, TestCompany, TODAY } from '../../tests/support/company';
import type { Outcome, Setting } from './action';
import { chooseTheme } from './people/people';
import { receive } from './dock/receiving';
import { reverseReceipt } from './dock/correcting';

/** Every amount of this company has these digits in it, whether as pence, as a price or as it is written. */
const MARK = /6,?173/;
const PRICE = 6173.61;

const WITHOUT_MONEY = ROLES.filter((role) => !may({ roles: [role] }, 'see money'));

let yard: TestCompany;
beforeEach(async () => {
  yard = await TestCompany.open();
  await yard.db('supplier').update({ carriage: 0 as Minor });
  await yard.db('taxCode').update({ rate: 0 });
});
afterEach(() => yard.close());

const ordered = async () => yard.send(await yard.draft([{ needId: await yard.need({ price: PRICE }), buy: q(1) }]));

/** Everybody's, and those of roles that the test company has nobody for. */
async function as(role: Role): Promise<Setting> {
  const setting = await yard.as('buyer');
  return { ...setting, actor: { ...setting.actor, roles: [role] } };
}

describe('who may not see money', () => {
  it('is two roles, and the mark is on what others see', async () => {
    expect(WITHOUT_MONEY).toEqual(['storekeeper', 'field']);
    const order = await ordered();
    expect(JSON.stringify(order)).toMatch(MARK);
    const person = await findPerson(yard.db, 1);
    if (person === undefined) throw new Error('There is nobody.');
    expect(JSON.stringify((await listOrders(yard.db, person, {}, TODAY)).rows)).toMatch(MARK);
  });

  it('hears of none, whatever comes of what they do', async () => {
    const told: Outcome<unknown>[] = [];
    for (const role of WITHOUT_MONEY) {
      const setting = await as(role);
      const order = await ordered();
      const line = order.lines[0]?.id ?? 0;
      const take = (version: number, arrives: number, lineId = line) =>
        receive(setting, {
          once: yard.once(),
          orderId: order.id,
          version,
          note: '',
          arrivals: [{ lineId, arrives: q(arrives), keepOver: false }],
        });
      told.push(await take(0, 1), await take(order.version, 9), await take(order.version, 1, 999));
      told.push(await take(order.version, 1), await take(order.version, 1));
      const receipt = (await yard.db('receipt').where({ orderId: order.id }).first('id'))?.id ?? 0;
      const back = () => reverseReceipt(setting, { once: yard.once(), receiptId: receipt });
      if (may(setting.actor, 'receive')) {
        must(await yard.match(must(await yard.invoice(await yard.order(order.id), 1)).id, 'passed'));
        const kept = await back();
        expect(refusedWith(kept)).toEqual(['receipt.invoiced']);
        told.push(kept);
      }
      told.push(await chooseTheme(setting, { theme: 'evening' }));
      for (const action of ACTIONS)
        if (!may(setting.actor, ASKS[action.name] ?? 'see money'))
          told.push(await action(setting, { orderId: order.id, id: order.id, jobId: 1, needId: 1 } as never));
    }
    expect(new Set(told.map((o) => o.status))).toEqual(new Set(['done', 'refused', 'clash']));
    expect(JSON.stringify(told)).not.toMatch(MARK);
  });

  it.each(WITHOUT_MONEY)('a %s sees none on any page', async (role) => {
    const order = await ordered();
    await yard.db('openJob').insert({ personId: 1, jobId: yard.ids.jobs[0], place: 1 });
    const { actor } = await as(role);
    const seen = [
      await loadFrame(yard.db, actor, TODAY),
      await loadDesk(yard.db, actor, TODAY),
      await listJobs(yard.db, actor, {}),
      await loadBuyList(yard.db, actor, yard.ids.jobs[0] ?? 0, TODAY),
      may(actor, 'see orders') ? await listOrders(yard.db, actor, {}, TODAY) : null,
      await listDue(yard.db, actor, TODAY),
      await loadDockOrder(yard.db, actor, order.number),
      await find(yard.db, actor, order.number),
    ];
    expect(JSON.stringify(seen)).toContain(order.number);
    expect(JSON.stringify(seen)).not.toMatch(MARK);
  });
});
