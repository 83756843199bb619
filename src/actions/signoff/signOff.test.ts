import { must, q, refusedWith, TestCompany, TODAY } from '../../../tests/support/company';
import {
  ask,
  overspending,
  threeSteps,
  byLead,
  byRole,
  pounds,
  reprice,
  seen,
  setLadder,
  setRules,
  sign,
  step,
  waitingFor,
} from '../../../tests/support/signing';
import { chargeElsewhere } from '../orders/charging';
import { changeOrder } from '../orders/orders';
import { beginRevision, changeRevision } from '../orders/revising';
import { markSentByHand, sendOrder } from '../orders/sending';
import { loadDesk } from '@/queries/frame/desk';
import { refuseSignOff, remindSigners, signOff, withdrawSignOff } from './signOff';
import { contentOf } from '@/workings/orders/revise';
import type { StoredOrder } from '@/store/orders';

let yard: TestCompany;
beforeEach(async () => {
  yard = await TestCompany.open();
});
afterEach(() => yard.closeProven());

const trySend = async (order: StoredOrder) =>
  sendOrder(await yard.as('buyer'), { once: yard.once(), orderId: order.id, version: order.version });

const places = async (id: number) => (await waitingFor(yard, id)).map((a) => a.place);
const notices = async () =>
  (
    await yard.db('notice as n').join('person as p', 'p.id', 'n.personId').orderBy('n.id').select('n.subject', 'p.name')
  ).map((n: { subject: string; name: string }) => `${n.name}: ${n.subject}`);

describe('an order with a ladder over it', () => {
  it('is not sent before it is signed, by mail or by hand', async () => {
    must(await threeSteps(yard));
    const order = await overspending(yard);
    expect(refusedWith(await trySend(order))).toEqual(['signOff.needed']);
    const byHand = { once: yard.once(), orderId: order.id, version: order.version };
    expect(refusedWith(await markSentByHand(await yard.as('buyer'), byHand))).toEqual(['signOff.needed']);
    expect((await yard.order(order.id)).state).toBe('drafting');
  });

  it('asks only for the steps that it reaches, and is sent once they are signed in sequence', async () => {
    must(await threeSteps(yard));
    const order = await overspending(yard);
    must(await ask(yard, order));
    // 96.00 on a budget of 40.00: over by 56.00, and not above 150.00.
    expect(await places(order.id)).toEqual([1, 2]);
    expect((await yard.order(order.id)).state).toBe('withSignOff');
    expect(refusedWith(await sign(yard, order.id, 'manager'))).toEqual(['signOff.notYours']);
    must(await sign(yard, order.id, 'lead'));
    must(await sign(yard, order.id, 'manager', 'price up since March'));
    const signed = await yard.order(order.id);
    expect(signed.state).toBe('readyToSend');
    must(await trySend(signed));
    expect((await yard.order(order.id)).state).toBe('sent');
    expect(yard.sent).toHaveLength(1);
  });

  it('needs nobody where no step is reached', async () => {
    must(await setLadder(yard, [step([byRole('manager')], { valueAbove: pounds(96) })]));
    const order = await overspending(yard);
    expect(refusedWith(await ask(yard, order))).toEqual(['signOff.none']);
    must(await trySend(order));
  });

  it('is signed in sequence only: a later step waits for the earlier', async () => {
    must(await threeSteps(yard));
    const order = await overspending(yard);
    must(await ask(yard, order));
    const [, second] = await waitingFor(yard, order.id);
    const { version } = await yard.order(order.id);
    const ref = { once: yard.once(), orderId: order.id, version, signOffId: second?.id ?? 0 };
    const early = await signOff(await yard.as('manager'), { ...ref, seen: await seen(yard, order.id) });
    expect(refusedWith(early)).toEqual(['signOff.order']);
  });

  it('lets several of one step sign in any order', async () => {
    must(await setLadder(yard, [step([byRole('manager'), byRole('accounts'), byLead])]));
    const order = await overspending(yard);
    must(await ask(yard, order));
    const [manager, accounts, lead] = await waitingFor(yard, order.id);
    for (const [row, role] of [
      [lead, 'lead'],
      [manager, 'manager'],
      [accounts, 'accounts'],
    ] as const) {
      const { version, state } = await yard.order(order.id);
      expect(state).toBe('withSignOff');
      const ref = { once: yard.once(), orderId: order.id, version, signOffId: row?.id ?? 0 };
      must(await signOff(await yard.as(role), { ...ref, seen: await seen(yard, order.id) }));
    }
    expect((await yard.order(order.id)).state).toBe('readyToSend');
  });

  it('goes back to drafting when it is refused, with the reason, and keeps what was signed before', async () => {
    must(await threeSteps(yard));
    const order = await overspending(yard);
    must(await ask(yard, order));
    must(await sign(yard, order.id, 'lead'));
    const [row] = await waitingFor(yard, order.id);
    const { version } = await yard.order(order.id);
    const ref = { orderId: order.id, version, signOffId: row?.id ?? 0 };
    const bare = await refuseSignOff(await yard.as('manager'), { once: yard.once(), ...ref, reason: ' ' });
    expect(refusedWith(bare)).toEqual(['input']);
    must(await refuseSignOff(await yard.as('manager'), { once: yard.once(), ...ref, reason: 'Ask another supplier' }));
    const desk = await loadDesk(yard.db, (await yard.as('buyer')).actor, TODAY);
    const [first] = desk.find((g) => g.title === 'To send')?.rows ?? [];
    expect([first?.word, first?.text]).toEqual(['Declined', expect.stringMatching(/ by .+, “Ask another supplier”$/)]);
    expect((await yard.order(order.id)).state).toBe('drafting');
    expect(await waitingFor(yard, order.id)).toEqual([]);
    expect(await notices()).toContain('The buyer: Declined: order ' + order.number);
    // Cheaper: the lead agreed to more, so only the manager is asked again.
    must(await ask(yard, await reprice(yard, order.id, 7.9)));
    expect(await places(order.id)).toEqual([2]);
  });

  it('cannot be changed while it is signed, and can be taken back', async () => {
    must(await threeSteps(yard));
    const order = await overspending(yard);
    must(await ask(yard, order));
    const locked = await yard.order(order.id);
    const { lines, ...terms } = contentOf(locked);
    const change = { once: yard.once(), orderId: order.id, version: locked.version, ...terms, lines: lines as never };
    expect(refusedWith(await changeOrder(await yard.as('buyer'), change))).toEqual(['order.state']);
    must(await withdrawSignOff(await yard.as('buyer'), { orderId: order.id, version: locked.version }));
    expect((await yard.order(order.id)).state).toBe('drafting');
    expect(refusedWith(await sign(yard, order.id, 'lead'))).toEqual(['signOff.over']);
  });
});

describe('a signed order that is changed', () => {
  const ready = async () => {
    must(await threeSteps(yard));
    const order = await overspending(yard);
    must(await ask(yard, order));
    must(await sign(yard, order.id, 'lead'));
    must(await sign(yard, order.id, 'manager'));
    return yard.order(order.id);
  };

  it('stays ready when it comes to no more than the tolerance', async () => {
    const order = await ready();
    // 2 % of 96.00 is 1.92: 12 × 8.16 is 97.92.
    expect((await reprice(yard, order.id, 8.16)).state).toBe('readyToSend');
    must(await trySend(await yard.order(order.id)));
  });

  it('is drafted again and asks again beyond it, and only the steps that are affected', async () => {
    const order = await ready();
    const dearer = await reprice(yard, order.id, 8.17);
    expect(dearer.state).toBe('drafting');
    expect(refusedWith(await trySend(dearer))).toEqual(['signOff.needed']);
    must(await ask(yard, dearer));
    expect(await places(order.id)).toEqual([1, 2]);
  });

  it('asks a further step when it reaches that, and not those that it did not touch', async () => {
    must(
      await setLadder(yard, [step([byLead]), step([byRole('manager')], { valueAbove: pounds(150) })], {
        share: 10_000,
        most: 100_000,
      }),
    );
    const order = await overspending(yard, 100_000);
    must(await ask(yard, order));
    must(await sign(yard, order.id, 'lead'));
    const dearer = await reprice(yard, order.id, 15);
    expect(dearer.state).toBe('drafting');
    must(await ask(yard, dearer));
    // 180.00 is within twice what the lead signed.
    expect(await places(order.id)).toEqual([2]);
  });

  it('asks the lead again when another job is charged', async () => {
    const order = await ready();
    const { lines, ...terms } = contentOf(order);
    const elsewhere = lines.map((l) => ({ ...l, splits: l.splits.map((s) => ({ ...s, jobId: yard.ids.jobs[1] })) }));
    const change = {
      once: yard.once(),
      orderId: order.id,
      version: order.version,
      ...terms,
      lines: elsewhere as never,
    };
    must(await changeOrder(await yard.as('buyer'), change));
    const moved = await yard.order(order.id);
    expect(moved.state).toBe('drafting');
    expect(refusedWith(await trySend(moved))).toEqual(['signOff.needed']);
  });
});

describe('a revision of what was sent', () => {
  async function sentOrder() {
    const order = await overspending(yard, 100_000);
    must(await trySend(order));
    must(await setLadder(yard, [step([byRole('manager')], { valueAbove: pounds(50) })]));
    return yard.order(order.id);
  }
  const reviseTo = async (order: StoredOrder, price: number) => {
    const begun = { once: yard.once(), orderId: order.id, version: order.version, reason: 'New price' };
    must(await beginRevision(await yard.as('buyer'), begun));
    const { version } = await yard.order(order.id);
    const { lines, ...terms } = contentOf(order);
    const priced = lines.map((l) => ({ ...l, price: price * 10_000 }));
    const change = { once: yard.once(), orderId: order.id, version, ...terms, lines: priced as never };
    must(await changeRevision(await yard.as('buyer'), change));
    return yard.order(order.id);
  };

  it('that costs no more needs nobody: what was sent is agreed', async () => {
    must(await trySend(await reviseTo(await sentOrder(), 7)));
    expect(yard.sent).toHaveLength(2);
  });

  it('that costs more is signed, locked meanwhile, and only then sent', async () => {
    const order = await reviseTo(await sentOrder(), 9);
    expect(refusedWith(await trySend(order))).toEqual(['signOff.needed']);
    must(await ask(yard, order));
    const asked = await yard.order(order.id);
    expect(asked.state).toBe('sent');
    expect(refusedWith(await trySend(asked))).toEqual(['signOff.open']);
    const { lines, ...terms } = contentOf(asked);
    const change = { once: yard.once(), orderId: order.id, version: asked.version, ...terms, lines: lines as never };
    expect(refusedWith(await changeRevision(await yard.as('buyer'), change))).toEqual(['signOff.open']);
    must(await sign(yard, order.id, 'manager'));
    must(await trySend(await yard.order(order.id)));
    expect((await yard.order(order.id)).revision).toBe(1);
  });

  it('is not gone round by charging it elsewhere', async () => {
    const order = await sentOrder();
    must(await setLadder(yard, [step([byRole('manager')], { overAbove: pounds(0) })]));
    await yard.budget(1000, 1);
    const split = order.lines[0]?.splits[0];
    const ref = { once: yard.once(), orderId: order.id, version: order.version, reason: 'Wrong job' };
    const splits = [{ id: split?.id ?? 0, jobId: yard.ids.jobs[1], costCodeId: yard.ids.codes[1] }];
    expect(refusedWith(await chargeElsewhere(await yard.as('buyer'), { ...ref, splits }))).toEqual(['signOff.needed']);
    // Who may sign it off may do it.
    must(await chargeElsewhere(await yard.as('manager'), { ...ref, once: yard.once(), splits }));
  });
});

describe('what a signer saw', () => {
  it('is what they sign: when a budget moved meanwhile they look again', async () => {
    must(await threeSteps(yard));
    const order = await overspending(yard);
    must(await ask(yard, order));
    const shown = await seen(yard, order.id);
    await yard.budget(-1000);
    const [row] = await waitingFor(yard, order.id);
    const { version } = await yard.order(order.id);
    const ref = { once: yard.once(), orderId: order.id, version, signOffId: row?.id ?? 0 };
    expect((await signOff(await yard.as('lead'), { ...ref, seen: shown })).status).toBe('clash');
    must(await sign(yard, order.id, 'lead'));
  });

  it('two at once: the second is told that it is signed', async () => {
    must(await setLadder(yard, [step([byRole('manager')])]));
    const order = await overspending(yard);
    must(await ask(yard, order));
    const [row] = await waitingFor(yard, order.id);
    const { version } = await yard.order(order.id);
    const ref = { orderId: order.id, version, signOffId: row?.id ?? 0, seen: await seen(yard, order.id) };
    const manager = await yard.as('manager');
    const both = await Promise.all([
      signOff(manager, { ...ref, once: yard.once() }),
      signOff(manager, { ...ref, once: yard.once() }),
    ]);
    expect(both.map((b) => b.status).sort()).toEqual(['clash', 'done']);
    expect(await yard.db('signOff').where({ state: 'signed' })).toHaveLength(1);
  });
});

describe('who is told', () => {
  it('are those who sign now, then the next, then the one who asked', async () => {
    must(await threeSteps(yard));
    const order = await overspending(yard);
    must(await ask(yard, order));
    must(
      await remindSigners(await yard.as('buyer'), {
        once: yard.once(),
        orderId: order.id,
        version: (await yard.order(order.id)).version,
      }),
    );
    must(await sign(yard, order.id, 'lead'));
    must(await sign(yard, order.id, 'manager'));
    const { number } = order;
    expect(await notices()).toEqual([
      `The lead: Please sign: order ${number}, Eelmoor Metals`,
      `The lead: Reminder, please sign: order ${number}, Eelmoor Metals`,
      `The manager: Please sign: order ${number}, Eelmoor Metals`,
      `The buyer: Signed: order ${number}`,
    ]);
  });
});

describe('a rule', () => {
  it('that forbids keeps an order from being sent, and from being asked for', async () => {
    must(await setRules(yard, { forecastOfCode: 'forbid' }));
    const order = await overspending(yard);
    expect(refusedWith(await trySend(order))).toEqual(['rule.forbids']);
    expect(refusedWith(await ask(yard, order))).toEqual(['rule.forbids']);
  });

  it('that asks for sign-off brings in the step that signs for rules', async () => {
    expect(refusedWith(await setRules(yard, { noBudget: 'signOff' }))).toEqual(['ladder.rules']);
    must(await setLadder(yard, [step([byRole('manager')], { onRule: true })]));
    must(await setRules(yard, { noBudget: 'signOff' }));
    const order = await yard.draft([{ needId: await yard.need(), buy: q(12) }]);
    expect(refusedWith(await trySend(order))).toEqual(['signOff.needed']);
    must(await ask(yard, order));
    must(await sign(yard, order.id, 'manager'));
    must(await trySend(await yard.order(order.id)));
  });
});
