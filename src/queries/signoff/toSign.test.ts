import { must, TestCompany, TODAY } from '../../../tests/support/company';
import { ask, byRole, overspending, setLadder, step } from '../../../tests/support/signing';
import { reassignSignOff, signOff } from '@/actions/signoff/signOff';
import { listToSign, loadToSign } from './toSign';

let yard: TestCompany;
beforeEach(async () => {
  yard = await TestCompany.open();
  must(await setLadder(yard, [step([byRole('manager')])]));
});
afterEach(() => yard.closeProven());

const rows = async (role: 'manager' | 'accounts') => loadToSign(yard.db, (await yard.as(role)).actor, TODAY);

describe('what waits for a person’s signature', () => {
  it('says what it comes to and which budgets it leaves passed, and can be signed as it is told', async () => {
    const order = await overspending(yard);
    must(await ask(yard, order));
    const { rows: told, more } = await rows('manager');
    expect(more).toBe(0);
    expect(told).toMatchObject([{ number: order.number, orderId: order.id, seen: expect.any(String) as string }]);
    const [row] = told;
    expect(row?.over).toEqual([expect.stringMatching(/^412 · 02 by £\u202f\d/)]);
    const { orderId, version = 0, signOffId = 0, seen = '' } = row ?? {};
    const answer = await signOff(await yard.as('manager'), {
      once: yard.once(),
      orderId: orderId ?? 0,
      version,
      signOffId,
      seen,
      reason: '',
    });
    expect(answer).toMatchObject({ status: 'done', value: { left: 0 } });
    expect((await rows('manager')).rows).toEqual([]);
  });

  it('is nothing of what waits for others, until it is handed on', async () => {
    const order = await overspending(yard);
    must(await ask(yard, order));
    expect((await rows('accounts')).rows).toEqual([]);
    const [mine] = await listToSign(yard.db, (await yard.as('manager')).actor, TODAY);
    const { version } = await yard.order(order.id);
    const to = (await yard.as('accounts')).actor.id;
    const ref = { once: yard.once(), orderId: order.id, version, signOffId: mine?.signOffId ?? 0 };
    must(await reassignSignOff(await yard.as('manager'), { ...ref, personId: to, reason: 'I am away' }));
    expect((await rows('accounts')).rows).toHaveLength(1);
    expect((await rows('manager')).rows).toEqual([]);
  });
});
