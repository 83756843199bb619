import { insertMany } from '@/store/rows';
import { must, refusedWith, TestCompany, TODAY } from '../../../tests/support/company';
import { quoting, type TypedQuoteLine as Line } from '../../../tests/support/quoting';
import { draftOrders } from '../orders/orders';
import { changeQuote, moveQuote, reviseQuote } from './quotes';
import { agreeLines, buyEarly, winQuote } from './winning';

let yard: TestCompany;
beforeEach(async () => {
  yard = await TestCompany.open();
});
afterEach(() => yard.closeProven());

const { line, quoteOf, fill, win, idOf, budget, needs } = quoting(() => yard);

describe('a revision of a won quote', () => {
  type ToWin = Partial<Parameters<typeof winQuote>[1]>;
  const quantities = async () =>
    (await yard.db('need').orderBy('id').select('description', 'quantity')).map((n) => [n.description, n.quantity]);
  const revise = async () => {
    const { version } = await quoteOf();
    return must(await reviseQuote(await yard.as('lead'), { once: yard.once(), quoteId: 1, version })).id;
  };
  /** Fills a revision in: its lines by the description of those that they were copied from. */
  const rewrite = async (id: number, change: (l: Line) => Line[]) => {
    const rows = await yard.db('quoteLine').where({ quoteId: id }).orderBy('place');
    const lines = rows.flatMap((r) =>
      change({ ...line(r.description), id: r.id, quantity: r.quantity, cost: r.cost, price: r.price }),
    );
    const ref = { once: yard.once(), quoteId: id, version: (await quoteOf(id)).version, after: 0, upTo: rows.length };
    must(await changeQuote(await yard.as('lead'), { ...ref, lines }));
  };
  const winIt = async (id: number, change: ToWin = {}) =>
    win({ quoteId: id, version: (await quoteOf(id)).version, ...change });

  beforeEach(async () => {
    must(await fill(line('Plate'), line('Rod'), line('Bar')));
    must(await win());
  });

  it('changes nothing until it is won', async () => {
    const id = await revise();
    await rewrite(id, (l) => (l.description === 'Rod' ? [] : [l]));
    expect(await quantities()).toEqual([
      ['Plate', 20_000],
      ['Rod', 20_000],
      ['Bar', 20_000],
    ]);
    expect(await budget()).toEqual([['opening', 6000]]);
  });

  it('moves budget and buy list by what differs, and the lines are its own from then on', async () => {
    const id = await revise();
    await rewrite(id, (l) =>
      l.description === 'Rod'
        ? []
        : l.description === 'Plate'
          ? [{ ...l, quantity: 35_000 as never }, line('Angle', { quantity: 10_000 as never })]
          : [l],
    );
    expect(must(await winIt(id))).toEqual({ bought: 1, budget: 500 });
    expect(await quantities()).toEqual([
      ['Plate', 35_000],
      ['Rod', 0],
      ['Bar', 20_000],
      ['Angle', 10_000],
    ]);
    expect(await budget()).toEqual([
      ['opening', 6000],
      ['change', 500],
    ]);
    const own = await yard.db('need as n').join('quoteLine as l', 'l.id', 'n.quoteLineId').where('l.quoteId', id);
    expect(own).toHaveLength(3);
    // The next revision begins from this one.
    const { version } = await quoteOf(id);
    const next = must(await reviseQuote(await yard.as('lead'), { once: yard.once(), quoteId: id, version }));
    expect(next.number).toBe('Q-412/3');
    await rewrite(next.id, (l) => (l.description === 'Bar' ? [{ ...l, quantity: 5000 as never }] : [l]));
    must(await winIt(next.id));
    expect((await quantities())[2]).toEqual(['Bar', 5000]);
    expect((await budget()).at(-1)).toEqual(['change', -1500]);
  });

  it('leaves as it is what is said to stay, and asks what becomes of what was ordered', async () => {
    const rod = (await yard.db('need').where({ description: 'Rod' }).first('id'))!.id;
    const buyer = await yard.as('buyer');
    await yard.db('need').where({ id: rod }).update({ supplierId: yard.ids.suppliers[0] });
    must(await draftOrders(buyer, { once: yard.once(), picks: [{ needId: rod, buy: 20_000 as never }] }));
    const id = await revise();
    await rewrite(id, (l) => (l.description === 'Bar' ? [l] : []));
    const plate = await idOf('Plate');
    expect(refusedWith(await winIt(id, { left: [`line ${plate}`] }))).toEqual(['need.surplus']);
    expect((await quoteOf(id)).state).toBe('writing');
    must(await winIt(id, { left: [`line ${plate}`], surplus: 'stores' }));
    expect(await quantities()).toEqual([
      ['Plate', 20_000],
      ['Rod', 0],
      ['Bar', 20_000],
    ]);
    const split = yard.db('split as s').join('orderLine as l', 'l.id', 's.lineId').where('l.description', 'Rod');
    expect(await split.select('s.jobId', 's.quantity')).toEqual([{ jobId: null, quantity: 20_000 }]);
  });

  it('takes no more off a cost code than stands there once some of it was moved to another', async () => {
    const [from, to] = yard.ids.codes;
    const move = [
      { costCodeId: from, amount: -4000 },
      { costCodeId: to, amount: 4000 },
    ].map((m) => ({ ...m, jobId: yard.ids.jobs[0], kind: 'change', reason: 'moved', quoteId: null, personId: 1 }));
    await insertMany(
      yard.db,
      'budgetEntry',
      move.map((m) => ({ ...m, day: TODAY, at: `${TODAY}T12:00:00.000Z` })) as never,
    );
    const id = await revise();
    await rewrite(id, (l) => (l.description === 'Plate' ? [l] : []));
    expect(refusedWith(await winIt(id))).toEqual(['change.below']);
    expect((await quoteOf(id)).state).toBe('writing');
    await rewrite(id, (l) => [{ ...l, quantity: 50_000 as never }]);
    // 40.00 of 60.00 went elsewhere; the revision takes 10.00 of the 20.00 that are left.
    expect(must(await winIt(id)).budget).toBe(-1000);
  });

  it('is bought by what was won until it is won itself', async () => {
    const id = await revise();
    const lineIds = (await yard.db('quoteLine').where({ quoteId: id }).select('id')).map((l) => l.id);
    const { version } = await quoteOf(id);
    must(await moveQuote(await yard.as('lead'), { quoteId: id, version, to: 'withCustomer' }));
    const asked = { once: yard.once(), quoteId: id, version: version + 1, lineIds, reason: 'long lead time' };
    expect(refusedWith(await buyEarly(await yard.as('lead'), asked))).toEqual(['quote.revision']);
    const more = { once: yard.once(), quoteId: 1, version: (await quoteOf()).version, lineIds: [1], by: 'H. Lowe' };
    expect(refusedWith(await agreeLines(await yard.as('lead'), more))).toEqual(['quote.revised']);
  });

  it('that is lost leaves the quote before in force', async () => {
    const id = await revise();
    const { version } = await quoteOf(id);
    must(await moveQuote(await yard.as('lead'), { quoteId: id, version, to: 'lost' }));
    expect(await quoteOf()).toMatchObject({ state: 'won', revisedAs: null });
    expect((await yard.db('job').where({ id: yard.ids.jobs[0] }).first())!.state).toBe('live');
    expect(await quantities()).toHaveLength(3);
  });
});

it('a revision remembers what was agreed to: an option later on, and lines that were not', async () => {
  must(await fill(line('Plate'), line('Rod'), line('Stand', { optional: true })));
  must(await win({ agreed: [await idOf('Plate')] }));
  const ref = { once: yard.once(), quoteId: 1, version: (await quoteOf()).version, by: 'Hester Lowe' };
  must(await agreeLines(await yard.as('lead'), { ...ref, lineIds: [await idOf('Stand')] }));
  expect(await needs()).toEqual(['Plate', 'Stand']);
  const before = await budget();
  const { version } = await quoteOf();
  const { id } = must(await reviseQuote(await yard.as('lead'), { once: yard.once(), quoteId: 1, version }));
  const revised = await yard.db('quoteLine').where({ quoteId: id }).orderBy('place');
  expect(revised.map((l) => [l.description, l.optional])).toEqual([
    ['Plate', 0],
    ['Rod', 1],
    ['Stand', 0],
  ]);
  expect(must(await win({ quoteId: id, version: (await quoteOf(id)).version }))).toEqual({ bought: 0, budget: 0 });
  expect([await needs(), await budget()]).toEqual([['Plate', 'Stand'], before]);
});
