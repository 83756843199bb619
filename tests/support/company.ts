import { copyFileSync, existsSync, mkdtempSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Outcome } from '@/actions/action';
import { enterInvoice, matchInvoice } from '@/actions/invoices/invoices';
import { draftOrders } from '@/actions/orders/orders';
import type { Reading } from '@/actions/quotes/importing';
import { receive } from '@/actions/dock/receiving';
import { sendOrder, type Post, type Sender } from '@/actions/orders/sending';
import { readQuoteFile } from '@/queries/quotes/importing';
import { purchaseOrderPdf } from '@/formats/pdf/purchaseOrder';
import type { Day } from '@/core/calendar/workdays';
import type { Minor, UnitPrice } from '@/core/money/money';
import type { Role } from '@/core/people/rights';
import { needKind } from '@/core/needs/kind';
import { quantity, type Quantity } from '@/core/quantity/quantity';
import { connect, type Db } from '@/store/db';
import { open } from '@/store/open';
import { findUnproven, post } from '@/store/ledger';
import { insertNeeds } from '@/store/needs';
import { findOrder, type StoredOrder } from '@/store/orders';
import { findPerson, insertPerson } from '@/store/people';
import { insertOne } from '@/store/rows';
import { runFolder } from './run';

export const TODAY = '2026-05-12' as Day;
export const q = (n: number): Quantity => quantity(Math.round(n * 10_000));

/** A small company in a real SQLite file: two live jobs, two suppliers, and needs to buy. */
export class TestCompany {
  readonly sent: { raw: Buffer; to: string }[] = [];
  answer: Awaited<ReturnType<Post>> = { came: 'taken', answer: '250 taken' };
  private keys = 0;

  private constructor(
    readonly db: Db,
    private readonly folder: string,
    readonly ids: {
      jobs: readonly [number, number];
      suppliers: readonly [number, number];
      items: readonly [number, number];
      codes: readonly [number, number, number];
    },
    private readonly people: ReadonlyMap<Role, number>,
  ) {}

  static async open(): Promise<TestCompany> {
    const folder = mkdtempSync(join(tmpdir(), 'kettle-test-'));
    const file = join(folder, 'company.sqlite');
    const { template, ids, people } = await laidOut();
    copyFileSync(template, file);
    return new TestCompany(connect(file), folder, ids, people);
  }

  async close(): Promise<void> {
    await this.db.destroy();
    rmSync(this.folder, { recursive: true, force: true });
  }

  /** Closes the file, which must hold no line that its postings do not prove. */
  async closeProven(): Promise<void> {
    const unproven = await findUnproven(this.db);
    await this.close();
    expect(unproven).toEqual([]);
  }

  get file(): string {
    return join(this.folder, 'company.sqlite');
  }

  once = (): string => `key-${String((this.keys += 1)).padStart(8, '0')}`;

  /** The day that it is for who acts without saying one. */
  today: Day = TODAY;

  async as(role: Role, day: Day = this.today): Promise<Sender & Reading> {
    const actor = await findPerson(this.db, this.people.get(role) ?? 0);
    if (actor === undefined) throw new Error(`There is no ${role}.`);
    const send: Post = async ({ raw, to, copyTo = [] }) => {
      this.sent.push({ raw, to: [...to, ...copyTo].join(', ') });
      return this.answer;
    };
    const setting = { db: this.db, actor, clock: { today: () => day, now: () => `${day}T10:00:00.000Z` } };
    return {
      ...setting,
      post: send,
      setPaper: purchaseOrderPdf,
      perform: (action, input) => action(setting, input),
      read: (input) => readQuoteFile(this.db, actor, day, input.fileId, input),
    };
  }

  /** A need on a buy list, with its planned cost on the tab. */
  async need(
    change: {
      job?: 0 | 1;
      quantity?: number;
      price?: number | null;
      item?: number | null;
      supplier?: 0 | 1 | null;
      unit?: string;
      neededOn?: string;
      description?: string;
    } = {},
  ): Promise<number> {
    const {
      job = 0,
      quantity: n = 12,
      price = 8,
      item = null,
      supplier = 0,
      unit = 'MTR',
      neededOn = null,
      description = 'Hose',
    } = change;
    const [id = 0] = await insertNeeds(
      this.db,
      [
        {
          jobId: this.ids.jobs[job],
          itemId: item,
          kind: needKind(unit),
          description,
          quantity: q(n),
          unit,
          costCodeId: this.ids.codes[1],
          price: price === null ? null : (Math.round(price * 10_000) as UnitPrice),
          supplierId: supplier === null ? null : this.ids.suppliers[supplier],
          neededOn: neededOn as Day | null,
        },
      ],
      this.today,
    );
    const personId = this.people.get('lead') ?? 0;
    const happening = {
      event: 'Quote won',
      document: 'need',
      documentId: id,
      personId,
      day: this.today,
      at: this.today,
    } as const;
    await post(this.db, [{ happening, lines: [id] }]);
    return id;
  }

  /** Opens a job's budget for its second cost code, in pence. */
  async budget(amount: number, job: 0 | 1 = 0): Promise<void> {
    await this.db('budgetEntry').insert({
      jobId: this.ids.jobs[job],
      costCodeId: this.ids.codes[1],
      kind: 'opening',
      amount: amount as Minor,
      reason: 'agreed',
      personId: this.people.get('lead'),
      day: TODAY,
      at: TODAY,
    });
  }

  async draft(picks: readonly { needId: number; buy: Quantity }[]): Promise<StoredOrder> {
    const { orders } = must(await draftOrders(await this.as('buyer'), { once: this.once(), picks: [...picks] }));
    return this.order(orders[0]?.id ?? 0);
  }

  async order(id: number): Promise<StoredOrder> {
    const order = await findOrder(this.db, id);
    if (order === undefined) throw new Error(`There is no order ${id}.`);
    return order;
  }

  async send(order: StoredOrder): Promise<StoredOrder> {
    must(await sendOrder(await this.as('buyer'), { once: this.once(), orderId: order.id, version: order.version }));
    return this.order(order.id);
  }

  /** Takes in some of an order's first line, or of another of its lines. */
  async takeIn(order: StoredOrder, n: number, keepOver = false, lineId = order.lines[0]?.id ?? 0) {
    const arrivals = [{ lineId, arrives: q(n), keepOver }];
    const { version } = await this.order(order.id);
    const ref = { once: this.once(), orderId: order.id, version };
    return receive(await this.as('storekeeper'), { ...ref, note: 'DN 1', arrivals });
  }

  /** Enters an invoice for some of an order's first line, at 8.00 a piece with 20 % tax, unless told otherwise. */
  async invoice(order: StoredOrder, n: number, change: Partial<Parameters<typeof enterInvoice>[1]> = {}) {
    return enterInvoice(await this.as('accounts'), {
      once: this.once(),
      orderId: order.id,
      number: `B-${this.keys}`,
      day: TODAY,
      typedTotal: Math.round(n * 960) as Minor,
      lines: [this.invoiced(order, n)],
      ...change,
    });
  }

  invoiced = (order: StoredOrder, n: number, price = 8) => ({
    lineId: order.lines[0]?.id ?? 0,
    quantity: q(n),
    price: Math.round(price * 10_000) as UnitPrice,
    taxCodeId: 1,
  });

  async match(invoiceId: number, reason = '', role: Role = 'accounts', version = 1) {
    return matchInvoice(await this.as(role), { once: this.once(), invoiceId, version, reason });
  }

  /** The tab of a job in pence, stages that are nothing left out. */
  async tab(job: 0 | 1 = 0, day: Day = '9999-12-31' as Day): Promise<Record<string, number>> {
    const rows = (await this.db('posting')
      .where({ jobId: this.ids.jobs[job] })
      .where('day', '<=', day)
      .groupBy('stage')
      .select('stage')
      .sum({ amount: 'amount' })) as { stage: string; amount: number }[];
    return Object.fromEntries(rows.filter((r) => r.amount !== 0).map((r) => [r.stage, r.amount]));
  }
}

type Ids = TestCompany['ids'];
type LaidOut = { readonly template: string; readonly ids: Ids; readonly people: ReadonlyMap<Role, number> };

/**
 * The company as every test finds it: laid out once a run, and copied for each test. Who comes first makes it; it is there
 * whole or not at all.
 */
async function laidOut(): Promise<LaidOut> {
  const template = join(runFolder(), 'company.sqlite');
  const told = `${template}.json`;
  if (!existsSync(told)) {
    const made = mkdtempSync(`${template}-`);
    writeFileSync(join(made, 'told.json'), JSON.stringify(await layOut(join(made, 'company.sqlite'))));
    renameSync(join(made, 'company.sqlite'), template);
    renameSync(join(made, 'told.json'), told);
    rmSync(made, { recursive: true });
  }
  const { ids, people } = JSON.parse(readFileSync(told, 'utf8')) as { ids: Ids; people: [Role, number][] };
  return { template, ids, people: new Map(people) };
}

async function layOut(file: string): Promise<{ ids: Ids; people: [Role, number][] }> {
  const { db } = await open(file);
  const codes = [];
  for (const [code, name] of [
    ['01', 'Hull'],
    ['02', 'Machinery'],
    ['09', 'Freight'],
  ])
    codes.push(await insertOne(db, 'costCode', { code, name }));
  await insertOne(db, 'taxCode', { name: 'VAT 20 %', rate: 2000, recoverable: 10_000 });
  await insertOne(db, 'taxCode', { name: 'VAT 20 %, not recoverable', rate: 2000, recoverable: 0 });
  await db('company').insert({
    id: 1,
    name: 'Test Yard',
    address: 'Quay\nTown',
    email: 'buying@yard.example',
    currency: 'GBP',
    freightCodeId: codes[2],
    ownPassLimit: 100_000_000 as Minor,
  });
  await insertOne(db, 'deliveryPlace', { name: 'Yard', address: 'Quay' });
  const people = new Map<Role, number>();
  for (const role of ['buyer', 'lead', 'manager', 'storekeeper', 'accounts', 'administrator'] as const)
    people.set(
      role,
      await insertPerson(db, { name: `The ${role}`, email: `${role}@yard.example`, passwordHash: '', roles: [role] }),
    );
  const suppliers = [];
  for (const [name, carriage, carriageFreeFrom] of [
    ['Eelmoor Metals', 2500, 40_000],
    ['Pellam Bearings', 1400, null],
  ] as const)
    suppliers.push(
      await insertOne(db, 'supplier', {
        name,
        email: `orders@${name.split(' ')[0]?.toLowerCase()}.example`,
        currency: 'GBP',
        carriage,
        carriageFreeFrom,
        taxCodeId: 1,
      }),
    );
  const items = [
    await insertOne(db, 'item', { number: 'TU-1', name: 'Tube', unit: 'MTR' }),
    await insertOne(db, 'item', { number: 'CA-1', name: 'Cable', unit: 'MTR', stocked: 1 }),
  ];
  const customerId = await insertOne(db, 'customer', { name: 'Estuary Survey Trust' });
  const jobs = [];
  for (const number of ['412', '418']) {
    const id = await insertOne(db, 'job', {
      number,
      name: `Job ${number}`,
      shortName: number,
      kind: 'repair',
      state: 'live',
      customerId,
      leadId: people.get('lead'),
    });
    await insertOne(db, 'quote', { jobId: id, number: `Q-${number}`, state: 'writing' });
    jobs.push(id);
  }
  await db.destroy();
  return { ids: { jobs, suppliers, items, codes } as unknown as Ids, people: [...people] };
}

export function must<T>(outcome: Outcome<T>): T {
  if (outcome.status !== 'done') throw new Error(JSON.stringify(outcome));
  return outcome.value;
}

/** The codes of a refusal, or what came instead. */
export const refusedWith = (outcome: Outcome<unknown>): string[] =>
  outcome.status === 'refused' ? outcome.refusals.map((r) => r.code) : [outcome.status];
