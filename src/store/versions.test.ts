import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { gunzipSync } from 'node:zlib';
import { newMemory } from '../../tests/support/dayWitness';
import { witness } from '../../tests/support/witness';
import { ORDER_STATES } from '@/core/orders/states';
import type { ToldOrder } from '@/core/orders/revising';
import { connect, type Db } from './db';
import { findUnproven } from './ledger';
import { STEPS, type Step } from './migrate';
import { open } from './open';
import { checkRecord } from './seals';

const FOLDER = join('tests', 'versions');

let folder: string;
const opened: Db[] = [];
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'kettle-version-'));
});
afterEach(async () => {
  await Promise.all(opened.splice(0).map((db) => db.destroy()));
  rmSync(folder, { recursive: true });
});

async function opening(file: string, steps: readonly Step[] = STEPS): Promise<Db> {
  const { db } = await open(file, steps);
  opened.push(db);
  return db;
}

/** A file as that version left it. */
function kept(name: string): string {
  const file = join(folder, 'company.sqlite');
  writeFileSync(file, gunzipSync(readFileSync(join(FOLDER, `${name}.sqlite.gz`))));
  return file;
}

/** Lines have the numbers that their order last went out with, and none is beyond the highest. */
async function numbersHold(db: Db): Promise<void> {
  const orders = new Map((await db('purchaseOrder').select('id', 'revision')).map((o) => [o.id, o.revision]));
  const numbers = new Map((await db('orderLine').select('id', 'number')).map((l) => [l.id, l.number]));
  for (const { orderId, number, sent } of await db('orderRevision').select('orderId', 'number', 'sent')) {
    if (orders.get(orderId) !== number) continue;
    const { lines } = JSON.parse(sent) as ToldOrder;
    expect(lines.map((l) => l.number)).toEqual(lines.map((l) => numbers.get(l.id ?? 0)));
  }
  const beyond = await db('orderLine as l')
    .join('orderRevision as r', 'r.orderId', 'l.orderId')
    .join('purchaseOrder as o', 'o.id', 'l.orderId')
    .whereRaw('l.number not between 1 and o.last_line');
  expect(beyond).toEqual([]);
}

/** Every line, order and seal of the file is as its documents say. */
async function prove(db: Db): Promise<void> {
  expect(await findUnproven(db)).toEqual([]);
  // The needs of these files were laid out beside the application, which has sealed the rest.
  expect((await checkRecord(db)).faults.filter((f) => f.what !== 'unsealed')).toEqual([]);
  await numbersHold(db);
  const told = await witness(db, newMemory());
  const orders = await db('purchaseOrder').select('id', 'net', 'gross');
  expect(orders.length).toBeGreaterThan(3);
  expect(await db('purchaseOrder').whereNotIn('state', ORDER_STATES).select('id', 'state')).toEqual([]);
  expect(orders.map((o) => told.orders.get(o.id))).toEqual(orders.map(({ net, gross }) => ({ net, gross })));
}

const names = STEPS.map((s) => s.name);

it('a file of every version is kept', () =>
  expect(readdirSync(FOLDER).sort()).toEqual(names.map((name) => `${name}.sqlite.gz`)));

describe.each(names)('a file of %s', (name) => {
  it('is brought up to date and proven', async () => {
    await prove(await opening(kept(name)));
  });

  it('is brought to a later schema that rebuilds a table others refer to, before anything is derived', async () => {
    const db = await opening(kept(name), [...STEPS, await rebuilding()]);
    await prove(db);
    const [before] = await db.raw('select * from made_up');
    const wasSealed = name >= '011';
    expect({ sealed: before.seals > 0, onLedger: before.stores > 0 }).toEqual({
      sealed: wasSealed,
      onLedger: name >= '013',
    });
    expect((await db('invoice').select('*')).every((i) => (i as unknown as { disputed: number }).disputed === 0)).toBe(
      true,
    );
    await expect(
      db.raw('insert into invoice_cost (id, invoice_id, amount) select min(id), 99999, 1 from tab_line'),
    ).rejects.toMatchObject({ message: expect.stringContaining('FOREIGN KEY') });
  });
});

/** A step that makes the table of invoices anew with one column more, and writes down what was derived when it ran. */
async function rebuilding(): Promise<Step> {
  const db = await opening(join(folder, 'fresh.sqlite'));
  const parts = (await db.raw(
    "select type, sql from sqlite_master where tbl_name = 'invoice' and sql is not null order by type = 'table' desc",
  )) as { type: string; sql: string }[];
  const [table = '', ...rest] = parts.map((p) => p.sql);
  return {
    name: '999-made-up',
    up: [
      table.replace(/^CREATE TABLE "?invoice"? \(/, 'CREATE TABLE invoice_anew (disputed INTEGER NOT NULL DEFAULT 0, '),
      'INSERT INTO invoice_anew SELECT 0, * FROM invoice',
      'DROP TABLE invoice',
      'ALTER TABLE invoice_anew RENAME TO invoice',
      ...rest,
      `CREATE TABLE made_up AS SELECT (SELECT count(*) FROM seal) AS seals, (SELECT count(*) FROM posting WHERE event = 'Stores on the ledger' OR tab_line_id IN (SELECT id FROM stock_change)) AS stores`,
    ].join(';\n'),
  };
}

describe('a step that fails', () => {
  const broken: Step = {
    name: '999-made-up',
    up: 'CREATE TABLE made_up (id INTEGER); DELETE FROM need WHERE id IN (SELECT need_id FROM split);',
  };

  it('leaves the file as it was, with a copy beside it', async () => {
    const file = kept('012-settings');
    const dump = async () => {
      const db = connect(file);
      const rows = { steps: await db('schema_step').select('name'), needs: await db('need').count() };
      await db.destroy();
      return rows;
    };
    const before = await dump();
    await expect(open(file, [...STEPS, broken])).rejects.toThrow('Rows refer to what is not there: ');
    expect(await dump()).toEqual(before);
    expect(readdirSync(folder).filter((n) => n.includes('.before-013-stock-'))).toHaveLength(1);
    await prove(await opening(file));
  });
});
