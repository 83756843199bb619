import type { UnitPrice } from '@/core/money/money';
import { quantity } from '@/core/quantity/quantity';
import { loadQuoteSums } from '@/store/quotes';
import { must, refusedWith, TestCompany } from '../../../tests/support/company';
import { changeBuyList } from '../buying/needs';
import { changeQuote, moveQuote } from '../quotes/quotes';
import { winQuote } from '../quotes/winning';
import { dropView, keepColumns, keepView } from '../people/ownViews';

let yard: TestCompany;
beforeEach(async () => {
  yard = await TestCompany.open();
});
afterEach(() => yard.closeProven());

const q = (n: number) => quantity(n * 10_000);
const price = (n: number) => (n * 10_000) as UnitPrice;
const line = (description: string, n = 1, cost = 10) => ({
  kind: 'bought' as const,
  itemId: null,
  description,
  quantity: q(n),
  unit: 'C62',
  cost: price(cost),
  price: null,
  costCodeId: 1,
  supplierId: null,
  neededOn: '',
});

describe('a quote filled in on its sheet', () => {
  const rows = () =>
    yard
      .db('quoteLine')
      .where({ quoteId: 1 })
      .orderBy('place')
      .select('id', 'place', 'description') as unknown as Promise<{ id: number; place: number; description: string }[]>;
  const read = async () => (await rows()).map((r) => r.description);
  const change = async (lines: readonly object[], version: number, after = 0, upTo = after, by = 'lead' as const) =>
    changeQuote(await yard.as(by), { once: yard.once(), quoteId: 1, version, after, upTo, lines: lines as never });

  it('takes lines, in order, and is won with what they come to', async () => {
    must(await change([line('Pump', 2, 150), { ...line('Fitting', 3, 40), kind: 'labour' }, line('Hose', 10, 2.5)], 1));
    expect(await read()).toEqual(['Pump', 'Fitting', 'Hose']);
    expect([...(await loadQuoteSums(yard.db, 1)).budget.values()]).toEqual([32_500]);
    const won = must(
      await winQuote(await yard.as('lead'), { once: yard.once(), quoteId: 1, version: 2, wonBy: 'Ada' }),
    );
    expect(won).toEqual({ bought: 2, budget: 32_500 });
  });

  it('keeps its lines’ ids when they are changed, moved and taken off', async () => {
    must(await change([line('A'), line('B'), line('C')], 1));
    const [a, b, c] = await rows();
    must(await change([{ ...line('C2'), id: c?.id }, line('D'), { ...line('A'), id: a?.id }], 2, 0, 3));
    expect((await rows()).map((r) => [r.description, r.place])).toEqual([
      ['C2', 1],
      ['D', 2],
      ['A', 3],
    ]);
    expect((await rows()).map((r) => r.id)).toEqual([c?.id, expect.any(Number), a?.id]);
    expect((await rows()).map((r) => r.id)).not.toContain(b?.id);
  });

  it('makes room for lines that stand after those that were shown', async () => {
    must(
      await change(
        ['A', 'B', 'C', 'D'].map((d) => line(d)),
        1,
      ),
    );
    const [, b, c] = await rows();
    must(await change([{ ...line('B'), id: b?.id }, line('X'), line('Y'), { ...line('C'), id: c?.id }], 2, 1, 3));
    expect((await rows()).map((r) => [r.description, r.place])).toEqual(
      ['A', 'B', 'X', 'Y', 'C', 'D'].map((d, k) => [d, k + 1]),
    );
    must(await change([], 3, 1, 5));
    expect((await rows()).map((r) => [r.description, r.place])).toEqual([
      ['A', 1],
      ['D', 2],
    ]);
  });

  it('refuses what cannot be: half a piece, a line of another page or quote, one line twice', async () => {
    expect(refusedWith(await change([{ ...line('Half'), quantity: quantity(5000) }], 1))).toEqual(['input']);
    must(await change([line('A'), line('B')], 1));
    const [a, b] = await rows();
    expect(refusedWith(await change([{ ...line('A'), id: a?.id }], 2, 1, 2))).toEqual(['line.missing']);
    expect(refusedWith(await change([{ ...line('Z'), id: 999 }], 2, 0, 2))).toEqual(['line.missing']);
    expect(
      refusedWith(
        await change(
          [1, 2].map(() => ({ ...line('B'), id: b?.id })),
          2,
          0,
          2,
        ),
      ),
    ).toEqual(['input']);
    expect(await read()).toEqual(['A', 'B']);
  });

  it('clashes with what somebody else saved meanwhile, and is closed once it is lost', async () => {
    must(await change([line('A')], 1));
    expect((await change([line('B')], 1)).status).toBe('clash');
    must(await moveQuote(await yard.as('lead'), { quoteId: 1, version: 2, to: 'lost' }));
    expect(refusedWith(await change([line('B')], 3))).toEqual(['quote.closed']);
  });

  it('acts once for one key', async () => {
    const once = yard.once();
    const input = { once, quoteId: 1, version: 1, after: 0, upTo: 0, lines: [line('A')] };
    must(await changeQuote(await yard.as('lead'), input));
    must(await changeQuote(await yard.as('lead'), input));
    expect(await read()).toEqual(['A']);
  });
});

describe('a buy list filled in on its sheet', () => {
  const wanted = (description: string, n: number) => {
    const { kind: _, cost, ...rest } = line(description, n);
    return { ...rest, price: cost };
  };
  const change = async (lines: readonly object[]) =>
    changeBuyList(await yard.as('buyer'), { once: yard.once(), jobId: yard.ids.jobs[0], lines: lines as never });

  it('changes lines and adds others in one step, each on the tab', async () => {
    const needId = await yard.need({ unit: 'C62', quantity: 12, price: 8 });
    const done = await change([
      { ...wanted('Hose', 20), costCodeId: yard.ids.codes[1], needId, version: 1 },
      wanted('Clip', 4),
      wanted('Tie', 2),
    ]);
    expect(must(done)).toEqual({ changed: 1, added: 2 });
    expect((await yard.tab()).planned).toBe(20_000 + 4_000 + 2_000);
  });

  it('does nothing at all when one line cannot be so, and says which', async () => {
    const outcome = await change([wanted('Clip', 4), wanted('Tie', 0)]);
    expect(outcome).toMatchObject({ status: 'refused', refusals: [{ field: 'lines.1.quantity' }] });
    expect(await yard.db('need').select('id')).toEqual([]);
  });

  it('keeps the part, unit and code of what is bought already, and asks before it cuts below that', async () => {
    const needId = await yard.need({ unit: 'C62', quantity: 12 });
    await yard.draft([{ needId, buy: q(10) }]);
    const own = { ...wanted('Hose', 12), costCodeId: yard.ids.codes[1], needId, version: 1 };
    expect(refusedWith(await change([{ ...own, costCodeId: yard.ids.codes[0] }]))).toEqual(['need.bought']);
    expect(await change([{ ...own, quantity: q(4) }])).toMatchObject({
      status: 'refused',
      refusals: [{ code: 'need.surplus', field: 'lines.0.surplus' }],
    });
    must(await change([{ ...own, quantity: q(14) }]));
  });

  it('takes another part for a line of which nothing is bought', async () => {
    const needId = await yard.need({ unit: 'MTR', description: 'Hose' });
    const [item] = await yard.db('item').where({ unit: 'MTR' });
    const own = { ...wanted('Tube', 12), unit: 'MTR', needId, version: 1, itemId: item?.id ?? 0 };
    must(await change([own]));
    expect((await yard.db('need').where({ id: needId }).first())?.itemId).toBe(item?.id);
  });

  it('is kept from a line of another job, and clashes line by line', async () => {
    const other = await yard.need({ job: 1, unit: 'C62' });
    expect(refusedWith(await change([{ ...wanted('Hose', 1), needId: other, version: 1 }]))).toEqual(['need.job']);
    const own = await yard.need({ unit: 'C62' });
    expect((await change([{ ...wanted('Hose', 1), needId: own, version: 7 }])).status).toBe('clash');
  });
});

describe('how a person looks at a list', () => {
  it('is kept for that person alone', async () => {
    must(await keepColumns(await yard.as('buyer'), { list: 'orders', order: ['number', 'net'], hidden: ['sent'] }));
    must(await keepColumns(await yard.as('buyer'), { list: 'orders', order: ['number'], hidden: [] }));
    const own = await yard.db('listColumns').select('shown', 'hidden');
    expect(own).toEqual([{ shown: '["number"]', hidden: '[]' }]);
    must(await keepView(await yard.as('buyer'), { list: 'orders', name: 'Late', query: 'show=sent' }));
    must(await keepView(await yard.as('buyer'), { list: 'orders', name: 'Late', query: 'show=open' }));
    const [view] = await yard.db('listView').select('id', 'query');
    expect(view?.query).toBe('show=open');
    must(await dropView(await yard.as('lead'), { id: view?.id ?? 0 }));
    expect(await yard.db('listView').select('id')).toHaveLength(1);
    must(await dropView(await yard.as('buyer'), { id: view?.id ?? 0 }));
    expect(await yard.db('listView').select('id')).toEqual([]);
  });

  it('has room for thirty views of one list', async () => {
    const keep = async (k: number) =>
      keepView(await yard.as('buyer'), { list: 'orders', name: `View ${k}`, query: '' });
    for (let k = 0; k < 30; k += 1) must(await keep(k));
    expect(refusedWith(await keep(30))).toEqual(['view.many']);
    must(await keep(3));
  });
});
