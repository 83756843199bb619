import type { Minor, UnitPrice } from '@/core/money/money';
import { must, q, refusedWith, TestCompany, TODAY } from '../../../tests/support/company';
import { changeDraft, firstLine } from '../../../tests/support/typed';
import {
  ask,
  byLead,
  byRole,
  overspending,
  pounds,
  reprice,
  setLadder,
  setRules,
  sign,
  step,
  waitingFor,
} from '../../../tests/support/signing';
import { writeBudgetChange } from '../jobs/budgets';
import { retireCostCode } from '../company/codes';
import { nameDeputy } from './ladder';
import { setActive } from '../people/people';
import { beginRevision, changeRevision } from '../orders/revising';
import { sendOrder } from '../orders/sending';
import { withdrawSignOff } from './signOff';
import { contentOf } from '@/workings/orders/revise';

/** What signing can meet, in pairs and triples: figures are worked out by hand. */

let yard: TestCompany;
beforeEach(async () => {
  yard = await TestCompany.open();
  await yard.db('supplier').update({ carriage: 0 as Minor });
});
afterEach(() => yard.closeProven());

const send = async (id: number) => {
  const { version } = await yard.order(id);
  return sendOrder(await yard.as('buyer'), { once: yard.once(), orderId: id, version });
};
const asked = async (id: number) => (await waitingFor(yard, id)).map((a) => a.byRole ?? `person ${a.byPerson}`);
const idOf = async (role: Parameters<TestCompany['as']>[0]) => (await yard.as(role)).actor.id;
const above = (n: number) =>
  setLadder(yard, [step([byRole('manager')], { valueAbove: pounds(n) })], { share: 0, most: 0 });

describe('a limit by value', () => {
  it('in yen, with tax that is not got back, is in the company’s money, and counts from the penny above', async () => {
    await yard.db('exchangeRate').insert({ currency: 'JPY', day: TODAY, rate: '0.005' as never });
    await yard.db('supplier').update({ currency: 'JPY', taxCodeId: 2 });
    await yard.budget(100_000);
    const order = await yard.draft([{ needId: await yard.need(), buy: q(10) }]);
    // ¥ 1,667 × 10 with 20 % that stays cost: ¥ 20,004, at 0.005 £ 100.02.
    await changeDraft(yard, order, (text) => (firstLine(text).price = (1667 * 10_000) as UnitPrice));
    must(await above(100.02));
    expect(refusedWith(await ask(yard, await yard.order(order.id)))).toEqual(['signOff.none']);
    must(await above(100.01));
    expect(refusedWith(await send(order.id))).toEqual(['signOff.needed']);
    must(await ask(yard, await yard.order(order.id)));
    expect(await asked(order.id)).toEqual(['manager']);
  });

  it('counts what a discount on the order leaves of it', async () => {
    const order = await overspending(yard, 100_000);
    must(await above(90));
    await changeDraft(yard, order, (text) =>
      text.lines.push({
        ...firstLine(text),
        ...{ id: undefined, itemId: null, kind: 'charge', splits: [], chargeKind: 'discount', description: 'Discount' },
        ...{ discount: 1000, price: null, quantity: q(1) },
      } as never),
    );
    // £ 96.00 less a tenth is £ 86.40.
    expect(refusedWith(await ask(yard, await yard.order(order.id)))).toEqual(['signOff.none']);
    expect((await send(order.id)).status).toBe('done');
  });
});

describe('a budget that is passed', () => {
  it('asks nobody once a change of the budget lets it fit, and again once that is moved elsewhere', async () => {
    must(await setLadder(yard, [step([byRole('manager')], { overAbove: pounds(0) })]));
    const order = await overspending(yard, 4000);
    expect(refusedWith(await send(order.id))).toEqual(['signOff.needed']);
    const [jobId] = yard.ids.jobs;
    const change = async (lines: readonly (readonly [number, number])[]) =>
      must(
        await writeBudgetChange(await yard.as('lead'), {
          once: yard.once(),
          ...{
            jobId,
            agreed: true,
            day: TODAY,
            reason: 'Agreed',
            customerReference: '',
            agreedBy: '',
            quoteChange: null,
          },
          lines: lines.map(([code, amount]) => ({ costCodeId: yard.ids.codes[code] ?? 0, amount: amount as Minor })),
        }),
      );
    await change([[1, 5600]]);
    expect(refusedWith(await ask(yard, await yard.order(order.id)))).toEqual(['signOff.none']);
    await change([
      [1, -1],
      [0, 1],
    ]);
    expect(refusedWith(await send(order.id))).toEqual(['signOff.needed']);
  });

  it('in a revision asks for what it adds alone, also when its cost code is offered no more', async () => {
    const order = await overspending(yard, 9600);
    const sent = await yard.send(order);
    must(await setLadder(yard, [step([byRole('manager')], { overAbove: pounds(10) })]));
    const code = await yard.db('costCode').where({ id: yard.ids.codes[1] }).first();
    const ref = { once: yard.once(), id: code?.id ?? 0, version: code?.version ?? 0 };
    must(await retireCostCode(await yard.as('administrator'), { ...ref, gone: true }));
    const revise = async (price: number) => {
      const now = await yard.order(sent.id);
      const { lines, ...terms } = contentOf(now);
      const dearer = lines.map((l) => ({ ...l, price: (price * 10_000) as UnitPrice }));
      must(
        await changeRevision(await yard.as('buyer'), {
          ...{ once: yard.once(), orderId: sent.id, version: now.version },
          ...terms,
          lines: dearer as never,
        }),
      );
    };
    const begun = { once: yard.once(), orderId: sent.id, version: sent.version, reason: 'Dearer' };
    must(await beginRevision(await yard.as('buyer'), begun));
    await revise(8.5);
    // Twelve at 50p more are £ 6.00 over: within what the step lets pass.
    expect(refusedWith(await ask(yard, await yard.order(sent.id)))).toEqual(['signOff.none']);
    await revise(9);
    must(await ask(yard, await yard.order(sent.id)));
    must(await sign(yard, sent.id, 'manager'));
    expect((await send(sent.id)).status).toBe('done');
  });
});

describe('several people', () => {
  it('who are one and the same sign a step once: the lead who is named as well', async () => {
    const lead = await idOf('lead');
    must(await setLadder(yard, [step([byLead, { kind: 'person', personId: lead }])]));
    const order = await overspending(yard);
    must(await ask(yard, order));
    expect(await asked(order.id)).toEqual([`person ${lead}`]);
    must(await sign(yard, order.id, 'lead'));
    expect((await send(order.id)).status).toBe('done');
  });

  it('of whom the deputy wrote the order: it waits for the one who is away', async () => {
    must(await setLadder(yard, [step([byRole('manager')])]));
    const away = { personId: await idOf('manager'), deputyId: await idOf('buyer'), fromDay: TODAY, toDay: TODAY };
    must(await nameDeputy(await yard.as('manager'), { once: yard.once(), ...away }));
    const order = await overspending(yard);
    must(await ask(yard, order));
    expect(refusedWith(await sign(yard, order.id, 'buyer'))).toEqual(['signOff.own']);
    must(await sign(yard, order.id, 'manager'));
  });

  it('of whom the one who is asked leaves: nobody is let in their place, and the buyer takes it back', async () => {
    const accounts = await idOf('accounts');
    must(await setLadder(yard, [step([{ kind: 'person', personId: accounts }])]));
    const order = await overspending(yard);
    must(await ask(yard, order));
    const person = await yard.db('person').where({ id: accounts }).first('version');
    must(
      await setActive(await yard.as('administrator'), {
        personId: accounts,
        version: person?.version ?? 0,
        active: false,
      }),
    );
    expect(refusedWith(await sign(yard, order.id, 'manager'))).toEqual(['signOff.notYours']);
    expect(refusedWith(await send(order.id))).toEqual(['order.state']);
    const { version } = await yard.order(order.id);
    must(await withdrawSignOff(await yard.as('buyer'), { orderId: order.id, version }));
    expect((await yard.order(order.id)).state).toBe('drafting');
    // Nor can it be asked for again while nobody could sign it.
    expect(refusedWith(await ask(yard, await yard.order(order.id)))).toEqual(['signOff.nobody']);
  });

  it('of whom one changes the order while another signs: the signature is for what was shown', async () => {
    must(await setLadder(yard, [step([byRole('manager')]), step([byRole('administrator')])], { share: 0, most: 0 }));
    const order = await overspending(yard);
    must(await ask(yard, order));
    must(await sign(yard, order.id, 'manager'));
    must(await sign(yard, order.id, 'administrator'));
    const dearer = await reprice(yard, order.id, 8.01);
    expect(refusedWith(await send(dearer.id))).toEqual(['signOff.needed']);
    await reprice(yard, order.id, 8);
    expect((await send(order.id)).status).toBe('done');
  });
});

describe('a rule and the ladder', () => {
  it('on hold and over budget, both say so; the one that forbids wins', async () => {
    must(await setLadder(yard, [step([byRole('manager')], { onRule: true })]));
    must(await setRules(yard, { onHold: 'forbid', forecastOfCode: 'signOff' }));
    const order = await overspending(yard);
    expect(refusedWith(await send(order.id))).toEqual(['signOff.needed']);
    await yard.db('job').update({ onHold: 'Waits for the customer' });
    expect(refusedWith(await ask(yard, order))).toEqual(['rule.forbids']);
    expect(refusedWith(await send(order.id))).toEqual(['rule.forbids']);
  });
});
