import { spawnSync } from 'node:child_process';
import { addDayOff } from '@/actions/company/company';
import { q, TestCompany } from '../../tests/support/company';
import { checkRecord, type Fault } from './seals';

let yard: TestCompany;
/** What the test laid out itself, beside the application. */
let laidOut: readonly Fault[];

/** Two orders of a need each and two days off, in a file that no trigger keeps. */
beforeEach(async () => {
  yard = await TestCompany.open();
  const needs = [await yard.need(), await yard.need()];
  laidOut = (await checkRecord(yard.db)).faults;
  for (const needId of needs) await yard.send(await yard.draft([{ needId, buy: q(2) }]));
  for (const day of ['2026-06-01', '2026-06-02'])
    await addDayOff(await yard.as('administrator'), { once: yard.once(), day, name: 'Launch' });
  const triggers = (await yard.db.raw(
    "select name from sqlite_master where type = 'trigger' and name like '%is_never%'",
  )) as { name: string }[];
  for (const { name } of triggers) await yard.db.raw('drop trigger ??', [name]);
  await yard.db.raw('pragma foreign_keys = off');
});
afterEach(() => yard.close());

const known = (f: Fault): boolean => laidOut.some((l) => l.source === f.source && l.rowId === f.rowId);
const told = async (): Promise<string[]> => {
  const { faults } = await checkRecord(yard.db);
  return faults.filter((f) => !known(f)).map((f) => `${f.source} ${f.rowId} ${f.what}`);
};

/** Only rows at which the next act's first seal does not matter; ids from the file itself. */
const lastOf = async (table: string): Promise<number> => {
  const [row] = (await yard.db.raw('select max(id) as id from ??', [table])) as { id: number }[];
  return row?.id ?? 0;
};

describe('a record', () => {
  it('is whole while only the application writes it', async () => {
    expect(await told()).toEqual([]);
    expect((await checkRecord(yard.db)).rows).toBeGreaterThan(10);
  });

  it.each([
    ['an amount', 'update posting set amount = amount + 1 where id = 4', ['posting 4 changed']],
    ['a stage', "update posting set stage = 'actual' where id = 4", ['posting 4 changed']],
    ['the person of a posting', 'update posting set person_id = 2 where id = 4', ['posting 4 changed']],
    ['a posting’s day', "update posting set day = '2026-05-11' where id = 4", ['posting 4 changed']],
    ['who did it', 'update audit set person_id = 2 where id = 3', ['audit 3 changed']],
    ['what was done', "update audit set words = 'Nothing' where id = 3", ['audit 3 changed']],
    ['what changed', 'update audit set changes = null where id = 1', ['audit 1 changed']],
    ['what it is about', 'update audit_subject set subject_id = 99 where audit_id = 1', ['audit 1 changed']],
    ['that it is about something else too', "insert into audit_subject values (2, 'job', 99)", ['audit 2 changed']],
    ['a posting that is gone', 'delete from posting where id = 4', ['posting 4 missing']],
    ['a record that is gone', 'delete from audit where id = 2', ['audit 2 missing']],
    [
      'a record that came in beside',
      "insert into audit select 900, at, day, person_id, action, 'Agreed', null from audit where id = 1",
      ['audit 900 unsealed'],
    ],
    [
      'two records that changed their places',
      'update audit set id = 900 where id = 1; update audit set id = 1 where id = 2; update audit set id = 2 where id = 900',
      ['audit 1 changed', 'audit 2 changed'],
    ],
  ])('tells of %s, and of no other row', async (_, sql, faults) => {
    for (const statement of sql.split('; ')) await yard.db.raw(statement);
    expect(await told()).toEqual(faults);
  });

  it('tells of a seal that is gone, of its row, and of what followed on it', async () => {
    const [third] = (await yard.db.raw('select source, row_id as r from seal where id = 3')) as {
      source: string;
      r: number;
    }[];
    const [next] = (await yard.db.raw('select source, row_id as r from seal where id = 4')) as {
      source: string;
      r: number;
    }[];
    await yard.db.raw('delete from seal where id = 3');
    expect((await told()).sort()).toEqual(
      ['seal 3 missing', `${third?.source} ${third?.r} unsealed`, `${next?.source} ${next?.r} changed`].sort(),
    );
  });

  it('stays wrong when the application goes on', async () => {
    await yard.db.raw(
      "insert into audit select 900, at, day, person_id, action, 'Agreed', null from audit where id = 1",
    );
    await addDayOff(await yard.as('administrator'), { once: yard.once(), day: '2026-06-03', name: 'Launch' });
    expect(await told()).toEqual(['audit 900 unsealed']);
  });

  it('knows a hash that was its head once, and misses it when its end was cut off', async () => {
    const early = await checkRecord(yard.db);
    await addDayOff(await yard.as('administrator'), { once: yard.once(), day: '2026-06-03', name: 'Launch' });
    expect((await checkRecord(yard.db, early.head)).known).toBe(early.rows);
    const { head } = await checkRecord(yard.db);
    await yard
      .db('audit')
      .where({ id: await lastOf('audit') })
      .delete();
    await yard
      .db('seal')
      .where({ id: await lastOf('seal') })
      .delete();
    expect(await told()).toEqual([]);
    expect((await checkRecord(yard.db, head)).known).toBeUndefined();
  });

  it('is not taken for the record of what was refused', async () => {
    const rows = (await checkRecord(yard.db)).rows;
    await addDayOff(await yard.as('administrator'), { once: yard.once(), day: '2026-06-01', name: 'Launch' });
    expect((await checkRecord(yard.db)).rows).toBe(rows);
  });
});

describe('npm run verify', () => {
  const verify = async (...args: string[]) => {
    const [{ file }] = (await yard.db.raw('pragma database_list')) as [{ file: string }];
    const ran = spawnSync(process.execPath, ['--import', 'tsx', 'scripts/verify.ts', file, ...args], {
      encoding: 'utf8',
    });
    return { status: ran.status, said: ran.stdout };
  };

  it('names a changed row with what stands in it, and ends with a failure', async () => {
    await yard.db.raw("update audit set words = 'Nothing happened' where id = 3");
    const { status, said } = await verify();
    expect(status).toBe(1);
    expect(said).toMatch(/Audit record 3 is not as it was written.*"words":"Nothing happened"/);
  });

  it('misses a hash that never was the record’s', async () => {
    const { status, said } = await verify('--head', 'f'.repeat(64));
    expect(status).toBe(1);
    expect(said).toContain('The hash you noted is not in the record');
  });
});
