import { loadPicking, type PickRow } from '@/queries/stores/picking';
import { findUnproven } from '@/store/ledger';
import { findPerson, type Person } from '@/store/people';
import { checkRecord } from '@/store/seals';
import { App } from '../support/app';
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

const as = (who: Parameters<typeof Caller.as>[1]) => Caller.as(app.base, who);
const count = (table: 'issue' | 'stockMove' | 'receipt' | 'audit' | 'rest') =>
  app.look(async (db) => Number((await db(table).count({ n: '*' }))[0]?.n));

/** What a job's picking list gives out, as the page sends it. */
async function listOf(number: string) {
  const view = await app.look(async (db) => {
    const { id = 0 } = (await db('person').where({ name: 'Joss Fenn' }).first('id')) ?? {};
    return loadPicking(db, (await findPerson(db, id)) as Person, number);
  });
  if (view === undefined) throw new Error(`Job ${number} doesn’t exist.`);
  const lines = view.rows
    .filter((r: PickRow) => r.tracking === 'none')
    .map(({ needId, itemId, placeId, ownerId, wanted }) => ({
      ...{ needId, itemId, placeId, ownerId, quantity: wanted, numbers: [] },
    }));
  return { jobId: view.job.id, lines };
}

describe('a picking list', () => {
  it('issued ten times at once, by one key and by ten, is issued once', async () => {
    const list = await listOf('415');
    const before = await count('issue');
    const joss = await as('joss');
    const keys = Array.from({ length: 10 }, (_, k) => (k < 5 ? 'issue-same-key' : `issue-ten-keys-${k}`));
    const outcomes = await Promise.all(keys.map((once) => joss.act('issuePicked', { once, ...list })));
    // Five by one key are one request, or refused as what came first by another key took it all.
    expect(outcomes.filter((o, k) => o === 'done' && k >= 5).length).toBeLessThanOrEqual(1);
    expect(outcomes.every((o) => ['done', 'refused'].includes(o))).toBe(true);
    expect((await count('issue')) - before).toBe(list.lines.length);
    expect((await listOf('415')).lines).toEqual([]);
  });

  it('killed while it is issued is issued whole or not at all, and once with its key', async () => {
    const became = new Set<number>();
    for (const wait of tried([0, 20, 80, 300, 1000, 4000])) {
      if (wait > 80 && became.has(1)) break;
      const { jobId, lines } = await listOf('412');
      // A little of each line, so that some is left for the next time.
      const some = lines.filter((l) => l.quantity >= 20_000).map((l) => ({ ...l, quantity: 10_000 }));
      expect(some.length).toBeGreaterThan(3);
      const input = { once: `issue-killed-${wait}`, jobId, lines: some };
      const [issues, moves, audits] = [await count('issue'), await count('stockMove'), await count('audit')];
      const joss = await as('joss');
      const issuing = joss.act('issuePicked', input).catch(() => 'lost');
      await app.killAfter(wait, issuing);
      await issuing;
      await app.serve();
      const share = ((await count('issue')) - issues) / some.length;
      became.add(share);
      expect([0, 1]).toContain(share);
      expect(((await count('stockMove')) - moves) / some.length).toBeGreaterThanOrEqual(share);
      expect((await count('audit')) - audits).toBeGreaterThanOrEqual(share);
      expect(await (await as('joss')).act('issuePicked', input)).toBe('done');
      expect((await count('issue')) - issues).toBe(some.length);
    }
    expect([...became].sort()).toEqual([0, 1]);
  });

  it('is not issued with quantities at and beyond each limit, nor for another job', async () => {
    const { jobId, lines } = await listOf('421');
    const joss = await as('joss');
    const [line] = lines;
    const moves = await count('stockMove');
    for (const [k, quantity] of [0, -1, 0.5, 2 ** 53, Number.MAX_SAFE_INTEGER, '1', null].entries())
      expect(await joss.act('issuePicked', { once: `limit-issue-${k}`, jobId, lines: [{ ...line, quantity }] })).toBe(
        'refused',
      );
    for (const [k, change] of [{ ownerId: 1 }, { placeId: 999 }, { itemId: 999 }, { needId: 999 }].entries())
      expect(await joss.act('issuePicked', { once: `other-issue-${k}`, jobId, lines: [{ ...line, ...change }] })).toBe(
        'refused',
      );
    expect(await joss.act('issuePicked', { once: 'another-job', jobId: 4, lines: [line] })).toBe('refused');
    const twice = { once: 'a-line-twice', jobId, lines: [line, line] };
    expect(await joss.act('issuePicked', twice)).toBe('refused');
    expect(await count('stockMove')).toBe(moves);
  });
});

describe('a count', () => {
  const sheet = () => app.look((db) => db('stockCount').orderBy('id').first('id', 'version', 'state'));

  it('is not posted by who may not, nor ten times by ten keys at once', async () => {
    const ref = await sheet();
    const form = { countId: ref?.id, version: ref?.version, reason: 'Counted twice' };
    for (const who of ['ida', 'asha', 'wren', 'bram'] as const)
      expect(await (await as(who)).act('postCount', { once: `count-${who}-0`, ...form })).toBe('refused');
    const moves = await count('stockMove');
    const tomas = await as('tomas');
    const outcomes = await Promise.all(
      Array.from({ length: 10 }, (_, k) => tomas.act('postCount', { once: `count-ten-${k}`, ...form })),
    );
    expect(outcomes.filter((o) => o === 'done')).toHaveLength(1);
    expect(outcomes.filter((o) => ['done', 'refused', 'clash'].includes(o))).toHaveLength(10);
    expect((await sheet())?.state).toBe('posted');
    const differences = await app.look((db) =>
      db('stockCountLine')
        .where({ countId: ref?.id ?? 0 })
        .whereRaw('counted <> book')
        .count({ n: '*' }),
    );
    expect((await count('stockMove')) - moves).toBe(Number(differences[0]?.n));
  });

  it('killed while it is posted is posted whole or not at all', async () => {
    const became = new Set<string>();
    for (const wait of tried([0, 20, 80, 300, 1000, 4000])) {
      if (wait > 80 && became.has('posted')) break;
      const joss = await as('joss');
      expect(await joss.act('beginCount', { once: `begin-${wait}-it`, placeId: 1, binId: 3, blind: false })).toBe(
        'done',
      );
      const id = await app.look(async (db) => (await db('stockCount').orderBy('id', 'desc').first('id'))?.id ?? 0);
      const lines = await app.look((db) => db('stockCountLine').where({ countId: id }).select('id', 'begun'));
      const found = lines.map((l) => ({ lineId: l.id, was: null, counted: l.begun + 10_000 }));
      expect(found.length).toBeGreaterThan(0);
      expect(await joss.act('countLines', { countId: id, lines: found })).toBe('done');
      expect(await joss.act('endCounting', { countId: id, version: 1 })).toBe('done');
      const moves = await count('stockMove');
      const input = { once: `post-killed-${wait}`, countId: id, version: 2, reason: 'One more of each' };
      const posting = (await as('tomas')).act('postCount', input).catch(() => 'lost');
      await app.killAfter(wait, posting);
      await posting;
      await app.serve();
      const state = await app.look(async (db) => (await db('stockCount').where({ id }).first('state'))?.state ?? '');
      became.add(state);
      expect((await count('stockMove')) - moves).toBe(state === 'posted' ? found.length : 0);
      expect(await (await as('tomas')).act('postCount', input)).toBe('done');
      expect((await count('stockMove')) - moves).toBe(found.length);
    }
    expect([...became].sort()).toEqual(['counted', 'posted']);
  });
});

describe('a tally of two orders', () => {
  /** Some of what two orders still await, as a tally sends it. */
  const tally = async () =>
    app.look(async (db) => {
      const lines = (await db('orderLine as l')
        .join('purchaseOrder as o', 'o.id', 'l.orderId')
        .leftJoin('item as i', 'i.id', 'l.itemId')
        .whereIn('o.state', ['sent', 'confirmed', 'partIn'])
        .where({ 'l.kind': 'goods', 'l.closedShort': null })
        .whereRaw("coalesce(i.tracking, 'none') = 'none' and l.quantity - l.received - l.held >= 10000")
        .orderBy('l.id')
        .select('l.id', 'l.orderId', 'o.version')) as { id: number; orderId: number; version: number }[];
      const orders = [...new Map(lines.map((l) => [l.orderId, l])).values()].slice(0, 2);
      return orders.map((l) => ({
        ...{ orderId: l.orderId, version: l.version },
        arrivals: [{ lineId: l.id, arrives: 10_000, keepOver: false }],
      }));
    });

  it('taken in by two storekeepers at once is taken in once', async () => {
    const deliveries = await tally();
    expect(deliveries).toHaveLength(2);
    const before = await count('receipt');
    const [joss, mina] = [await as('joss'), await as('mina')];
    const outcomes = await Promise.all(
      [joss, mina, joss, mina].map((who, k) =>
        who.act('receiveTally', { once: `tally-two-${k}`, note: 'DN 77', deliveries }),
      ),
    );
    expect([...outcomes].sort()).toEqual(['clash', 'clash', 'clash', 'done']);
    expect((await count('receipt')) - before).toBe(2);
  });

  it('killed while it is taken in brings both orders or none, and once with its key', async () => {
    const became = new Set<number>();
    for (const wait of tried([0, 20, 80, 300, 1000, 4000])) {
      if (wait > 80 && became.has(2)) break;
      const input = { once: `tally-killed-${wait}`, note: '', deliveries: await tally() };
      const before = await count('receipt');
      const taking = (await as('joss')).act('receiveTally', input).catch(() => 'lost');
      await app.killAfter(wait, taking);
      await taking;
      await app.serve();
      const came = (await count('receipt')) - before;
      became.add(came);
      expect([0, 2]).toContain(came);
      expect(await (await as('joss')).act('receiveTally', input)).toBe('done');
      expect((await count('receipt')) - before).toBe(2);
    }
    expect([...became].sort()).toEqual([0, 2]);
  });
});
