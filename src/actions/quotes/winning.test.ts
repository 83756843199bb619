import { must, q, refusedWith, TestCompany, TODAY } from '../../../tests/support/company';
import { quoting, type TypedQuoteLine as Line } from '../../../tests/support/quoting';
import { whyNotBought } from '@/core/quotes/winning';
import { loadQuote } from '@/queries/jobs/job';
import { loadBuyList } from '@/queries/buying/buyList';
import { loadOrder } from '@/queries/orders/order';
import { loadQuotePaper } from '@/queries/quotes/paper';
import { loadSideBySide } from '@/queries/quotes/sideBySide';
import { insertOne } from '@/store/rows';
import { changeQuote, changeSaying, moveQuote, reviseQuote, writeForPieces } from './quotes';
import { draftOrders } from '../orders/orders';
import { agreeLines, buyEarly } from './winning';

let yard: TestCompany;
beforeEach(async () => {
  yard = await TestCompany.open();
});
afterEach(() => yard.closeProven());

const { line, quoteOf, fill, win, idOf, budget, needs } = quoting(() => yard);

describe('a line of a quote', () => {
  it('has the price that its mark-up gives, whatever was sent with it', async () => {
    must(await fill(line('Plate', { markup: 2500, price: 1 }), line('Rod', { price: 150_000 })));
    const stored = await yard.db('quoteLine').orderBy('place').select('price', 'markup', 'net', 'priceNet');
    expect(stored).toEqual([
      { price: 125_000, markup: 2500, net: 2000, priceNet: 2500 },
      { price: 150_000, markup: null, net: 2000, priceNet: 3000 },
    ]);
  });
  it.each([-10_001, 1_000_001])('is not marked up by %d hundredths of a percent', async (markup) =>
    expect(refusedWith(await fill(line('Plate', { markup })))).toEqual(['input']),
  );
  it('that is optional is not in what the quote comes to', async () => {
    must(await fill(line('Plate', { price: 150_000 }), line('Rail', { price: 150_000, optional: true })));
    const { actor, db } = await yard.as('lead');
    const view = await loadQuote(db, actor, yard.ids.jobs[0]);
    expect(view?.whole).toMatchObject({ lines: 2, bought: 1, cost: 2000, price: 3000 });
    expect(view?.whole.codes).toEqual([{ costCodeId: 1, code: '01', name: 'Hull', cost: 2000, price: 3000 }]);
    const paper = await loadQuotePaper(db, actor, 1, TODAY);
    expect(paper?.totals.map((t) => t.amount)).toEqual(['£\u202f30.00']);
    expect(JSON.stringify(paper)).not.toContain('20.00');
  });
  it('says why it is not bought', () => {
    const why = (kind: Line['kind'], bought?: number, agreed = 1) =>
      whyNotBought({ kind, agreed }, bought === undefined ? undefined : { bought });
    expect([why('bought'), why('bought', 1)]).toEqual([undefined, undefined]);
    expect(why('bought', 0)).toBe('item not for purchase');
    expect(why('bought', 1, 0)).toBe('not accepted');
    expect([why('made'), why('labour'), why('customer'), why('allowance')]).toEqual([
      'made, from its BOM',
      'own labour',
      'free issue',
      'budget only',
    ]);
  });
});

describe('the customer’s yes', () => {
  it('is to all that is not optional, and takes the customer’s order along to the job', async () => {
    must(await fill(line('Plate'), line('Rail', { optional: true })));
    const order = { customerOrder: 'PO 77', customerOrderOn: '2026-05-11', deliveryAddress: 'Pier 2', plannerId: 2 };
    expect(must(await win(order))).toEqual({ bought: 1, budget: 2000 });
    expect(await needs()).toEqual(['Plate']);
    const job = await yard.db('job').where({ id: yard.ids.jobs[0] }).first();
    expect(job).toMatchObject(order);
  });
  it('is to the lines that are picked, and to more of them later', async () => {
    must(await fill(line('Plate'), line('Rail', { optional: true }), line('Rod')));
    must(await win({ agreed: [await idOf('Rail')] }));
    expect(await needs()).toEqual(['Rail']);
    const agree = async (description: string, version: number) =>
      agreeLines(await yard.as('lead'), {
        once: yard.once(),
        ...{ quoteId: 1, version, lineIds: [await idOf(description)], by: 'Hester Lowe' },
      });
    const { version } = await quoteOf();
    expect(must(await agree('Rod', version))).toEqual({ bought: 1, budget: 2000 });
    expect(await needs()).toEqual(['Rail', 'Rod']);
    expect(await budget()).toEqual([
      ['opening', 2000],
      ['change', 2000],
    ]);
    expect(refusedWith(await agree('Rod', version + 1))).toEqual(['line.agreed']);
    expect(refusedWith(await agree('Plate', version))).toEqual(['clash']);
  });
  it('is to something, and to lines of this quote', async () => {
    must(await fill(line('Plate')));
    expect(refusedWith(await win({ agreed: [] }))).toEqual(['quote.empty']);
    expect(refusedWith(await win({ agreed: [999] }))).toEqual(['line.missing']);
    const asked = { once: yard.once(), quoteId: 1, version: 2, lineIds: [await idOf('Plate')], by: 'x' };
    expect(refusedWith(await agreeLines(await yard.as('lead'), asked))).toEqual(['quote.open']);
  });
  it('buys no part that may not be bought, though it opens budget for it', async () => {
    const id = await insertOne(yard.db, 'item', { number: 'FR-1', name: 'Frame', unit: 'MTR', bought: 0 });
    must(await fill(line('Frame', { itemId: id }), line('Boat', { kind: 'customer', cost: 0 })));
    expect(must(await win())).toEqual({ bought: 0, budget: 2000 });
  });
});

describe('buying before the customer’s yes', () => {
  const early = async (lineIds: number[], change: Partial<Parameters<typeof buyEarly>[1]> = {}) =>
    buyEarly(await yard.as('lead'), {
      once: yard.once(),
      ...{ quoteId: 1, version: (await quoteOf()).version, lineIds, reason: 'twelve weeks of lead time' },
      ...change,
    });
  const moving = async (to: 'withCustomer' | 'lost' | 'writing') =>
    must(await moveQuote(await yard.as('lead'), { quoteId: 1, version: (await quoteOf()).version, to }));
  const job = async () => (await yard.db('job').where({ id: yard.ids.jobs[0] }).first())!.state;
  beforeEach(async () => {
    await yard.db('job').where({ id: yard.ids.jobs[0] }).update({ state: 'quoted' });
    must(await fill(line('Engine', { supplierId: 1 }), line('Plate'), line('Fitting', { kind: 'labour' })));
  });

  it('wants the quote with the customer, lines that are bought, and a reason', async () => {
    expect(refusedWith(await early([await idOf('Engine')]))).toEqual(['quote.writing']);
    await moving('withCustomer');
    expect(refusedWith(await early([await idOf('Fitting')]))).toEqual(['quote.nothing']);
    expect(refusedWith(await early([await idOf('Engine')], { reason: ' ' }))).toEqual(['input']);
    expect(must(await early([await idOf('Engine')]))).toEqual({ bought: 1 });
    expect([await job(), await needs(), await budget()]).toEqual(['live', ['Engine'], []]);
    expect(await quoteOf()).toMatchObject({ earlyReason: 'twelve weeks of lead time', state: 'withCustomer' });
  });
  it('is said on its order, and once more where that is sent, until the customer agrees', async () => {
    await moving('withCustomer');
    must(await early([await idOf('Engine')]));
    const needId = (await yard.db('need').first('id'))!.id;
    const order = await yard.draft([{ needId, buy: q(2) }]);
    const { actor, db } = await yard.as('buyer');
    const said = async () =>
      (await loadOrder(db, actor, order.number, TODAY))?.checks.filter((c) => c.atSending).map((c) => c.words);
    expect(await said()).toEqual(['Quote Q-412 isn’t accepted yet: “twelve weeks of lead time”, The lead']);
    must(await win());
    expect(await said()).toEqual([]);
  });

  it('is said on its line, until the customer agrees', async () => {
    await moving('withCustomer');
    must(await early([await idOf('Engine')]));
    const { actor, db } = await yard.as('lead');
    const tags = async () =>
      (await loadBuyList(db, actor, yard.ids.jobs[0], TODAY)).rows.flatMap((n) => n.tags.map((t) => t.words));
    expect(await tags()).toContain('not accepted yet');
    must(await win());
    expect(await tags()).not.toContain('not accepted yet');
  });
  it('buys nothing twice once the quote is won, revised or not', async () => {
    await moving('withCustomer');
    must(await early([await idOf('Engine')]));
    const made = must(
      await reviseQuote(await yard.as('lead'), { once: yard.once(), quoteId: 1, version: (await quoteOf()).version }),
    );
    must(await win({ quoteId: made.id, version: 1 }));
    expect(await needs()).toEqual(['Engine', 'Plate']);
    expect(await budget()).toEqual([['opening', 4000]]);
  });
  it('is given up with the quote, and never for one that is lost', async () => {
    await moving('withCustomer');
    must(await early([await idOf('Engine')]));
    const picks = [{ needId: (await yard.db('need').first())!.id, buy: 10_000 }];
    await moving('lost');
    expect([await job(), (await yard.db('need').first())?.quantity]).toEqual(['lost', 0]);
    expect(refusedWith(await early([await idOf('Engine')]))).toEqual(['quote.closed']);
    await yard.db('job').where({ id: yard.ids.jobs[0] }).update({ state: 'live' });
    const asked = { once: yard.once(), picks: picks as never };
    expect(refusedWith(await draftOrders(await yard.as('buyer'), asked))).toEqual(['quote.lost']);
  });
  it('keeps what is drafted already when the quote is lost', async () => {
    await moving('withCustomer');
    must(await early([await idOf('Engine')]));
    await yard.draft([{ needId: (await yard.db('need').first())!.id, buy: 10_000 as never }]);
    await moving('lost');
    expect([await job(), (await yard.db('need').first())?.quantity]).toEqual(['live', 10_000]);
  });
});

describe('a quote revised', () => {
  beforeEach(async () => void must(await fill(line('Plate', { markup: 2500 }), line('Rail', { optional: true }))));

  it('is a copy to change; the one before stays as it was', async () => {
    must(await moveQuote(await yard.as('lead'), { quoteId: 1, version: 2, to: 'withCustomer' }));
    const made = must(await reviseQuote(await yard.as('lead'), { once: yard.once(), quoteId: 1, version: 3 }));
    expect(made.number).toBe('Q-412/2');
    expect((await yard.db('quoteLine').where({ quoteId: made.id })).map((l) => l.description)).toEqual([
      'Plate',
      'Rail',
    ]);
    expect(refusedWith(await fill(line('More')))).toEqual(['quote.revised']);
    expect(refusedWith(await win())).toEqual(['quote.revised']);
    expect(
      refusedWith(await reviseQuote(await yard.as('lead'), { once: yard.once(), quoteId: 1, version: 4 })),
    ).toEqual(['quote.revised']);
    const again = must(await reviseQuote(await yard.as('lead'), { once: yard.once(), quoteId: made.id, version: 1 }));
    expect(again.number).toBe('Q-412/3');
    must(await win({ quoteId: again.id, version: 1 }));
    expect(await needs()).toEqual(['Plate']);
  });
});

describe('a quote by the piece', () => {
  const saying = async (change: object) =>
    changeSaying(await yard.as('lead'), {
      ...{ quoteId: 1, version: (await quoteOf()).version },
      saying: { takes: '', validUntil: null, words: '', pieces: 10, alsoPieces: [25], ...change },
    });
  const write = async (pieces: number) =>
    writeForPieces(await yard.as('lead'), {
      ...{ once: yard.once(), quoteId: 1, version: (await quoteOf()).version, pieces },
    });

  it('is written for another number, and back', async () => {
    must(
      await fill(
        line('Plate', { markup: 5000 }),
        line('Setting up', { per: 'batch', unit: 'LS', quantity: 10_000 as never }),
      ),
    );
    expect(refusedWith(await write(25))).toEqual(['quote.pieces']);
    must(await saying({}));
    const { actor, db } = await yard.as('lead');
    expect(await loadSideBySide(db, actor, 1, TODAY)).toEqual([
      { pieces: 10, cost: 3000, price: 3000 },
      { pieces: 25, cost: 6000, price: 7500 },
    ]);
    must(await write(25));
    expect(await yard.db('quoteLine').orderBy('place').select('quantity', 'net', 'priceNet')).toEqual([
      { quantity: 50_000, net: 5000, priceNet: 7500 },
      { quantity: 10_000, net: 1000, priceNet: null },
    ]);
    expect(await quoteOf()).toMatchObject({ pieces: 25, alsoPieces: '10' });
    expect(await loadQuotePaper(db, actor, 1, TODAY)).toMatchObject({
      pieces: '25 pieces',
      totals: [{ amount: '£\u202f75.00' }, { label: 'For 10 pieces, 3.00 each', amount: '£\u202f30.00' }],
    });
    must(await write(10));
    expect(await quoteOf()).toMatchObject({ pieces: 10, alsoPieces: '25' });
    must(await win());
    expect(await budget()).toEqual([['opening', 3000]]);
  });

  it('keeps what a person wrote, so that it is the same when it is written back', async () => {
    must(await fill(line('Cap', { unit: 'C62', quantity: 70_000 as never })));
    must(await saying({}));
    const row = () => yard.db('quoteLine').first('id', 'quantity');
    must(await write(1));
    expect(await row()).toMatchObject({ quantity: 10_000 });
    must(await write(25));
    expect(await row()).toMatchObject({ quantity: 180_000 });
    must(await write(10));
    expect(await row()).toMatchObject({ quantity: 70_000 });
    must(await write(1));
    // 2 for one piece are 20 for ten.
    const { id } = (await row())!;
    const { version } = await quoteOf();
    const typed = { ...line('Cap', { unit: 'C62', quantity: 20_000 as never }), id };
    const ref = { once: yard.once(), quoteId: 1, version, after: 0, upTo: 1 };
    must(await changeQuote(await yard.as('lead'), { ...ref, lines: [typed] }));
    must(await write(10));
    expect(await row()).toMatchObject({ quantity: 200_000 });
    must(await write(3));
    must(await saying({ pieces: 30 }));
    must(await write(15));
    // As it stood it was said to be for thirty.
    expect(await row()).toMatchObject({ quantity: 30_000 });
  });

  it.each([
    ['other numbers without its own', { pieces: null }],
    ['no piece', { pieces: 0 }],
    ['half a piece', { pieces: 1.5 }],
    ['more numbers than can be read side by side', { alsoPieces: [1, 2, 3, 4, 5, 6, 7] }],
  ])('is not one with %s', async (_, change) => {
    must(await fill(line('Plate')));
    expect(refusedWith(await saying(change))).toEqual(['input']);
  });
});

it('says how long it takes and until when it holds, as long as it is open', async () => {
  must(await fill(line('Plate')));
  const says = { takes: '6 weeks', validUntil: '2026-06-30', words: 'With our thanks.' };
  const saying = async (version: number) =>
    changeSaying(await yard.as('lead'), { quoteId: 1, version, saying: { ...says, pieces: null, alsoPieces: [] } });
  must(await saying(2));
  const { actor, db } = await yard.as('lead');
  expect(await loadQuotePaper(db, actor, 1, TODAY)).toMatchObject({ takes: '6 weeks', validUntil: 'Tue 30 Jun 2026' });
  must(await win());
  expect(refusedWith(await saying(4))).toEqual(['quote.closed']);
});
