import { must, refusedWith, TestCompany, TODAY } from '../../../tests/support/company';
import {
  ask,
  overspending,
  threeSteps,
  byLead,
  byRole,
  pounds,
  setLadder,
  sign,
  step,
  waitingFor,
} from '../../../tests/support/signing';
import type { Day } from '@/core/calendar/workdays';
import { nameDeputy, saveOwnLimit } from './ladder';
import { changeOrder } from '../orders/orders';
import { reassignSignOff } from './signOff';
import { contentOf } from '@/workings/orders/revise';

let yard: TestCompany;
beforeEach(async () => {
  yard = await TestCompany.open();
});
afterEach(() => yard.closeProven());

const places = async (id: number) => (await waitingFor(yard, id)).map((a) => a.place);
const personOf = async (role: Parameters<TestCompany['as']>[0]) => (await yard.as(role)).actor.id;

describe('who signs', () => {
  const other = async (role: Parameters<TestCompany['as']>[0], ...more: Parameters<TestCompany['as']>[0][]) => {
    for (const r of more) await yard.db('personRole').insert({ personId: await personOf(role), role: r });
  };

  it('is nobody who wrote on it beyond their own limit, whatever their role', async () => {
    await other('buyer', 'manager');
    must(await setLadder(yard, [step([byRole('manager')])]));
    const order = await overspending(yard);
    must(await ask(yard, order));
    expect(refusedWith(await sign(yard, order.id, 'buyer'))).toEqual(['signOff.own']);
    const person = await yard
      .db('person')
      .where({ id: await personOf('buyer') })
      .first('version');
    const limit = { personId: await personOf('buyer'), version: person?.version ?? 0, ownLimit: pounds(96) };
    must(await saveOwnLimit(await yard.as('administrator'), limit));
    must(await sign(yard, order.id, 'buyer'));
  });

  it('is told when nobody can: the only one wrote it', async () => {
    await other('buyer', 'lead');
    await yard.db('job').update({ leadId: await personOf('buyer') });
    must(await setLadder(yard, [step([byLead])]));
    expect(refusedWith(await ask(yard, await overspending(yard)))).toEqual(['signOff.nobody']);
  });

  it('is a manager for what is bought for stores, which has no lead', async () => {
    must(await setLadder(yard, [step([byLead])]));
    const order = await overspending(yard);
    const { lines, ...terms } = contentOf(order);
    const toStores = lines.map((l) => ({
      ...l,
      splits: l.splits.map((s) => ({ ...s, jobId: null, costCodeId: null })),
    }));
    const change = { once: yard.once(), orderId: order.id, version: order.version, ...terms, lines: toStores as never };
    must(await changeOrder(await yard.as('buyer'), change));
    must(await ask(yard, await yard.order(order.id)));
    expect(refusedWith(await sign(yard, order.id, 'lead'))).toEqual(['signOff.notYours']);
    must(await sign(yard, order.id, 'manager'));
  });

  it('is a deputy on the days named, in the name of the other', async () => {
    must(await threeSteps(yard));
    const [manager, accounts] = [await personOf('manager'), await personOf('accounts')];
    const day = (d: string) => d as Day;
    const fresh = { personId: manager, deputyId: accounts, fromDay: day('2026-05-12'), toDay: day('2026-05-15') };
    expect(refusedWith(await nameDeputy(await yard.as('buyer'), { once: yard.once(), ...fresh }))).toEqual([
      'deputy.others',
    ]);
    must(await nameDeputy(await yard.as('manager'), { once: yard.once(), ...fresh }));
    const order = await overspending(yard);
    must(await ask(yard, order));
    must(await sign(yard, order.id, 'lead'));
    must(await sign(yard, order.id, 'accounts'));
    const given = await yard.db('signOff').where({ place: 2 }).first();
    expect([given?.decidedBy, given?.forId]).toEqual([accounts, manager]);
    expect((await yard.order(order.id)).state).toBe('readyToSend');
  });

  it('is never one person for themselves and for another', async () => {
    must(await threeSteps(yard));
    await yard
      .db('deputy')
      .insert({ personId: await personOf('manager'), deputyId: await personOf('lead'), fromDay: TODAY, toDay: TODAY });
    const order = await overspending(yard);
    must(await ask(yard, order));
    must(await sign(yard, order.id, 'lead'));
    expect(refusedWith(await sign(yard, order.id, 'lead'))).toEqual(['signOff.twice']);
  });

  it('may be another, to whom it was handed on', async () => {
    must(await threeSteps(yard));
    const order = await overspending(yard);
    must(await ask(yard, order));
    const [first] = await waitingFor(yard, order.id);
    const { version } = await yard.order(order.id);
    const hand = async (by: 'lead' | 'accounts', to: number) =>
      reassignSignOff(await yard.as(by), {
        once: yard.once(),
        orderId: order.id,
        version,
        signOffId: first?.id ?? 0,
        personId: to,
        reason: 'Away',
      });
    const accounts = await personOf('accounts');
    expect(refusedWith(await hand('accounts', accounts))).toEqual(['signOff.notYours']);
    expect(refusedWith(await hand('lead', await personOf('storekeeper')))).toEqual(['handOn.who']);
    expect(refusedWith(await hand('lead', await personOf('buyer')))).toEqual(['handOn.own']);
    must(await hand('lead', accounts));
    expect(refusedWith(await sign(yard, order.id, 'lead'))).toEqual(['signOff.notYours']);
    must(await sign(yard, order.id, 'accounts'));
    expect(await places(order.id)).toEqual([2]);
  });
});
