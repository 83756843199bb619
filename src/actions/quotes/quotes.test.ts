import { lineNet, type UnitPrice } from '@/core/money/money';
import { budgetOf } from '@/core/quotes/winning';
import { withTaxes } from '@/store/company';
import { loadQuoteSums } from '@/store/quotes';
import { findUnproven } from '@/store/ledger';
import { loadLevels } from '@/store/levels';
import { guessMapping, type Mapping } from '@/core/quotes/fields';
import { must, refusedWith, TestCompany, TODAY } from '../../../tests/support/company';
import { openJob } from '../jobs/jobs';
import { changeNeeds } from '../buying/manyNeeds';
import { addNeed, changeNeed } from '../buying/needs';
import { importQuoteFile as bringInFile, importQuote, keepQuoteFile } from './importing';
import { moveQuote } from './quotes';
import { winQuote } from './winning';

let yard: TestCompany;
beforeEach(async () => {
  yard = await TestCompany.open();
});
afterEach(() => yard.close());

const HEAD = ['Description', 'Qty', 'Unit', 'Cost', 'Sell', 'Cost code', 'Supplier', 'Needed', 'Type'];
const csv = (...rows: string[]) => new TextEncoder().encode([HEAD.join(','), ...rows].join('\r\n'));
const choices = { mark: '.' as const, costCode: {}, supplier: {}, unit: {}, leftOut: [] as number[] };
const mapping: Mapping = guessMapping(HEAD);

const keep = async (bytes: Uint8Array<ArrayBuffer>, quoteId = 1) =>
  keepQuoteFile(await yard.as('buyer'), { quoteId, name: 'quote.csv', bytes });
const bringIn = async (bytes: Uint8Array<ArrayBuffer>, more = {}) =>
  bringInFile(await yard.as('buyer'), {
    once: yard.once(),
    fileId: must(await keep(bytes)).id,
    mapping,
    choices: { ...choices, ...more },
  });
const lines = async () => ((await yard.db('quoteLine').count({ n: '*' })) as { n: number }[])[0]?.n;

const GOOD = csv(
  'Plate,2,sheet,100,150,01,Eelmoor Metals,2026-06-01,bought',
  'Fitting,3,h,40,60,02,,,labour',
  'Carriage,1,lump sum,25,30,09,,,allowance',
  'Bearing,4,pc,10.5,20,02,Pellam Bearings,2026-06-03,',
);

describe('bringing a quote in', () => {
  it('asks how decimals are written when nobody has said', async () =>
    expect(refusedWith(await bringIn(GOOD, { mark: null }))).toEqual(['mark']));

  it('brings all of its lines in', async () => {
    expect(must(await bringIn(GOOD))).toEqual({ lines: 4 });
    expect(
      (await yard
        .db('quoteLine')
        .orderBy('place')
        .select('place', 'kind', 'description', 'quantity', 'unit', 'cost')) as unknown,
    ).toMatchObject([
      { place: 1, kind: 'bought', unit: 'XST', cost: 1_000_000 },
      { kind: 'labour', unit: 'HUR' },
      { kind: 'allowance' },
      { place: 4, description: 'Bearing', quantity: 40_000 },
    ]);
  });

  it('comes to what each line comes to, rounded by itself', async () => {
    const odd = Array.from({ length: 9 }, (_, k) => `Rod ${k},0.333${k},m,1.11${k},2.5${k},0${(k % 2) + 1},,,`);
    must(await bringIn(csv(...odd, 'Fitting,3,h,40,60,02,,,labour', 'Carriage,1,lump sum,25,30,09,,,allowance')));
    const stored = await yard.db('quoteLine');
    const sums = await loadQuoteSums(yard.db, 1);
    expect(sums.budget).toEqual(budgetOf(await withTaxes(yard.db, stored), 'GBP'));
    const net = (of: 'cost' | 'price') =>
      stored.reduce((sum, l) => sum + lineNet(l.quantity, l[of] ?? (0 as UnitPrice), 1, 'GBP'), 0);
    expect(sums).toMatchObject({ lines: 11, bought: 9, cost: net('cost'), price: net('price') });
  });

  it('brings nothing in while one row has a problem, and says which', async () => {
    const outcome = await bringIn(csv('Plate,2,sheet,100,150,01,,,', 'Rod,-2,m,4,6,01,,,', 'Pipe,2,m,4,6,99,,,'));
    expect(outcome.status === 'refused' && outcome.refusals.map((r) => r.field)).toEqual(['rows.3', 'rows.4']);
    expect(await lines()).toBe(0);
  });

  it('leaves out what it was told to leave out', async () => {
    expect(must(await bringIn(csv('Plate,2,sheet,100,150,01,,,', 'Total,,,200,,,,,'), { leftOut: [3] }))).toEqual({
      lines: 1,
    });
  });

  it('refuses when every row is left out, or a column is missing', async () => {
    expect(refusedWith(await bringIn(csv('Plate,2,sheet,100,150,01,,,'), { leftOut: [2] }))).toEqual(['rows.none']);
    const file = must(await keep(GOOD));
    expect(
      refusedWith(
        await bringInFile(await yard.as('buyer'), {
          once: yard.once(),
          fileId: file.id,
          mapping: { description: 0 },
          choices,
        }),
      ),
    ).toEqual(['mapping']);
  });

  it('brings a file in once', async () => {
    const file = must(await keep(GOOD));
    const input = { once: yard.once(), fileId: file.id, mapping, choices };
    must(await bringInFile(await yard.as('buyer'), input));
    expect(must(await bringInFile(await yard.as('buyer'), input))).toEqual({ lines: 4 });
    expect(refusedWith(await bringInFile(await yard.as('buyer'), { ...input, once: yard.once() }))).toEqual([
      'missing',
    ]);
    expect(await lines()).toBe(4);
  });

  it('reads only for who may bring quotes in, and takes nothing that no reading gives', async () => {
    const { id: fileId } = must(await keep(GOOD));
    const input = { once: yard.once(), fileId, mapping, choices };
    expect(refusedWith(await bringInFile(await yard.as('storekeeper'), input))).toEqual(['right']);
    const line = { kind: 'bought' as const, itemId: null, description: 'Plate', quantity: 10_000, unit: 'MTR' };
    const forged = { ...line, cost: 1, price: null, costCodeId: 77, supplierId: null, neededOn: '' };
    const take = async (change: object) =>
      refusedWith(
        await importQuote(await yard.as('buyer'), {
          once: yard.once(),
          fileId,
          lines: [{ ...forged, ...change }],
          leftOut: [],
          meanings: { column: {}, costCode: {}, supplier: {}, unit: {} },
        }),
      );
    expect(await take({})).toEqual(['missing']);
    expect(await take({ costCodeId: 1, unit: 'QQ' })).toEqual(['input']);
    for (const change of [{ quantity: -1 }, { quantity: 0 }, { cost: -1 }, { quantity: 5000, unit: 'C62' }])
      expect(await take({ costCodeId: 1, ...change })).toEqual(['input']);
    expect(await lines()).toBe(0);
  });

  it('takes 20,000 lines, and all of them on to the buy list', async () => {
    const many = csv(...Array.from({ length: 20_000 }, (_, k) => `Part ${k},1,pc,1.25,2,01,,,`));
    expect(must(await bringIn(many))).toEqual({ lines: 20_000 });
    expect(
      must(await winQuote(await yard.as('lead'), { once: yard.once(), quoteId: 1, version: 2, wonBy: 'Hester Lowe' })),
    ).toEqual({ bought: 20_000, budget: 2_500_000 });
    expect(await yard.tab()).toEqual({ planned: 2_500_000 });
  });
});

describe('winning a quote', () => {
  const win = async (change = {}) =>
    winQuote(await yard.as('lead'), { once: yard.once(), quoteId: 1, version: 2, wonBy: 'Hester Lowe', ...change });

  it('buys hours as a service, which no dock takes in, and the rest as goods', async () => {
    must(
      await bringIn(csv('Welder on site,18,h,40,60,02,Eelmoor Metals,,bought', 'Plate,2,sheet,100,150,01,,,bought')),
    );
    must(await win());
    expect(await yard.db('need').orderBy('id').select('description', 'kind')).toEqual([
      { description: 'Welder on site', kind: 'service' },
      { description: 'Plate', kind: 'goods' },
    ]);
  });

  it('opens the budget by cost code and fills the buy list with what is bought', async () => {
    must(await bringIn(GOOD));
    expect(must(await win())).toEqual({ bought: 2, budget: 20_000 + 2500 + 4200 });
    const levels = await loadLevels(yard.db, [yard.ids.jobs[0]]);
    expect(levels.map((l) => [l.costCodeId, l.budget, l.amounts.planned]).sort()).toEqual(
      [
        [yard.ids.codes[0], 20_000, 20_000],
        [yard.ids.codes[1], 4200, 4200],
        [yard.ids.codes[2], 2500, 0],
      ].sort(),
    );
    expect((await yard.db('quote').where({ id: 1 }).first('state', 'wonBy', 'wonOn')) as unknown).toEqual({
      state: 'won',
      wonBy: 'Hester Lowe',
      wonOn: TODAY,
    });
    expect(await findUnproven(yard.db)).toEqual([]);
  });

  it('is done once, by who may, and never for a lost quote', async () => {
    must(await bringIn(GOOD));
    expect(
      refusedWith(
        await winQuote(await yard.as('storekeeper'), { once: yard.once(), quoteId: 1, version: 2, wonBy: 'x' }),
      ),
    ).toEqual(['right']);
    must(await win());
    expect(refusedWith(await win({ version: 3 }))).toEqual(['quote.won']);
    expect(refusedWith(await keep(GOOD))).toEqual(['quote.closed']);
    must(await moveQuote(await yard.as('lead'), { quoteId: 2, version: 1, to: 'lost' }));
    expect(refusedWith(await win({ quoteId: 2, version: 2 }))).toEqual(['quote.lost']);
  });

  it('shows a version that has moved on', async () => {
    must(await bringIn(GOOD));
    expect((await win({ version: 1 })).status).toBe('clash');
  });
});

describe('jobs', () => {
  const job = {
    number: '500',
    name: 'New work',
    shortName: '',
    kind: 'repair' as const,
    customer: 'Estuary Survey Trust',
    leadId: 2,
    site: '',
    startsOn: '',
    dueOn: '',
  };
  it('open with a quote to write, on the rail of who opened them', async () => {
    const { id } = must(await openJob(await yard.as('buyer'), { once: yard.once(), ...job }));
    expect((await yard.db('quote').where({ jobId: id }).first('number', 'state')) as unknown).toEqual({
      number: 'Q-500',
      state: 'writing',
    });
    expect(await yard.db('openJob').where({ jobId: id }).select('personId')).toHaveLength(1);
    expect(await yard.db('customer').select('id')).toHaveLength(1);
  });
  it.each([
    ['a number that is taken', { number: '412' }, ['job.number']],
    ['dates the wrong way round', { startsOn: '2026-06-02', dueOn: '2026-06-01' }, ['job.dates']],
    ['no name', { name: ' ' }, ['input']],
    ['no day', { dueOn: '2026-02-30' }, ['input']],
  ])('refuse %s', async (_, change, codes) =>
    expect(refusedWith(await openJob(await yard.as('buyer'), { once: yard.once(), ...job, ...change }))).toEqual(codes),
  );
});

describe('needs', () => {
  const text = {
    description: 'Anode',
    quantity: 40_000 as never,
    unit: 'C62',
    costCodeId: 1,
    price: 320_000 as never,
    supplierId: null,
    neededOn: '2026-06-01',
  };
  it('are put on a live job’s buy list by hand', async () => {
    must(await addNeed(await yard.as('buyer'), { once: yard.once(), jobId: yard.ids.jobs[0], itemId: null, ...text }));
    expect(await yard.tab()).toEqual({ planned: 12_800 });
  });
  it.each([
    ['half a piece', { quantity: 5000 }, 'quantity.whole'],
    ['nothing', { quantity: 0 }, 'need.quantity'],
    ['an unknown unit', { unit: 'QQ' }, 'input'],
    ['a price below zero', { price: -1 }, 'input'],
  ])('refuse %s', async (_, change, code) =>
    expect(
      refusedWith(
        await addNeed(await yard.as('buyer'), {
          once: yard.once(),
          jobId: yard.ids.jobs[0],
          itemId: null,
          ...text,
          ...(change as object),
        }),
      ),
    ).toEqual([code]),
  );
  it('are only for live jobs', async () => {
    await yard.db('job').where({ id: yard.ids.jobs[0] }).update({ state: 'quoted' });
    expect(
      refusedWith(
        await addNeed(await yard.as('buyer'), { once: yard.once(), jobId: yard.ids.jobs[0], itemId: null, ...text }),
      ),
    ).toEqual(['job.state']);
  });
  it('keep their unit once some of them is bought', async () => {
    const needId = await yard.need();
    await yard.draft([{ needId, buy: 50_000 as never }]);
    expect(
      refusedWith(
        await changeNeed(await yard.as('buyer'), {
          needId,
          version: 1,
          ...text,
          unit: 'KGM',
          costCodeId: yard.ids.codes[1],
        }),
      ),
    ).toEqual(['need.bought']);
    expect((await changeNeed(await yard.as('buyer'), { needId, version: 7, ...text })).status).toBe('clash');
  });
  it('get a supplier several at a time', async () => {
    const ids = [await yard.need({ supplier: null }), await yard.need({ supplier: null })];
    must(
      await changeNeeds(await yard.as('buyer'), {
        needs: ids.map((needId) => ({ needId, version: 1 })),
        supplierId: yard.ids.suppliers[1],
      }),
    );
    expect(await yard.db('need').whereIn('id', ids).distinct('supplierId')).toEqual([
      { supplierId: yard.ids.suppliers[1] },
    ]);
  });
});
