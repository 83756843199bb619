import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { addNeed } from '@/actions/buying/needs';
import { saveTextBlocks } from '@/actions/company/wording';
import { must, q, TestCompany } from '../../tests/support/company';
import { tellFault } from './faults';
import { log } from './setting';
import { Overloaded } from './threads';

let yard: TestCompany;
const logged: { fault: string; act: string; err: { code?: string; message: string } }[] = [];
log.error = ((line: (typeof logged)[number]) => void logged.push(line)) as typeof log.error;

beforeEach(async () => {
  logged.length = 0;
  yard = await TestCompany.open();
});
afterEach(() => yard.close());

const act = async (words: string, many = 1) =>
  saveTextBlocks(await yard.as('buyer'), { blocks: Array(many).fill({ words, supplierId: null, jobKind: null }) });
const failing = async (words = 'Mark every parcel.', many = 1) => {
  const error: unknown = await act(words, many).catch((e: unknown) => e);
  return tellFault(error, { act: 'saveTextBlocks', person: 1, once: 'key-00000001' });
};
const kept = () => yard.db('textBlock').select('words');
/** Runs code of its own beside this one, on the company's file. */
const beside = (code: string) =>
  spawn(process.execPath, ['-e', `const db = new (require('better-sqlite3'))(${JSON.stringify(yard.file)}); ${code}`]);

describe('what fails is said with its cause, and found in the log by its number', () => {
  it('a full disk: nothing is kept, and it goes on once there is room', async () => {
    await yard.db.raw('PRAGMA wal_checkpoint(TRUNCATE)');
    const [{ pageCount } = { pageCount: 0 }] = (await yard.db.raw('PRAGMA page_count')) as { pageCount: number }[];
    await yard.db.raw(`PRAGMA max_page_count = ${pageCount}`);
    const words = await failing('Mark every parcel with its order. '.repeat(25), 50);
    expect(words).toMatch(/^The disk is full\. Nothing was changed\. .* Fault [0-9A-F]{6}\.$/);
    expect(words).toContain(logged[0]?.fault);
    expect(logged[0]).toMatchObject({ act: 'saveTextBlocks', person: 1, once: 'key-00000001' });
    expect(logged[0]?.err).toMatchObject({ code: 'SQLITE_FULL' });
    expect(logged[0]?.err.message).not.toContain('parcel');
    expect(await kept()).toEqual([]);
    await yard.db.raw('PRAGMA max_page_count = 1000000');
    must(await act('Mark every parcel.'));
    expect(await kept()).toHaveLength(1);
  });

  it('a file that another program holds: waits for it, and says so when it waits too long', async () => {
    const brief = beside("db.exec('BEGIN IMMEDIATE'); console.log('held'); setTimeout(() => db.exec('COMMIT'), 700)");
    await once(brief.stdout, 'data');
    must(await act('After a while.'));
    await yard.db.raw('PRAGMA busy_timeout = 200');
    const long = beside("db.exec('BEGIN IMMEDIATE'); console.log('held'); setInterval(() => {}, 1000)");
    await once(long.stdout, 'data');
    expect(await failing()).toMatch(/^Another program is using the company’s file\. Nothing was changed\./);
    long.kill('SIGKILL');
    await once(long, 'exit');
    must(await act('And after that.'));
    expect(await kept()).toEqual([{ words: 'And after that.' }]);
  });

  it('a posting that was taken away beside the program', async () => {
    const { jobs, codes } = yard.ids;
    const need = {
      itemId: null,
      description: 'Hose',
      quantity: q(2),
      unit: 'MTR',
      costCodeId: codes[0],
      price: 80_000,
    };
    const add = async () =>
      addNeed(await yard.as('buyer'), { once: yard.once(), jobId: jobs[0], ...need, supplierId: null, neededOn: '' });
    must(await add());
    const guards = await yard.db('sqlite_master').where({ type: 'trigger', tbl_name: 'posting' }).select('name');
    for (const { name } of guards) await yard.db.raw(`DROP TRIGGER ${name}`);
    await yard.db.raw('DELETE FROM posting WHERE id = (SELECT max(id) FROM posting)');
    const error: unknown = await add().catch((e: unknown) => e);
    expect(tellFault(error, { act: 'addNeed' })).toMatch(/^The company’s file was changed outside Kettle Tab/);
    expect(await yard.db('need').where({ description: 'Hose' })).toHaveLength(1);
  });

  it.each<[string, unknown, string]>([
    ['a damaged file', { code: 'SQLITE_CORRUPT' }, 'is damaged'],
    ['a disk that may not be written', { code: 'SQLITE_READONLY_DBMOVED' }, 'can’t be read or written'],
    ['what was stopped', new Overloaded('It took too long.'), 'It took too long.'],
    ['anything else', undefined, 'Something went wrong in Kettle Tab.'],
  ])('%s', (_, error, words) => expect(tellFault(error, { act: 'any' })).toContain(words));
});
