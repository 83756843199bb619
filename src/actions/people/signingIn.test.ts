import { findSession, insertSession, listSessions } from '@/store/sessions';
import { must, refusedWith, TestCompany, TODAY } from '../../../tests/support/company';
import { hashPassword } from './passwords';
import { setActive, startReset } from './people';
import { changePassword, choosePassword, endMySessions, resetPassword, signIn, signOut } from './signingIn';

const GOOD = 'a long password';
const EMAIL = 'buyer@yard.example';
const at = (seconds: number) => ({
  today: () => TODAY,
  now: () => new Date(Date.parse(`${TODAY}T10:00:00.000Z`) + seconds * 1000).toISOString(),
});

let yard: TestCompany;
let goodHash: string;
beforeAll(async () => {
  goodHash = await hashPassword(GOOD);
});
beforeEach(async () => {
  yard = await TestCompany.open();
  await yard.db('person').update({ passwordHash: goodHash });
});
afterEach(() => yard.close());

type Try = { email?: string; place?: string; known?: readonly number[] };
const tried = async (password: string, seconds: number, { email = EMAIL, place = 'here', known = [] }: Try = {}) => {
  const result = await signIn(yard.db, at(seconds), { email, password, place, known, browser: 'Test' });
  return result.ok ? 'in' : result.refusals[0]?.code;
};
const all = async (n: number, one: (k: number) => Promise<unknown>) => {
  const outcomes = [];
  for (let k = 0; k < n; k += 1) outcomes.push(await one(k));
  return outcomes;
};

describe('signing in', () => {
  it('takes the right password, whatever the case of the address', async () =>
    expect(await tried(GOOD, 0, { email: ' Buyer@Yard.Example ' })).toBe('in'));

  it('answers alike for a wrong password and an unknown address', async () =>
    expect([await tried('wrong', 0), await tried('wrong', 0, { email: 'nobody@yard.example' })]).toEqual([
      'signIn.wrong',
      'signIn.wrong',
    ]));

  it('lets nobody in who is no longer active', async () => {
    await yard.db('person').update({ active: 0 });
    expect(await tried(GOOD, 0)).toBe('signIn.wrong');
  });

  it('makes an account wait at a place after five failures, longer each time, and starts anew after a success', async () => {
    await all(5, () => tried('wrong', 0));
    expect([await tried(GOOD, 14), await tried('wrong', 15), await tried(GOOD, 44)]).toEqual([
      'signIn.wait',
      'signIn.wrong',
      'signIn.wait',
    ]);
    expect(await tried(GOOD, 45)).toBe('in');
    expect(await all(5, () => tried('wrong', 46))).toEqual(Array(5).fill('signIn.wrong'));
  });

  it('leaves the person alone whom somebody elsewhere guesses at, until that is done from many places', async () => {
    await all(8, () => tried('wrong', 0, { place: 'elsewhere' }));
    expect(await tried(GOOD, 0)).toBe('in');
    await all(20, (k) => tried('wrong', 1, { place: `place ${k}` }));
    expect(await tried(GOOD, 1)).toBe('signIn.wait');
  });

  it('always lets the right password in from a browser known for it', async () => {
    const { actor } = await yard.as('buyer');
    await all(60, (k) => tried('wrong', 0, { place: k % 2 === 0 ? 'here' : `place ${k}` }));
    expect(await tried(GOOD, 0, { known: [actor.id + 1] })).toBe('signIn.wait');
    expect(await tried(GOOD, 0, { known: [actor.id] })).toBe('in');
  });

  it('slows guessing from a known browser too', async () => {
    const known = [(await yard.as('buyer')).actor.id];
    await all(5, () => tried('wrong', 0, { known }));
    expect(await tried(GOOD, 0, { known })).toBe('signIn.wait');
  });

  it('slows a place that tries one password on many accounts, also with successes between', async () => {
    const outcomes = await all(60, (k) =>
      tried(k % 10 === 0 ? GOOD : 'wrong', 0, { email: k % 10 === 0 ? EMAIL : `p${k}@yard.example` }),
    );
    expect(outcomes.filter((o) => o === 'signIn.wrong')).toHaveLength(40);
    expect(outcomes.slice(-10)).toEqual(Array(10).fill('signIn.wait'));
    expect(await tried(GOOD, 0, { place: 'elsewhere' })).toBe('in');
  });

  it('counts tries that are made at once as so many', async () => {
    const outcomes = await Promise.all(Array.from({ length: 30 }, () => tried('wrong', 0)));
    expect(outcomes.filter((o) => o === 'signIn.wrong')).toHaveLength(5);
    expect(outcomes.filter((o) => o === 'signIn.wait')).toHaveLength(25);
  });

  it('asks for patience rather than pile up passwords to check', async () => {
    const outcomes = await Promise.all(
      Array.from({ length: 150 }, (_, k) => tried('wrong', 0, { email: `p${k}@yard.example`, place: `place ${k}` })),
    );
    expect(new Set(outcomes)).toEqual(new Set(['signIn.wrong', 'password.busy']));
    expect(await tried(GOOD, 1, { place: 'there' })).toBe('in');
  });

  it('forgets after a month who signed in and who tried to', async () => {
    const DAY = 86_400;
    const kept = async () => [
      (await yard.db('signInAttempt')).length,
      (await yard.db('session')).length,
      (await yard.db('passwordReset')).length,
    ];
    await tried('wrong', 0);
    await tried(GOOD, 1);
    must(await startReset(await yard.as('administrator'), { personId: 2, version: 1 }));
    expect(await kept()).toEqual([2, 1, 1]);
    await tried(GOOD, 29 * DAY);
    expect(await kept()).toEqual([3, 2, 1]);
    await tried(GOOD, 31 * DAY);
    expect(await kept()).toEqual([2, 2, 0]);
  });

  it('keeps no password as it is', () => expect(goodHash).toMatch(/^\$argon2id\$v=19\$m=19456,t=2,p=1\$/));
});

describe('a sign-in', () => {
  const begun = async () => {
    const { actor } = await yard.as('buyer');
    return { actor, token: await insertSession(yard.db, actor.id, { browser: 'Test', place: 'here' }, at(0).now()) };
  };

  it('is known by its token only, which the file does not hold', async () => {
    const { token, actor } = await begun();
    expect((await findSession(yard.db, token, at(1).now()))?.person).toEqual(actor);
    expect(await findSession(yard.db, `${token}x`, at(1).now())).toBeUndefined();
    expect(JSON.stringify(await yard.db('session'))).not.toContain(token);
  });

  it('ends by signing out: a copy of its token is worth nothing', async () => {
    const { token } = await begun();
    await signOut(yard.db, at(5), token);
    expect(await findSession(yard.db, token, at(6).now())).toBeUndefined();
  });

  it('ends when it is not used for a day', async () => {
    const { token } = await begun();
    expect(await findSession(yard.db, token, at(24 * 3600 + 1).now())).toBeUndefined();
  });

  it('ends at once for a person who is let in no more', async () => {
    const { token, actor } = await begun();
    must(await setActive(await yard.as('administrator'), { personId: actor.id, version: 1, active: false }));
    expect(await findSession(yard.db, token, at(1).now())).toBeUndefined();
    must(await setActive(await yard.as('administrator'), { personId: actor.id, version: 2, active: true }));
    expect(await findSession(yard.db, token, at(1).now())).toBeUndefined();
  });

  it('is ended by its own person, and by nobody else', async () => {
    const { token } = await begun();
    const id = (await yard.db('session').first('id'))?.id ?? 0;
    expect(refusedWith(await endMySessions(await yard.as('lead'), { only: id }))).toEqual(['session.gone']);
    expect(await findSession(yard.db, token, at(1).now())).toBeDefined();
    must(await endMySessions(await yard.as('buyer'), { only: id }));
    expect(await findSession(yard.db, token, at(1).now())).toBeUndefined();
  });
});

describe('a password', () => {
  const NEW = 'another long password';

  it('is changed by who knows the present one; other sign-ins end', async () => {
    const buyer = await yard.as('buyer');
    for (let k = 0; k < 3; k += 1) await tried(GOOD, k);
    const [first] = await listSessions(yard.db, buyer.actor.id, at(5).now());
    const keep = first?.id ?? 0;
    expect(refusedWith(await changePassword(buyer, { old: 'wrong', password: NEW, keep }))).toEqual(['password.wrong']);
    expect(must(await changePassword(buyer, { old: GOOD, password: NEW, keep })).ended).toBe(2);
    expect((await listSessions(yard.db, buyer.actor.id, at(5).now())).map((s) => s.id)).toEqual([keep]);
    expect([await tried(GOOD, 9), await tried(NEW, 9)]).toEqual(['signIn.wrong', 'in']);
  });

  it('cannot be guessed at by who sits at an open browser', async () => {
    const buyer = await yard.as('buyer');
    const input = { password: NEW, keep: 0 };
    await all(5, () => changePassword(buyer, { ...input, old: 'wrong' }));
    expect(refusedWith(await changePassword(buyer, { ...input, old: GOOD }))).toEqual(['password.wait']);
  });

  it('is chosen anew by a link, once, within a day; every sign-in ends', async () => {
    const { actor } = await yard.as('buyer');
    await tried(GOOD, 0);
    const admin = await yard.as('administrator');
    const ref = { personId: actor.id, version: 1 };
    const old = must(await startReset(admin, ref)).token;
    const { token } = must(await startReset(admin, ref));
    const codes = async (input: object, seconds = 60) => {
      const result = await resetPassword(yard.db, at(seconds), input);
      return result.status === 'refused' ? result.refusals[0]?.code : result.status;
    };
    expect(await codes({ token: old, password: NEW })).toBe('reset.gone');
    expect(await codes({ token, password: NEW }, 25 * 3600)).toBe('reset.gone');
    expect(await codes({ token, password: 'short' })).toBe('input');
    expect(await codes({ token, password: NEW })).toBe('done');
    expect((await yard.db('audit').orderBy('id', 'desc').first())?.words).toBe('Changed password from a link');
    expect(refusedWith(await choosePassword(admin, { token, password: NEW }))).toEqual(['reset.gone']);
    expect(await codes({ token, password: NEW })).toBe('reset.gone');
    expect(await listSessions(yard.db, actor.id, at(60).now())).toEqual([]);
    expect(await tried(NEW, 61)).toBe('in');
    expect(JSON.stringify(await yard.db('audit'))).not.toContain(token);
  });

  it('is reset by no link for somebody who is let in no more', async () => {
    const { actor } = await yard.as('buyer');
    const admin = await yard.as('administrator');
    const { token } = must(await startReset(admin, { personId: actor.id, version: 1 }));
    must(await setActive(admin, { personId: actor.id, version: 1, active: false }));
    expect(refusedWith(await resetPassword(yard.db, at(60), { token, password: NEW }))).toEqual(['reset.gone']);
    expect(refusedWith(await startReset(admin, { personId: actor.id, version: 2 }))).toEqual(['person.active']);
  });
});
