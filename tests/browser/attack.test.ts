import { readdirSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { open } from '@/store/connection';
import { findUnproven } from '@/store/ledger';
import { App } from '../support/app';
import { Caller } from '../support/caller';

let app: App;
let jobId: number;
beforeAll(async () => {
  app = await App.start();
  jobId = await inFile(async (db) => (await db('job').where({ number: '412' }).first('id'))?.id ?? 0);
});
afterAll(() => app.stop());

/** Reads the file as it lies, while nobody else has it open or beside those who do. */
async function inFile<T>(read: (db: Awaited<ReturnType<typeof open>>['db']) => Promise<T>): Promise<T> {
  const { db } = await open(app.file);
  try {
    return await read(db);
  } finally {
    await db.destroy();
  }
}

const need = (once: string) => ({
  once,
  jobId,
  itemId: null,
  description: `Need ${once}`,
  quantity: 20_000,
  unit: 'C62',
  costCodeId: 1,
  price: 12_345,
  supplierId: null,
  neededOn: '',
});

describe('told to stop', () => {
  it('ends what runs, closes the file and is gone in ten seconds; what it wrote is for its user alone', async () => {
    const mina = await Caller.as(app.base, 'mina');
    const last = Array.from({ length: 8 }, (_, k) => mina.act('addNeed', need(`stopping-${k}`)));
    await last[0];
    const from = Date.now();
    await app.end('SIGTERM');
    expect(Date.now() - from).toBeLessThan(10_000);
    const outcomes = await Promise.allSettled(last);
    const done = outcomes.filter((o) => o.status === 'fulfilled' && o.value === 'done').length;
    expect(readdirSync(app.folder).filter((name) => name.endsWith('-wal'))).toEqual([]);
    for (const name of readdirSync(app.folder)) {
      const { mode } = statSync(join(app.folder, name));
      expect(`${name} ${(mode & 0o077).toString(8)}`).toBe(`${name} 0`);
    }
    const rows = await inFile((db) => db('need').whereLike('description', 'Need stopping-%').select('id'));
    expect(rows.length).toBeGreaterThanOrEqual(done);
    await app.serve();
  });
});

describe('killed in the middle', () => {
  it('has kept all it said was done, twice nothing and by halves nothing', async () => {
    const said = new Set<string>();
    const asked: string[] = [];
    for (let round = 0; round < 5; round += 1) {
      const before = said.size;
      const mina = await Caller.as(app.base, 'mina');
      const acting = Array.from({ length: 30 }, async (_, k) => {
        const once = `killed-${round}-${k}`;
        asked.push(once);
        // Sent twice at once with one key, as a retry would.
        await Promise.allSettled(
          [1, 2].map(async () => {
            if ((await mina.act('addNeed', need(once))) === 'done') said.add(once);
            if (said.size >= before + 1 + round * 3) await app.end('SIGKILL');
          }),
        );
      });
      await Promise.all(acting);
      await app.serve();
    }
    expect(said.size).toBeGreaterThan(10);
    // What was asked for and not answered is asked again with its key.
    const mina = await Caller.as(app.base, 'mina');
    for (const once of asked) expect(await mina.act('addNeed', need(once))).toBe('done');
    const rows = await inFile((db) => db('need').whereLike('description', 'Need killed-%').select('description'));
    expect(rows.map((r) => r.description).sort()).toEqual(asked.map((once) => `Need ${once}`).sort());
    expect(await inFile(findUnproven)).toEqual([]);
  });
});
