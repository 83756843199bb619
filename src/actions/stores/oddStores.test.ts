import { must, q, refusedWith, TODAY, type TestCompany } from '../../../tests/support/company';
import { numbered, openDock, spotsIn, type Dock } from '../../../tests/support/dock';
import type { Minor } from '@/core/money/money';
import { changeDraft, firstLine } from '../../../tests/support/typed';
import { insertMany, insertOne } from '@/store/rows';
import type { StoredOrder } from '@/store/orders';
import { chargeElsewhere } from '../orders/charging';
import { closeJob } from '../jobs/closing';
import { countStock } from './counting';
import { beginCount, countLines, endCounting, postCount } from './countSheets';
import { inspect } from '../dock/inspecting';
import { issuePicked, issueStock, returnIssue } from './issuing';
import { moveStock, scrapStock, transferStock } from './moving';
import { unreserve } from '../buying/reserving';
import { reserveSome } from './allocating';
import { returnGoods } from '../dock/sendingBack';
import { reverseReceipt } from '../dock/correcting';

/** What can happen at the dock and in stores, in pairs and triples: figures are worked out by hand. */

let yard: TestCompany;
let dock: Dock;
beforeEach(async () => {
  ({ yard, dock } = await openDock());
});
afterEach(() => yard.closeProven());

const keeper = () => yard.as('storekeeper');
const job = (k: 0 | 1) => yard.ids.jobs[k];
const refOf = async (of: StoredOrder) => ({
  ...{ once: yard.once(), orderId: of.id },
  version: (await yard.order(of.id)).version,
});
const at = (jobId: number | null = null) => ({ once: yard.once(), itemId: dock.tube, placeId: 1, jobId });
const counting = async (n: number, value: number | null, seen = 0, more = {}) =>
  countStock(await yard.as('manager'), {
    ...{ ...at(), seen: q(seen), quantity: q(n), value: value as Minor | null, reason: 'Opening' },
    ...more,
  });
const back = async (
  of: StoredOrder,
  n: number,
  from: 'rejected' | 'accepted',
  wants: 'replacement' | 'credit',
  m = {},
) =>
  returnGoods(await keeper(), {
    ...{ ...(await refOf(of)), reason: 'faulty' },
    lines: [{ lineId: of.lines[0]?.id ?? 0, quantity: q(n), from, wants, ...m }],
  });
const looked = async (of: StoredOrder, released: number, rejected: number, m = {}) =>
  inspect(await keeper(), {
    ...(await refOf(of)),
    lines: [
      {
        ...{ lineId: of.lines[0]?.id ?? 0, released: q(released), rejected: q(rejected) },
        ...{ reasonId: await dock.reason('rejected'), ...m },
      },
    ],
  });
const spots = () => spotsIn(yard.db);

describe('another unit', () => {
  /** The tube is bought in rolls of 6 m at 60.00. */
  beforeEach(async () => {
    const part = { itemId: dock.tube, unit: 'XRL', factorMany: 6, factorOne: 1, supplierId: yard.ids.suppliers[0] };
    const partId = await insertOne(yard.db, 'supplierPart', part);
    await insertMany(yard.db, 'priceBreak', [{ partId, fromQuantity: 0, price: 600_000 }]);
  });

  it('× lots × inspection × two jobs: a roll that is rejected is nobody’s, what is released fills the first', async () => {
    await yard.db('item').where({ id: dock.tube }).update({ inspected: 1, tracking: 'lot' });
    const of = await dock.order(
      { needId: await dock.need(9, 0, { neededOn: '2026-06-01' }), buy: q(9) },
      { needId: await dock.need(9, 1, { neededOn: '2026-07-01' }), buy: q(9) },
    );
    expect(of.lines[0]).toMatchObject({ unit: 'XRL', quantity: q(3) });
    const lot = (n: number) => [{ number: 'H-7', quantity: q(n) }];
    must(await dock.take(of, 3, { numbers: lot(18) }));
    must(await looked(of, 2, 1, { numbers: lot(12), rejectedNumbers: lot(6) }));
    // 12 m are released: 9 for the one, 3 for the other; 6 m of 20.00 for 2 m are awaited still.
    expect(await spots()).toEqual([
      [job(0), null, 'H-7', 9],
      [job(1), null, 'H-7', 3],
    ]);
    expect([await yard.tab(0), await yard.tab(1)]).toEqual([{ received: 9000 }, { received: 3000, onOrder: 6000 }]);
    must(await back(of, 1, 'rejected', 'credit'));
    expect(await yard.tab(1)).toEqual({ received: 3000, planned: 4800 });
  });

  it('× last piece: two thirds of a roll for a job, the rest for stores, and no penny is left behind', async () => {
    await yard.db('item').where({ id: dock.tube }).update({ stocked: 1 });
    // A roll at 100.00 is 16.6667 a metre.
    await yard.db('priceBreak').update({ price: 1_000_000 as never });
    const of = await dock.order({ needId: await dock.need(4), buy: q(4) });
    must(await dock.take(of, 1));
    expect([await dock.pile(job(0)), await dock.pile(0)]).toEqual([
      { quantity: q(4), value: 6667 },
      { quantity: q(2), value: 3333 },
    ]);
    const to = { jobId: job(1), costCodeId: yard.ids.codes[1] };
    for (const [n, value] of [
      [0.7, 1167],
      [0.7, 1166],
      [0.6, 1000],
    ] as const) {
      const { id } = must(await issueStock(await keeper(), { ...at(), to, quantity: q(n) }));
      expect((await yard.db('issue').where({ id }).first('value'))?.value).toBe(value);
    }
    expect(await dock.pile(0)).toEqual({ quantity: 0, value: 0 });
    expect(await yard.tab(1)).toEqual({ actual: 3333 });
  });
});

describe('a currency without minor units', () => {
  it('× for stores × an invoice at another rate × the last piece: what is gone is not made dearer, and nothing is left', async () => {
    const rate = (value: string) => ({ currency: 'JPY', day: TODAY, rate: value as never });
    await yard.db('exchangeRate').insert(rate('0.005'));
    await yard.db('supplier').update({ currency: 'JPY' });
    const draft = await yard.draft([{ needId: await dock.need(5), buy: q(5) }]);
    must(
      await changeDraft(yard, draft, (text) => {
        const line = firstLine(text);
        Object.assign(line, { price: 101 * 10_000 });
        line.splits.forEach((s) => Object.assign(s, { jobId: null, costCodeId: null, needId: null }));
      }),
    );
    const of = await yard.send(await yard.order(draft.id));
    must(await dock.take(of, 5));
    // ¥ 505 are £ 2.525.
    expect(await dock.pile(0)).toEqual({ quantity: q(5), value: 253 });
    const to = { jobId: job(1), costCodeId: yard.ids.codes[1] };
    must(await issueStock(await keeper(), { ...at(), to, quantity: q(3) }));
    expect([await dock.pile(0), await yard.tab(1)]).toEqual([{ quantity: q(2), value: 101 }, { actual: 152 }]);
    await yard.db('exchangeRate').update(rate('0.006'));
    const line = { lineId: of.lines[0]?.id ?? 0, quantity: q(5), price: 101 * 10_000, taxCodeId: 1 };
    const { id } = must(await yard.invoice(of, 5, { typedTotal: 606 as Minor, lines: [line as never] }));
    must(await yard.match(id, '', 'manager'));
    // 50 pence more: 20 of them are of what lies there, 30 of what is gone.
    expect([await dock.pile(0), await yard.tab(1)]).toEqual([{ quantity: q(2), value: 121 }, { actual: 152 }]);
    must(await issueStock(await keeper(), { ...at(), to, quantity: q(2) }));
    expect([await dock.pile(0), await yard.tab(1)]).toEqual([{ quantity: 0, value: 0 }, { actual: 273 }]);
  });
});

describe('serial numbers', () => {
  const piece = (n: string) => ({ numbers: numbered(n) });

  it('× job × return × supplier × replacement: a piece comes once more by its number, and nothing is there twice', async () => {
    await dock.serial();
    const needId = await dock.pieces(1);
    const of = await dock.order({ needId, buy: q(1) });
    must(await dock.take(of, 1, piece('SN-1')));
    const { id: issueId } = must(
      await issueStock(await keeper(), { ...at(job(0)), to: { needId }, quantity: q(1), ...piece('SN-1') }),
    );
    // It is with the job, so it cannot go back to its supplier from there.
    expect(refusedWith(await back(of, 1, 'accepted', 'replacement', piece('SN-1')))).toEqual(['stores.short']);
    const home = { once: yard.once(), issueId, version: 1, quantity: q(1), reason: 'faulty', ...piece('SN-1') };
    must(await returnIssue(await keeper(), home));
    must(await back(of, 1, 'accepted', 'replacement', piece('SN-1')));
    expect([await spots(), await yard.tab()]).toEqual([[], { onOrder: 800 }]);
    // Repaired, the same piece comes again.
    must(await dock.take(of, 1, piece('sn-1')));
    expect([await spots(), await yard.tab()]).toEqual([[[job(0), null, 'SN-1', 1]], { received: 800 }]);
    expect(await yard.db('lot').count({ n: '*' })).toEqual([{ n: 1 }]);
  });

  it('× other job × counted as missing × found: it keeps what it cost', async () => {
    await dock.serial();
    const of = await dock.order({ needId: await dock.pieces(2), buy: q(2) });
    must(await dock.take(of, 2, { numbers: numbered('SN-1', 'SN-2') }));
    const other = { to: { jobId: job(1), costCodeId: yard.ids.codes[1] }, reason: 'theirs is late' };
    must(await transferStock(await keeper(), { ...at(job(0)), quantity: q(1), ...piece('SN-2'), ...other }));
    expect([await yard.tab(0), await yard.tab(1)]).toEqual([
      { received: 1600, actual: -800, planned: 800 },
      { actual: 800 },
    ]);
    const count = async (n: number, seen: number, numbers: readonly string[]) =>
      must(await counting(n, null, seen, { jobId: job(1), once: yard.once(), numbers: numbered(...numbers) }));
    await count(0, 1, []);
    await count(1, 0, ['SN-2']);
    expect(await spots()).toEqual([
      [job(0), null, 'SN-1', 1],
      [job(1), null, 'SN-2', 1],
    ]);
    // What was missed stays the job’s cost, and so does what was found again.
    expect(await yard.tab(1)).toEqual({ actual: 800 });
  });
});

describe('a job that is closed', () => {
  const close = async (k: 0 | 1) => {
    const { version } = (await yard
      .db('job')
      .where({ id: job(k) })
      .first('version'))!;
    return closeJob(await yard.as('lead'), { once: yard.once(), jobId: job(k), version });
  };

  it('× goods of its own × what is reserved for it: nothing stays behind that nobody can have', async () => {
    must(await counting(20, 10_000));
    const { order: of } = await dock.ordered(6);
    must(await dock.take(of, 6));
    const { id } = must(await yard.invoice(of, 6));
    must(await yard.match(id));
    const needId = await dock.need(5);
    must(await reserveSome(await yard.as('lead'), { ...at(), needId, quantity: q(5) }));
    expect(await close(0)).toMatchObject({
      refusals: [
        { message: 'TU-1 is still job stock. Issue it, or transfer it to stores.' },
        { message: 'TU-1 is reserved for it. Issue it, or unreserve it.' },
      ],
    });
    must(await transferStock(await keeper(), { ...at(job(0)), quantity: q(6), to: { stores: true }, reason: 'over' }));
    must(await unreserve(await yard.as('lead'), { jobId: job(0), needIds: [needId] }));
    must(await close(0));
    // 20 m at 100.00 and 6 m at 48.00 lie free, for whoever wants them.
    expect(await dock.pile(0)).toEqual({ quantity: q(26), value: 14_800 });
    const to = { jobId: job(0), costCodeId: yard.ids.codes[1] };
    expect(refusedWith(await issueStock(await keeper(), { ...at(), to, quantity: q(1) }))).toEqual(['job.state']);
  });
});

describe('lots', () => {
  const lots = (...of: readonly (readonly [string, number])[]) =>
    of.map(([number, n]) => ({ number, quantity: q(n), expiresOn: null }));

  it('× rejected in part at the door × an older delivery: what goes back is of the lot that is said', async () => {
    await yard.db('item').where({ id: dock.tube }).update({ tracking: 'lot', inspected: 1 });
    const { order: of } = await dock.ordered(20);
    must(await dock.take(of, 8, { passed: true, numbers: lots(['L1', 8]) }));
    const rejected = { rejected: q(2), reasonId: await dock.reason('damaged'), rejectedNumbers: lots(['L2', 2]) };
    must(await dock.take(of, 8, { ...rejected, numbers: lots(['L1', 1], ['L2', 5]) }));
    must(await looked(of, 6, 0, { numbers: lots(['L1', 1], ['L2', 5]) }));
    expect(await spots()).toEqual([
      [job(0), null, 'L1', 9],
      [job(0), null, 'L2', 5],
    ]);
    must(await back(of, 4, 'accepted', 'replacement', { numbers: lots(['L1', 1], ['L2', 3]) }));
    expect(await spots()).toEqual([
      [job(0), null, 'L1', 8],
      [job(0), null, 'L2', 2],
    ]);
    // 8 and 6 came, 4 went: 10 m at 8.00 are in.
    expect(await yard.tab()).toEqual({ received: 8000, onOrder: 8000 });
  });

  it('× two deliveries × one taken back: its own lots go with it', async () => {
    await yard.db('item').where({ id: dock.tube }).update({ tracking: 'lot' });
    const { order: of } = await dock.ordered(20);
    must(await dock.take(of, 8, { numbers: lots(['L1', 8]) }));
    const { id } = must(await dock.take(of, 6, { numbers: lots(['L1', 1], ['L2', 5]) }));
    must(await reverseReceipt(await keeper(), { once: yard.once(), receiptId: id }));
    expect(await spots()).toEqual([[job(0), null, 'L1', 8]]);
  });
});

describe('a count', () => {
  it('× reserved × own goods × what was scrapped meanwhile: each owner’s is missed on its own', async () => {
    must(await counting(10, 5000));
    const { needId: own, order: of } = await dock.ordered(4);
    must(await dock.take(of, 4));
    const wanted = await dock.need(8, 1);
    must(await reserveSome(await yard.as('lead'), { ...at(), needId: wanted, quantity: q(8) }));
    const { id } = must(await beginCount(await keeper(), { once: yard.once(), placeId: 1, binId: null, blind: false }));
    must(await scrapStock(await keeper(), { ...at(), quantity: q(2), reason: 'bent' }));
    const lines = await yard.db('stockCountLine').where({ countId: id }).orderBy('jobId').select('id', 'jobId');
    const said = lines.map((l) => ({ lineId: l.id, was: null, counted: l.jobId === null ? q(5) : q(3) }));
    must(await countLines(await keeper(), { countId: id, lines: said }));
    must(await endCounting(await keeper(), { countId: id, version: 1 }));
    const post = { once: yard.once(), countId: id, version: 2, reason: 'not found' };
    must(await postCount(await keeper(), post));
    expect([await dock.pile(0), await dock.pile(job(0))]).toEqual([
      { quantity: q(5), value: 2500 },
      { quantity: q(3), value: 2400 },
    ]);
    // Three of the eight that were reserved are to buy, and the one that the job lost of its own.
    expect([await dock.openOf(wanted), await dock.openOf(own)]).toEqual([
      { open: q(3), missing: q(3) },
      { open: q(1), missing: q(1) },
    ]);
    // Scrapped 10.00 and missed 15.00 are the company’s; the job keeps what it paid, and is to buy one more.
    expect(await yard.tab(0)).toEqual({ received: 3200, planned: 800 });
  });
});

describe('a picking list', () => {
  it('× own goods × reserved × one line that moved: none of it is issued', async () => {
    must(await counting(10, 5000));
    const { needId, order: of } = await dock.ordered(4);
    must(await dock.take(of, 4));
    const more = await dock.need(6);
    must(await reserveSome(await yard.as('lead'), { ...at(), needId: more, quantity: q(6) }));
    const line = (id: number, ownerId: number | null, n: number) => ({
      ...{ needId: id, itemId: dock.tube, placeId: 1, ownerId, quantity: q(n), numbers: [] },
    });
    const list = { jobId: job(0), lines: [line(more, null, 6), line(needId, job(0), 4)] };
    // One metre of its own was given to the other job after the list was printed.
    const theirs = { to: { jobId: job(1), costCodeId: yard.ids.codes[1] }, reason: 'urgent' };
    must(await transferStock(await keeper(), { ...at(job(0)), quantity: q(1), ...theirs }));
    expect(refusedWith(await issuePicked(await keeper(), { once: yard.once(), ...list }))).toEqual(['stores.short']);
    expect(await yard.db('issue').count({ n: '*' })).toEqual([{ n: 0 }]);
    const now = { ...list, lines: [line(more, null, 6), line(needId, job(0), 3)] };
    must(await issuePicked(await keeper(), { once: yard.once(), ...now }));
    // 6 m of stores are 30.00; its own cost it 32.00, of which 8.00 went with the metre that is to buy again.
    expect(await yard.tab(0)).toEqual({ received: 3200, actual: 3000 - 800, planned: 800 });
  });
});

describe('a receipt', () => {
  it('× over the order × two jobs × taken back: what was over goes with it', async () => {
    const of = await dock.order(
      { needId: await dock.need(3), buy: q(3) },
      { needId: await dock.need(3, 1), buy: q(3) },
    );
    const { id } = must(await dock.take(of, 8, { keepOver: true }));
    expect([await dock.pile(job(0)), await dock.pile(job(1))].map((p) => p?.quantity)).toEqual([q(3), q(5)]);
    must(await reverseReceipt(await keeper(), { once: yard.once(), receiptId: id }));
    expect(await spots()).toEqual([]);
    expect([await yard.tab(0), await yard.tab(1)]).toEqual([{ onOrder: 2400 }, { onOrder: 2400 }]);
  });

  it('× moved to a bin × charged to the other job: stays where it lies, and can be taken back from there', async () => {
    const { order: of } = await dock.ordered(4);
    const { id } = must(await dock.take(of, 4));
    const bin = await insertOne(yard.db, 'bin', { placeId: 1, name: 'B-1' });
    const move = { ...at(job(0)), quantity: q(3), toPlaceId: 1, toBinId: bin };
    must(await moveStock(await keeper(), move));
    const now = await yard.order(of.id);
    const splits = [{ id: now.lines[0]?.splits[0]?.id ?? 0, jobId: job(1), costCodeId: yard.ids.codes[1] }];
    must(await chargeElsewhere(await yard.as('buyer'), { ...(await refOf(of)), reason: 'wrong job', splits }));
    expect(await spots()).toEqual([
      [job(1), null, null, 1],
      [job(1), 'B-1', null, 3],
    ]);
    must(await reverseReceipt(await keeper(), { once: yard.once(), receiptId: id }));
    expect([await spots(), await yard.tab(1)]).toEqual([[], { onOrder: 3200 }]);
  });

  it('× waiting invoice × sent back for a replacement × invoiced twice: the job pays for what it keeps', async () => {
    const { order: of } = await dock.ordered(10);
    must(await dock.take(of, 10));
    const { id } = must(await yard.invoice(of, 10));
    must(await back(of, 4, 'accepted', 'replacement'));
    // Six are in, and ten are claimed: the invoice is held for the four that went back.
    expect(await yard.db('invoice').where({ id }).first('state')).toEqual({ state: 'held' });
    expect(await yard.tab()).toEqual({ received: 4800, onOrder: 3200 });
    must(await dock.take(of, 4));
    expect(await yard.db('invoice').where({ id }).first('state')).toEqual({ state: 'entered' });
    must(await yard.match(id));
    expect([await yard.tab(), await dock.pile(job(0))]).toEqual([{ actual: 8000 }, { quantity: q(10), value: 8000 }]);
  });
});

describe('goods that cost nothing', () => {
  it('× the average × scrapped × the last piece: what was paid for is shared, and all of it goes', async () => {
    must(await counting(4, 1000));
    must(await counting(7, 1000, 4));
    // 7 m at 10.00: 1.43, 1.43 and so on, until the last takes what is left.
    const gone = [];
    for (const n of [1, 2, 3, 1]) {
      must(await scrapStock(await keeper(), { ...at(), quantity: q(n), reason: 'rust' }));
      gone.push((await dock.pile(0))?.value);
    }
    expect(gone).toEqual([857, 571, 143, 0]);
  });
});
