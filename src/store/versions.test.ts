import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { gunzipSync } from 'node:zlib';
import { newMemory, witness } from '../../tests/support/witness';
import { open } from './connection';
import { findUnproven } from './ledger';

const FOLDER = join('tests', 'versions');

/** Files that earlier versions made, one for each step of the schema; none of them may be lost. */
const KEPT = readdirSync(FOLDER).filter((name) => name.endsWith('.sqlite.gz'));

describe('a file of every version', () => {
  it('is kept from the first one on', () => expect(KEPT).toContain('001-ground.sqlite.gz'));

  it.each(KEPT)('%s is brought up to date and proven', async (name) => {
    const folder = mkdtempSync(join(tmpdir(), 'kettle-version-'));
    const file = join(folder, 'company.sqlite');
    writeFileSync(file, gunzipSync(readFileSync(join(FOLDER, name))));
    const { db } = await open(file);
    expect(await findUnproven(db)).toEqual([]);
    const told = await witness(db, newMemory());
    const orders = await db('purchaseOrder').select('id', 'net', 'gross');
    expect(orders.length).toBeGreaterThan(3);
    expect(orders.map((o) => told.orders.get(o.id))).toEqual(orders.map(({ net, gross }) => ({ net, gross })));
    await db.destroy();
    rmSync(folder, { recursive: true });
  });
});
