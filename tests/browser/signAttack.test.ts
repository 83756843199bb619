import { findUnproven } from '@/store/ledger';
import { findPerson, type Person } from '@/store/people';
import { checkRecord } from '@/store/seals';
import { loadToSign, type RowToSign } from '@/queries/signoff/toSign';
import { App, TODAY } from '../support/app';
import { Caller } from '../support/caller';
import { tried } from '../support/proof';

let app: App;
beforeAll(async () => {
  app = await App.own();
});
afterAll(async () => {
  expect(await app.look(findUnproven)).toEqual([]);
  expect((await app.look((db) => checkRecord(db))).faults).toEqual([]);
  await app.stop();
});

const NUMBER = 'K26-0025';
const orderOf = async () => {
  const order = await app.look((db) => db('purchaseOrder').where({ number: NUMBER }).first('id', 'version', 'state'));
  if (order === undefined) throw new Error('The order is gone.');
  return order;
};

/** What waits for somebody, as a form signs it. */
async function waitingFor(name: string): Promise<Pick<RowToSign, 'orderId' | 'version' | 'signOffId' | 'seen'>> {
  const row = await app.look(async (db) => {
    const { id = 0 } = (await db('person').where({ name }).first('id')) ?? {};
    return (await loadToSign(db, (await findPerson(db, id)) as Person, TODAY as never)).rows[0];
  });
  if (row === undefined) throw new Error(`Nothing to ${name}.`);
  const { orderId, version, signOffId, seen } = row;
  return { orderId, version, signOffId, seen };
}

/** Puts the order back to where nobody has signed it, and asks its lead and the administrator once more. */
async function askAnew(once: string): Promise<void> {
  const { id } = await orderOf();
  await app.look(async (db) => {
    await db('signOff').update({ state: 'refused' });
    await db('signRound').where({ orderId: id }).update({ state: 'refused' });
    await db('purchaseOrder').where({ id }).update({ state: 'drafting' });
  });
  const { version } = await orderOf();
  const mina = await Caller.as(app.base, 'mina');
  expect(await mina.act('requestSignOff', { once, orderId: id, version, note: '' })).toBe('done');
}

const decided = (id: number) => app.look((db) => db('signOff').where({ id }).first('state', 'decidedBy'));

describe('a signature', () => {
  it('given ten times at once is given once', async () => {
    const form = await waitingFor('Wren Hale');
    const wren = await Caller.as(app.base, 'wren');
    const outcomes = await Promise.all(
      Array.from({ length: 10 }, (_, k) => wren.act('signOff', { once: `sign-ten-${k}`, ...form, reason: '' })),
    );
    expect(outcomes.filter((o) => o === 'done')).toHaveLength(1);
    expect(outcomes.filter((o) => ['done', 'refused', 'clash'].includes(o))).toHaveLength(10);
    expect((await decided(form.signOffId))?.state).toBe('signed');
    expect((await orderOf()).state).toBe('readyToSend');
  });

  it('is nobody else’s, whatever they ask and whosever number they give', async () => {
    await askAnew('ask-for-others');
    const asked = await app.look((db) => db('signOff').select('id'));
    for (const who of ['mina', 'joss', 'bram', 'ida', 'wren'] as const) {
      const caller = await Caller.as(app.base, who);
      const { id: orderId, version } = await orderOf();
      for (const { id: signOffId } of asked)
        for (const act of ['signOff', 'refuseSignOff', 'reassignSignOff']) {
          const form = { orderId, version, signOffId, seen: 'x', reason: 'Mine', personId: 1 };
          expect(await caller.act(act, { once: `others-${who}-${act}-${signOffId}`, ...form })).not.toBe('done');
        }
    }
    expect((await orderOf()).state).toBe('withSignOff');
  });

  it('and a refusal at once come to one of both', async () => {
    await askAnew('ask-for-both');
    const form = await waitingFor('Asha Penrose');
    const asha = await Caller.as(app.base, 'asha');
    const outcomes = await Promise.all(
      Array.from({ length: 10 }, (_, k) =>
        asha.act(k % 2 === 0 ? 'signOff' : 'refuseSignOff', { once: `both-at-once-${k}`, ...form, reason: 'So it is' }),
      ),
    );
    expect(outcomes.filter((o) => o === 'done')).toHaveLength(1);
    const came = (await decided(form.signOffId))?.state;
    expect((await orderOf()).state).toBe(came === 'signed' ? 'withSignOff' : 'drafting');
  });

  it('killed while it is given stands whole or not at all, is told of, and can be given once more', async () => {
    const became = new Set<string>();
    // On a machine that is busy it takes longer until a signature stands.
    for (const wait of tried([0, 8, 20, 60, 250, 1000, 4000])) {
      if (wait > 60 && became.has('signed')) break;
      await askAnew(`ask-before-${wait}`);
      const form = await waitingFor('Asha Penrose');
      const before = await app.look((db) => db('notice').count({ n: '*' }));
      const asha = await Caller.as(app.base, 'asha');
      const signing = asha.act('signOff', { once: `killed-${wait}`, ...form, reason: '' }).catch(() => 'lost');
      await app.killAfter(wait, signing);
      await signing;
      await app.serve();
      const came = (await decided(form.signOffId))?.state ?? '';
      became.add(came);
      // With the signature the next is told, and only with it.
      const notices = await app.look((db) => db('notice').count({ n: '*' }));
      const told = Number(notices[0]?.n) - Number(before[0]?.n);
      expect({ came, told }).toEqual({ came, told: came === 'signed' ? 1 : 0 });
      const again = await Caller.as(app.base, 'asha');
      expect(await again.act('signOff', { once: `killed-${wait}`, ...form, reason: '' })).toBe('done');
      expect((await decided(form.signOffId))?.state).toBe('signed');
    }
    expect([...became].sort()).toEqual(['signed', 'waiting']);
  });
});

describe('what changes a budget or a job', () => {
  it('asked for ten times at once from one version is done once', async () => {
    const asha = await Caller.as(app.base, 'asha');
    const job = await app.look((db) => db('job').where({ number: '422' }).first('id', 'version'));
    const change = await app.look((db) =>
      db('budgetChange').where({ state: 'pending' }).orderBy('id').first('id', 'version'),
    );
    const tenTimes = async (act: string, input: object) => {
      const outcomes = await Promise.all(
        Array.from({ length: 10 }, (_, k) => asha.act(act, { once: `ten-${act}-${k}`, ...input })),
      );
      return outcomes.filter((o) => o === 'done').length;
    };
    expect(await tenTimes('agreeBudgetChange', { changeId: change?.id, version: change?.version })).toBe(1);
    expect(await tenTimes('holdJob', { jobId: job?.id, version: job?.version, reason: 'The slip is taken' })).toBe(1);
    const entries = await app.look((db) => db('budgetEntry').where({ jobId: job?.id, kind: 'change' }));
    // Two pounds hundred held back, and one hundred and eighty more: each once.
    expect(entries.map((e) => e.amount)).toEqual([-20_000, 18_000]);
  });
});
