import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { asDay, type Day } from '@/core/calendar/workdays';
import { findCompany } from '@/store/company';
import type { Db } from '@/store/db';
import { open } from '@/store/open';
import { checkRecord } from '@/store/seals';
import { foundCompany } from './founding';

const clock = { today: () => asDay('2026-05-12') as Day, now: () => '2026-05-12T10:00:00.000Z' };
const input = {
  company: 'New Works',
  address: 'Lane 1',
  companyEmail: 'buying@new.example',
  currency: 'gbp',
  country: 'GB-ENG',
  costCodes: '01 Materials\n09 Freight and sundries\n',
  owner: 'Ann Owner',
  email: 'ann@new.example',
  password: 'ten letters at least',
};

let folder: string;
let db: Db;
beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), 'kettle-test-'));
  ({ db } = await open(join(folder, 'new.sqlite')));
});
afterEach(async () => {
  await db.destroy();
  rmSync(folder, { recursive: true });
});
const found = (change: object = {}) => foundCompany(db, clock, { ...input, ...change });

describe('an empty file', () => {
  it('is set up with company, cost codes and owner, once', async () => {
    await found();
    expect(await findCompany(db)).toMatchObject({
      name: 'New Works',
      currency: 'GBP',
      country: 'GB-ENG',
      freightCodeId: 2,
    });
    expect(await db('personRole').where({ personId: 1 }).orderBy('role')).toMatchObject([
      { role: 'administrator' },
      { role: 'buyer' },
      { role: 'manager' },
    ]);
    expect(await found()).toMatchObject({ refusals: [{ code: 'founding.done' }] });
  });

  it('begins its record with that, and keeps no password in it', async () => {
    await found();
    const [record] = await db('audit');
    expect(record).toMatchObject({ action: 'foundCompany', words: 'Created company New Works', personId: 1 });
    expect(record?.changes).not.toContain(input.password);
    expect(await checkRecord(db)).toMatchObject({ rows: 1, faults: [] });
  });

  // Standard rates of 2026, from memory of the countries' published rates; a year's change shows here first.
  it.each([
    ['GB-ENG', ['VAT 20 %', 'VAT 0 %', 'VAT 20 %, not recoverable']],
    ['DE', ['VAT 19 %', 'VAT 0 %', 'VAT 19 %, not recoverable']],
    ['CH', ['VAT 8.1 %', 'VAT 0 %', 'VAT 8.1 %, not recoverable']],
    ['FI', ['VAT 25.5 %', 'VAT 0 %', 'VAT 25.5 %, not recoverable']],
    ['AU-NSW', ['GST 10 %', 'GST 0 %', 'GST 10 %, not recoverable']],
    ['US', ['No tax']],
  ])('in %s begins with the taxes %j', async (country, names) => {
    await found({ country });
    const taxes = await db('taxCode').orderBy('id');
    expect(taxes.map((t) => t.name)).toEqual(names);
    for (const t of taxes) expect((t.category === 'S') === t.rate > 0).toBe(true);
  });

  it.each([
    ['currency', { currency: 'pounds' }],
    ['password', { password: 'short' }],
    ['email', { email: 'nobody' }],
    ['company', { company: '' }],
    ['country', { country: 'Kernow' }],
    ['costCodes', { costCodes: '01' }],
    ['costCodes', { costCodes: '01 Hull\n01 Deck' }],
    ['costCodes', { costCodes: ' \n' }],
  ])('is not set up with a bad %s', async (field, change) => {
    expect(await found(change)).toMatchObject({ refusals: [{ field }] });
    expect(await findCompany(db)).toBeUndefined();
    expect(await db('audit')).toEqual([]);
  });
});
