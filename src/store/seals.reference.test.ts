import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js';
import { plusDays } from '@/core/calendar/workdays';
import { TestCompany, TODAY } from '../../tests/support/company';
import { ACTS, layOutTrouble, tryStep } from '../../tests/support/history';
import { checkRecord, marksNow } from './seals';

/**
 * A second implementation of the chain of the record, from its description alone (docs/record.md): its hash function is
 * of another library, its rows are read by plain SQL, and it shares no code with the first.
 */
const hex = (text: string): string => bytesToHex(sha256(utf8ToBytes(text)));

const QUERIES: Readonly<Record<string, string>> = {
  posting:
    'select id, tab_line_id, job_id, cost_code_id, stage, amount, event, document, document_id, person_id, day, at from posting where id = ?',
  budgetEntry:
    'select id, job_id, cost_code_id, kind, amount, reason, quote_id, person_id, day, at from budget_entry where id = ?',
  heldEntry: 'select id, job_id, amount, change_id, person_id, day, at from held_entry where id = ?',
  audit: 'select id, at, day, person_id, action, words, changes from audit where id = ?',
};

async function walk(yard: TestCompany): Promise<{ head: string; wrong: string[] }> {
  const seals = (await yard.db.raw('select source, row_id as r, hash from seal order by id')) as {
    source: string;
    r: number;
    hash: string;
  }[];
  let head = '0'.repeat(64);
  const wrong: string[] = [];
  for (const { source, r, hash } of seals) {
    const [row] = (await yard.db.raw(QUERIES[source] ?? '', [r])) as Record<string, unknown>[];
    const told: unknown[] = [source, ...Object.values(row ?? {})];
    if (source === 'audit') {
      const about = (await yard.db.raw(
        'select kind, subject_id from audit_subject where audit_id = ? order by kind, subject_id',
        [r],
      )) as Record<string, unknown>[];
      told.push(about.map((a) => Object.values(a)));
    }
    if (hex(`${head}\n${JSON.stringify(told)}`) !== hash) wrong.push(`${source} ${r}`);
    head = hash;
  }
  return { head, wrong };
}

describe('the hash function of the second implementation', () => {
  // FIPS 180-4's examples for SHA-256, published by NIST with it; the values are from memory.
  it.each([
    ['abc', 'ba7816bf8f01cfea414140de5dae2223b00361a396177a9cb410ff61f20015ad'],
    [
      'abcdbcdecdefdefgefghfghighijhijkijkljklmklmnlmnomnopnopq',
      '248d6a61d20638b8e5c026930c3e6039a33ce45964ff2167f6ecedd419db06c1',
    ],
  ])('gives the published digest of %s', (message, digest) => expect(hex(message)).toBe(digest));
});

describe('the chain of a file in which much happened', () => {
  let yard: TestCompany;
  beforeAll(async () => {
    yard = await TestCompany.open();
    await layOutTrouble(yard, 'EUR', '0.8624');
    let state = 77;
    for (let n = 0; n < 120; n += 1) {
      state = (state * 1_103_515_245 + 12_345) % 2_147_483_648;
      const act = ACTS[state % ACTS.length];
      const step = act && { act, which: (state >> 8) % 48, share: 0.2 + (state % 80) / 100 };
      if (step) await tryStep(yard, step, plusDays(TODAY, Math.floor(n / 10)));
    }
  });
  afterAll(() => yard.close());

  it('is the same by both implementations, row by row and in its head', async () => {
    const theirs = await walk(yard);
    const ours = await checkRecord(yard.db);
    expect(ours.rows).toBeGreaterThan(100);
    expect(theirs).toEqual({ head: ours.head, wrong: [] });
    expect(ours.faults.filter((f) => f.what !== 'unsealed')).toEqual([]);
  });

  it('holds every posting and record that an action wrote, each once', async () => {
    const marks = await marksNow(yard.db);
    const [{ n }] = (await yard.db.raw("select count(*) as n from seal where source = 'audit'")) as [{ n: number }];
    expect(n).toBe(marks.audit);
    const [last] = (await yard.db.raw("select max(row_id) as id from seal where source = 'posting'")) as {
      id: number;
    }[];
    expect(last?.id).toBe(marks.posting);
  });

  it('is found wrong at the same row by both when somebody changes one', async () => {
    await yard.db.raw('drop trigger audit_is_never_changed');
    await yard.db.raw("update audit set words = words || '.' where id = 7");
    expect((await walk(yard)).wrong).toEqual(['audit 7']);
    const faults = (await checkRecord(yard.db)).faults.filter((f) => f.what !== 'unsealed');
    expect(faults).toEqual([{ what: 'changed', source: 'audit', rowId: 7 }]);
  });
});
