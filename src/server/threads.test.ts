import JSZip from 'jszip';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { findPerson, type Person } from '@/store/people';
import { connectReaders } from '@/store/db';
import { open } from '@/store/open';
import { isProof, times } from '../../tests/support/proof';
import { paper } from '../../tests/support/paper';
import { howFar, withProgress } from './progress';
import { writeXlsx } from '@/formats/sheet/xlsx';
import { endThreads, inFiles, inPapers, inWriter } from './threads';

const folder = mkdtempSync(join(tmpdir(), 'kettle-threads-'));
const file = join(folder, 'yard.sqlite');
const founding = {
  company: 'New Works',
  address: 'Lane 1',
  companyEmail: 'buying@new.example',
  currency: 'GBP',
  country: 'GB',
  costCodes: '01 Materials',
  owner: 'Ann Owner',
  email: 'ann@new.example',
  password: 'ten letters at least',
};
let owner: Person;

beforeAll(async () => {
  process.env.KETTLE_FILE = file;
  const founded = await inWriter('foundCompany', founding);
  const readers = connectReaders(file);
  owner = (await findPerson(readers, founded.ok ? founded.value : 0)) as Person;
  await readers.destroy();
});
afterAll(async () => {
  await endThreads();
  rmSync(folder, { recursive: true });
});

describe('the thread that writes', () => {
  const add = (email: string) => ({
    action: 'addPerson',
    actor: owner,
    input: { once: `once-${email}`, name: 'Kit', email, roles: ['buyer'], password: 'ten letters at least' },
  });

  it('runs an action by its name, and its outcome comes back as it is', async () => {
    expect(await inWriter('act', add('kit@new.example'))).toMatchObject({ status: 'done', value: { id: 2 } });
    expect(await inWriter('act', add('ann@new.example'))).toMatchObject({
      status: 'refused',
      refusals: [{ code: 'person.email', field: 'email' }],
    });
  });

  it('takes many at once, one after the other', async () => {
    const all = await Promise.all(Array.from({ length: 20 }, (_, k) => inWriter('act', add(`p${k % 10}@new.example`))));
    expect(all.map((o) => o.status)).toEqual(Array(20).fill('done'));
    const readers = connectReaders(file);
    expect(await readers('person').count({ n: '*' })).toEqual([{ n: 12 }]);
    await readers.destroy();
  });

  it('throws what was thrown there with its name, its code and its cause', async () => {
    const rename = async (from: string, to: string) => {
      const { db } = await open(file);
      await db.raw(`ALTER TABLE person RENAME COLUMN ${from} TO ${to}`);
      await db.destroy();
    };
    await rename('theme', 'colours');
    const asked = inWriter('act', { action: 'chooseTheme', actor: owner, input: { theme: 'evening' } });
    const error: unknown = await asked.catch((e: unknown) => e);
    await rename('colours', 'theme');
    expect(error).toMatchObject({
      ...{ name: 'SqliteError', code: 'SQLITE_ERROR' },
      ...{ message: expect.stringContaining('no such column'), stack: expect.stringContaining('better-sqlite3') },
    });
  });

  it('knows no action that there is not', async () => {
    await expect(inWriter('act', { action: 'constructor', actor: owner, input: {} })).rejects.toThrow('no action');
  });
});

describe('the thread for what takes long', () => {
  it('sets a paper while this one goes on', async () => {
    const order: string[] = [];
    const setting = inPapers('setPaper', paper(40)).then((pdf) => {
      order.push('set');
      return pdf;
    });
    // Nothing of this could happen before the paper is set if this thread set it.
    await new Promise((resolve) => setTimeout(resolve)).then(() => order.push('went on'));
    expect(
      Buffer.from(await setting)
        .subarray(0, 5)
        .toString(),
    ).toBe('%PDF-');
    expect(order).toEqual(['went on', 'set']);
  });

  it.each([
    ['an empty file', new Uint8Array(), 'file.empty'],
    ['a picture', Uint8Array.of(0x89, 0x50, 0x4e, 0x47), 'file.notText'],
  ])('opens no %s as a quote', async (_, bytes, code) =>
    expect(await inFiles('openQuoteFile', bytes)).toMatchObject({ ok: false, refusals: [{ code }] }),
  );

  it('reads a long file, tells how far it is, and holds nobody up who changes something', async () => {
    const rows = Array.from({ length: 20_000 }, (_, k) => `Part ${k},1,pc,1.25,01`).join('\n');
    const bytes = new TextEncoder().encode(`Description,Qty,Unit,Cost,Cost code\n${rows}`);
    const job = { name: 'Long', shortName: '', kind: 'make', customer: 'Quay', leadId: owner.id, site: '' };
    const act = (action: string, input: object) =>
      inWriter('act', { action, actor: owner, input: { once: `once-${action}`, ...input } });
    await act('openJob', { ...job, number: '7', startsOn: '', dueOn: '' });
    const kept = await act('keepQuoteFile', { quoteId: 1, name: 'long.csv', bytes });
    const { id: fileId } = kept.status === 'done' ? (kept.value as { id: number }) : { id: 0 };
    const mapping = { description: 0, quantity: 1, unit: 2, cost: 3, costCode: 4 };
    const choices = { mark: '.' as const, costCode: {}, supplier: {}, unit: {}, leftOut: [] };
    const order: string[] = [];
    const read = await withProgress('a name', async (far) => {
      const input = { person: owner, input: { once: '', fileId, mapping, choices }, far };
      const reading = inFiles('readQuoteFile', input).finally(() => order.push('read'));
      const come = () => howFar('a name')?.done ?? 0;
      while (come() === 0) await new Promise(setImmediate);
      const early = come();
      await act('chooseTheme', { theme: 'evening' });
      order.push('changed');
      expect(come()).toBeGreaterThanOrEqual(early);
      const lines = await reading;
      expect(come()).toBeGreaterThan(early);
      return lines;
    });
    expect(read.ok && read.value.lines.length).toBe(20_000);
    expect(order).toEqual(['changed', 'read']);
    expect(howFar('a name')).toBeUndefined();
  });

  // It takes a minute to fill so much: the short form stops it sooner, and the thread is ended all the same.
  it('ends alone over a workbook that fills its memory; papers go on, and the next file is read', async () => {
    const packed = await JSZip.loadAsync(await writeXlsx('Lines', [{ head: 'A', cell: () => ({ text: 'b' }) }], [1]));
    const [sheet, strings] = ['xl/worksheets/sheet1.xml', 'xl/sharedStrings.xml'];
    const xmlOf = async (name: string) => (await packed.file(name)?.async('string')) ?? '';
    const row = (k: number) =>
      `<row r="${k}">${[...'ABCDEF'].map((c) => `<c r="${c}${k}" t="s"><v>0</v></c>`).join('')}</row>`;
    const rows = Array.from({ length: 50_000 }, (_, k) => row(k + 1)).join('');
    packed.file(sheet, (await xmlOf(sheet)).replace(/<sheetData>.*<\/sheetData>/s, `<sheetData>${rows}</sheetData>`));
    packed.file(strings, (await xmlOf(strings)).replace('>A<', `>${'a  '.repeat(1300)}<`));
    const bytes = await packed.generateAsync({ type: 'uint8array', compression: 'DEFLATE' });
    const [filling, paperSet] = [inFiles('openQuoteFile', bytes, times(5000, 120_000)), inPapers('setPaper', paper(1))];
    await expect(filling).rejects.toThrow(isProof ? 'more memory' : /more memory|took longer/);
    expect((await paperSet).length).toBeGreaterThan(1000);
    expect(await inFiles('openQuoteFile', new Uint8Array())).toMatchObject({ ok: false });
  });

  it('stops what takes too long, and goes on with the next', async () => {
    await expect(inPapers('setPaper', paper(2000), 300)).rejects.toThrow('took longer than 0.3 s');
    expect((await inPapers('setPaper', paper(1))).length).toBeGreaterThan(1000);
  });
});
