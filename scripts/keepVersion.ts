import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import { plusDays } from '@/core/calendar/workdays';
import { TestCompany, TODAY } from '../tests/support/company';
import { ACTS, layOutTrouble, tryStep } from '../tests/support/history';

/**
 * Keeps a file of the schema as it is now under tests/versions, with a history in it, for the tests of every later
 * version. Run once when a migration is added: npx tsx scripts/keepVersion.ts
 */
const yard = await TestCompany.open();
await layOutTrouble(yard, 'EUR', '0.8624');
let state = 412;
for (let n = 0; n < 90; n += 1) {
  state = (state * 1_103_515_245 + 12_345) % 2_147_483_648;
  const act = n < 4 ? (['draft', 'draft', 'send', 'receive'] as const)[n] : ACTS[state % ACTS.length];
  if (act !== undefined)
    await tryStep(
      yard,
      { act, which: (state >> 8) % 48, share: 0.2 + (state % 80) / 100 },
      plusDays(TODAY, Math.floor(n / 10)),
    );
}
const [{ name }] = (await yard.db('schema_step').orderBy('id', 'desc').limit(1).select('name')) as [{ name: string }];
const folder = mkdtempSync(join(tmpdir(), 'kettle-version-'));
const copy = join(folder, 'copy.sqlite');
await yard.db.raw('VACUUM INTO ?', [copy]);
writeFileSync(join('tests', 'versions', `${name}.sqlite.gz`), gzipSync(readFileSync(copy), { level: 9 }));
rmSync(folder, { recursive: true });
await yard.close();
console.log(`tests/versions/${name}.sqlite.gz is kept.`);
