import { addDayOff } from '@/actions/company/company';
import { addPerson, changePerson } from '@/actions/people/people';
import { plusDays } from '@/core/calendar/workdays';
import { q, TestCompany, TODAY } from '../../../tests/support/company';
import { historyFilterOf, loadHistory, loadRecord, nameSubject } from './history';
import { openList } from '../lists/lists';

let yard: TestCompany;
beforeAll(async () => {
  yard = await TestCompany.open();
  const order = await yard.draft([{ needId: await yard.need({ price: 7.5 }), buy: q(12) }]);
  await yard.send(order);
  await addDayOff(await yard.as('administrator', plusDays(TODAY, 1)), {
    once: yard.once(),
    day: '2026-06-01',
    name: 'Regatta',
  });
  await addPerson(await yard.as('administrator'), {
    once: yard.once(),
    name: 'Nell Ash',
    email: 'nell@yard.example',
    roles: ['field'],
    password: 'a long enough word',
  });
  const nell = await yard.db('person').where({ email: 'nell@yard.example' }).first();
  await changePerson(await yard.as('administrator'), {
    personId: nell?.id ?? 0,
    version: nell?.version ?? 0,
    name: 'Nell Ashby',
    roles: ['field', 'storekeeper'],
  });
});
afterAll(() => yard.close());

const words = async (role: 'manager' | 'administrator', filter: Parameters<typeof loadHistory>[2]) =>
  (await loadHistory(yard.db, (await yard.as(role)).actor, filter)).rows.map((r) => r.words);

describe('the history', () => {
  it('is told newest first, a page at a time', async () => {
    const { rows, more } = await loadHistory(yard.db, (await yard.as('administrator')).actor, {});
    expect(rows.map((r) => r.id)).toEqual([...rows.map((r) => r.id)].sort((a, b) => b - a));
    expect(more).toBe(false);
    const [, second] = rows;
    const rest = await loadHistory(yard.db, (await yard.as('administrator')).actor, {}, second?.id);
    expect(rest.rows).toEqual(rows.slice(2));
  });

  it.each<[string, Record<string, string>, number]>([
    ['of one order', { about: 'order', id: '1' }, 4],
    ['of an order that is not there', { about: 'order', id: '99' }, 0],
    ['of settings', { about: 'company' }, 1],
    ['from a day on', { from: plusDays(TODAY, 1) }, 1],
    ['up to a day', { upTo: plusDays(TODAY, -1) }, 0],
    ['of a thing that was done, by its words', { words: 'REGATTA' }, 1],
    ['of words that are a pattern elsewhere', { words: '%' }, 0],
  ])('is found %s', async (_, query, n) => {
    expect(await words('administrator', historyFilterOf(query))).toHaveLength(n);
  });

  it('is found by who did it', async () => {
    const { actor } = await yard.as('buyer');
    const { rows } = await loadHistory(yard.db, actor, { personId: actor.id });
    expect(rows.length).toBeGreaterThan(2);
    expect(new Set(rows.map((r) => r.who))).toEqual(new Set([actor.name]));
  });

  it('leaves what filters it cannot read out of account', () =>
    expect(historyFilterOf({ about: 'secret', id: '1; drop', from: 'soon' })).toEqual({}));

  it('tells of people only to those who manage them, in no way else', async () => {
    expect(await words('administrator', { about: 'person' })).toEqual(['Changed Nell Ashby', 'Added Nell Ash']);
    expect(await words('manager', { about: 'person' })).toEqual([]);
    expect(await words('manager', { words: 'Nell' })).toEqual([]);
    const [of] = (await loadHistory(yard.db, (await yard.as('administrator')).actor, { about: 'person' })).rows;
    expect(await loadRecord(yard.db, (await yard.as('manager')).actor, of?.id ?? 0)).toBeUndefined();
  });

  it('tells what stood there before and after, who, about what, and its seal', async () => {
    const { actor } = await yard.as('administrator');
    const [row] = (await loadHistory(yard.db, actor, { about: 'person' })).rows;
    expect(await loadRecord(yard.db, actor, row?.id ?? 0)).toMatchObject({
      who: actor.name,
      subjects: 'Nell Ashby',
      changes: [
        { what: 'name', from: 'Nell Ash', to: 'Nell Ashby' },
        { what: 'role 2', to: 'storekeeper' },
      ],
      seal: expect.stringMatching(/^[0-9a-f]{64}$/) as string,
    });
  });

  it('names what an order was drafted with', async () => {
    const { actor } = await yard.as('buyer');
    const { rows } = await loadHistory(yard.db, actor, { about: 'order', id: 1, words: 'draft' });
    const record = await loadRecord(yard.db, actor, rows.at(-1)?.id ?? 0);
    expect(record?.changes).toContainEqual({ what: 'line 1, quantity', to: '12' });
    expect(record?.changes).toContainEqual({ what: 'line 1, price', to: '7.50' });
    expect(record?.subjects).toContain((await yard.order(1)).number);
    expect(await nameSubject(yard.db, actor, { about: 'order', id: 1 })).toBe((await yard.order(1)).number);
  });

  it('is taken out whole, each row with its seal', async () => {
    const { actor } = await yard.as('administrator');
    const { pages } = await openList(yard.db, actor, 'history', { about: 'person' }, TODAY);
    const rows: { seal: string }[] = [];
    for await (const page of pages) rows.push(...(page as unknown as { seal: string }[]));
    const seals = await yard.db('seal').where({ source: 'audit' }).orderBy('id', 'desc').limit(2);
    expect(rows.map((r) => r.seal)).toEqual(seals.map((s) => s.hash));
  });
});
