import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { MON_TO_FRI, type Day } from '@/core/calendar/workdays';
import { guessMapping } from '@/core/quotes/fields';
import { readRows } from '@/core/quotes/rows';
import { readCsv } from '@/formats/csv/read';
import { loadDesk } from '@/queries/frame/desk';
import { listDue } from '@/queries/dock/dock';
import { listJobs } from '@/queries/jobs/jobs';
import { listOpenNeeds } from '@/queries/buying/openNeeds';
import { loadOrder } from '@/queries/orders/order';
import { findUnproven } from '@/store/ledger';
import type { Db } from '@/store/db';
import { open } from '@/store/open';
import { findByEmail, type Person } from '@/store/people';
import { loadKnowledge } from '@/store/quotes';
import { PEOPLE } from './catalogue';
import { JOBS } from './jobs';
import { sampleQuote } from './sampleQuote';
import { seedDemo } from './seed';

const TODAY = '2026-05-12' as Day;
const taken = async () => ({ came: 'taken' as const, answer: '250' });

let folder: string;
let db: Db;
let mina: Person;

beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'kettle-demo-'));
  ({ db } = await open(join(folder, 'demo.sqlite')));
  await seedDemo(db, TODAY, taken);
  mina = (await findByEmail(db, 'mina@wrackline.example')) as Person;
});
afterAll(async () => {
  await db.destroy();
  rmSync(folder, { recursive: true });
});

const distinct = async (table: string, column: string) =>
  ((await db(table).distinct(column).orderBy(column)) as Record<string, string>[]).map((r) => r[column]);

describe('the sample company', () => {
  it('has a ledger that is right to the penny', async () => expect(await findUnproven(db)).toEqual([]));

  it('has jobs of every kind and in every state', async () => {
    expect(await distinct('job', 'kind')).toEqual(['contract', 'make', 'repair']);
    expect(await distinct('job', 'state')).toEqual(['complete', 'live', 'lost', 'quoted']);
    expect(await distinct('quote', 'state')).toEqual(['lost', 'withCustomer', 'won', 'writing']);
    expect((await listJobs(db, mina, { state: 'all' })).rows).toHaveLength(JOBS.length);
  });

  it('has orders and invoices in the states a buyer meets', async () => {
    expect(await distinct('purchaseOrder', 'state')).toEqual([
      ...['allIn', 'confirmed', 'drafting', 'partIn', 'sent', 'settled', 'withSignOff'],
    ]);
    expect(await distinct('invoice', 'state')).toEqual(['entered', 'held', 'matched']);
  });

  it('shows real trouble: a budget over, a line too late, a wrong price, a delivery short', async () => {
    const desk = await loadDesk(db, mina, TODAY);
    expect(desk.map((g) => g.title)).toEqual([
      'Over budget',
      'To buy',
      'To send',
      'To chase',
      'To receive',
      'To pick',
      'To start',
      'To match',
      'Quotes',
    ]);
    expect((await listOpenNeeds(db, mina, TODAY, {})).rows.filter((r) => r.late).length).toBeGreaterThan(2);
    expect((await listDue(db, mina, TODAY)).rows.some((r) => r.state === 'partIn')).toBe(true);
  });

  it('has somebody in every role, and each has on their desk what is theirs to do', async () => {
    const desks: Record<string, string[]> = {};
    for (const { key } of PEOPLE) {
      const person = (await findByEmail(db, `${key}@wrackline.example`)) as Person;
      desks[key] = (await loadDesk(db, person, TODAY)).map((g) => g.title);
    }
    expect(desks).toEqual({
      mina: [
        ...['Over budget', 'To buy', 'To send', 'To chase', 'To receive', 'To pick', 'To start', 'To match'],
        'Quotes',
      ],
      asha: ['To agree', 'Over budget', 'To start', 'Quotes'],
      tomas: [
        ...['To agree', 'Over budget', 'To buy', 'To send', 'To chase', 'To receive', 'Counted', 'To pick'],
        ...['To start', 'To match', 'Quotes'],
      ],
      joss: ['To receive', 'To pick', 'To start'],
      ida: ['Over budget', 'To start', 'To match'],
      bram: ['To start'],
      wren: ['To sign', 'Over budget', 'To start'],
    });
  });

  it('mails every order that it sent', async () => {
    const [mails] = (await db('message').where({ state: 'taken', kind: 'order' }).count({ n: '*' })) as { n: number }[];
    const [sent] = (await db('purchaseOrder').whereNotNull('sentOn').count({ n: '*' })) as { n: number }[];
    expect(mails?.n).toBe(sent?.n);
  });

  it('has a drawing that went out and is newer by now, an answer that comes too late, and a revision', async () => {
    const galvanised = await loadOrder(db, mina, 'K26-0020', TODAY);
    expect(galvanised?.files.map((f) => [f.name, f.revision, f.newer])).toEqual([['frames-412.dxf', 'B', 'C']]);
    expect([galvanised?.order.state, galvanised?.order.theirNumber]).toEqual(['confirmed', 'AG 5521']);
    const plates = (await loadOrder(db, mina, 'K26-0021', TODAY))?.order.lines ?? [];
    expect(plates.some((l) => l.promisedOn !== null && l.wantedOn !== null && l.promisedOn > l.wantedOn)).toBe(true);
    expect((await loadOrder(db, mina, 'K26-0022', TODAY))?.revisions.map((r) => r.number)).toEqual([1, 0]);
  });

  it('buys in euro too, and keeps the tab in pounds', async () => {
    const order = (await db('purchaseOrder').where({ currency: 'EUR' }).first('id', 'net', 'rate')) as {
      id: number;
      net: number;
      rate: number;
    };
    const [cost] = (await db('split as s')
      .join('orderLine as l', 'l.id', 's.lineId')
      .where('l.orderId', order.id)
      .sum({ n: 's.value' })) as { n: number }[];
    expect(Math.abs((cost?.n ?? 0) - order.net * Number(order.rate))).toBeLessThan(2);
  });
});

describe('the sample quote', () => {
  it('can be brought in as it is', async () => {
    const sheet = readCsv(new TextEncoder().encode(sampleQuote(TODAY, { week: MON_TO_FRI, off: new Set() })));
    if (!sheet.ok) throw new Error('It cannot be read.');
    const known = await loadKnowledge(
      db,
      { mark: sheet.value.mark, costCode: {}, supplier: {}, unit: {}, leftOut: [] },
      TODAY,
    );
    const { lines, problems } = readRows(sheet.value.rows, guessMapping(sheet.value.headings), known);
    expect(problems).toEqual([]);
    expect(lines.map((l) => l.kind)).toEqual([
      ...Array<string>(6).fill('bought'),
      'allowance',
      'bought',
      'bought',
      'labour',
    ]);
  });
});

describe('on other days', () => {
  it.each(['2027-02-28'])('it can be made on %s too', async (day) => {
    const other = await open(join(folder, `${day}.sqlite`));
    await seedDemo(other.db, day as Day, taken);
    expect(await findUnproven(other.db)).toEqual([]);
    await other.db.destroy();
  });
});
