import { existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { findUnproven } from './ledger';
import { connectReaders, snapshot, type Db } from './db';
import { open } from './open';
import { nextCount } from './rows';
import { q, TestCompany } from '../../tests/support/company';
import type { Minor } from '@/core/money/money';

// The driver’s errors are made outside the test’s realm, so they are known by their words.
const saying = (words: string) => ({ message: expect.stringContaining(words) as string });

describe('the company’s file', () => {
  it('is brought up to date once, with foreign keys and a write-ahead log', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'kettle-test-'));
    const file = join(folder, 'c.sqlite');
    const first = await open(file);
    expect(await first.db.raw('PRAGMA journal_mode')).toEqual([{ journalMode: 'wal' }]);
    expect(await first.db.raw('PRAGMA foreign_keys')).toEqual([{ foreignKeys: 1 }]);
    await expect(
      Promise.resolve(first.db('quote').insert({ jobId: 99, number: 'x', state: 'writing' })),
    ).rejects.toMatchObject(saying('FOREIGN KEY'));
    await first.db.destroy();
    const second = await open(file);
    expect(second.backup).toBeUndefined();
    await second.db.destroy();
    rmSync(folder, { recursive: true });
  });

  it('is not made out of some other file', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'kettle-test-'));
    const file = join(folder, 'picture.sqlite');
    writeFileSync(file, 'this is no database, however long it may be. '.repeat(50));
    await expect(open(file)).rejects.toMatchObject(saying('not a database'));
    expect(existsSync(file)).toBe(true);
    rmSync(folder, { recursive: true });
  });
});

it('an error of the file tells its statement, and nothing of what was bound into it', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'kettle-test-'));
  const { db } = await open(join(folder, 'company.sqlite'));
  const told = await db('person')
    .insert({ name: 'Ann', email: null as never, passwordHash: 'a secret' })
    .catch(String);
  expect(told).toContain('NOT NULL');
  expect(told).not.toContain('a secret');
  await db.destroy();
  rmSync(folder, { recursive: true });
});

describe('a file of another age', () => {
  const withSteps = async (...names: string[]) => {
    const folder = mkdtempSync(join(tmpdir(), 'kettle-test-'));
    const file = join(folder, 'c.sqlite');
    const { db } = await open(file);
    await db('schema_step').delete();
    for (const name of names) await db('schema_step').insert({ name });
    await db.destroy();
    return file;
  };

  it('of a trial version says plainly that can’t be upgraded, and stays as it is', async () => {
    const file = await withSteps('001-first');
    const before = readFileSync(file);
    await expect(open(file)).rejects.toThrow('can’t be upgraded');
    expect(readFileSync(file).equals(before)).toBe(true);
  });

  it('of a newer version is left to that version', async () =>
    expect(open(await withSteps('001-ground', '999-later'))).rejects.toThrow('newer version'));
});

describe('connections that only read', () => {
  it('see one moment while others write, and cannot write themselves', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'kettle-test-'));
    const file = join(folder, 'c.sqlite');
    const { db } = await open(file);
    const readers = connectReaders(file);
    const count = async (from: Db) => (await from('customer').select('id')).length;
    await snapshot(readers, async (read) => {
      expect(await count(read)).toBe(0);
      await db('customer').insert({ name: 'Estuary Survey Trust' });
      expect([await count(read), await count(db)]).toEqual([0, 1]);
    });
    expect(await count(readers)).toBe(1);
    await expect(Promise.resolve(readers('customer').insert({ name: 'x' }))).rejects.toMatchObject(saying('readonly'));
    await readers.destroy();
    await db.destroy();
    rmSync(folder, { recursive: true });
  });
});

describe('the ledger in the file', () => {
  let yard: TestCompany;
  beforeEach(async () => {
    yard = await TestCompany.open();
  });
  afterEach(() => yard.close());

  it('is never changed or deleted', async () => {
    await yard.need();
    await expect(Promise.resolve(yard.db('posting').update({ amount: 1 as Minor }))).rejects.toMatchObject(
      saying('never changed'),
    );
    await expect(Promise.resolve(yard.db('posting').delete())).rejects.toMatchObject(saying('never deleted'));
  });

  it('gives numbers without gaps', async () => {
    expect([await nextCount(yard.db, 'x'), await nextCount(yard.db, 'x'), await nextCount(yard.db, 'y')]).toEqual([
      1, 2, 1,
    ]);
  });

  it.each(['budget', 'planned', 'onOrder', 'toBuy', 'missing', 'goods'])('notices a sum kept wrong: %s', async (of) => {
    await yard.need();
    expect(await findUnproven(yard.db)).toEqual([]);
    const [jobId] = yard.ids.jobs;
    await yard
      .db('jobSum')
      .where({ jobId })
      .increment(of as never, 1);
    expect(await findUnproven(yard.db)).toEqual([{ line: jobId, what: 'sums kept of a job' }]);
  });

  it('notices a line whose postings do not add up', async () => {
    const needId = await yard.need();
    await yard
      .db('need')
      .where({ id: needId })
      .update({ quantity: q(99) });
    expect(await findUnproven(yard.db)).toEqual([
      { line: needId, what: 'postings' },
      { line: needId, what: 'what is open or missing of it, or its last day to order' },
    ]);
  });
});
