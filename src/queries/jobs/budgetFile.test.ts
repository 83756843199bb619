import { writeBudgetChange } from '@/actions/jobs/budgets';
import { minor } from '@/core/money/money';
import { writeCsv } from '@/formats/sheet/csv';
import { writeXlsx } from '@/formats/sheet/xlsx';
import { must, TestCompany, TODAY } from '../../../tests/support/company';
import { readBudgetFile } from './budgetFile';
import { openList } from '../lists/lists';

let yard: TestCompany;
let number: string;
beforeAll(async () => {
  yard = await TestCompany.open();
  await yard.budget(20_000);
  const [jobId] = yard.ids.jobs;
  number = (await yard.db('job').where({ id: jobId }).first('number'))?.number ?? '';
  const lines = [
    { costCodeId: yard.ids.codes[0], amount: minor(123_456) },
    { costCodeId: yard.ids.codes[1], amount: minor(-5000) },
    { costCodeId: null, amount: minor(5000) },
  ];
  const said = { day: TODAY, reason: 'Agreed', customerReference: '', agreedBy: '', quoteChange: null };
  must(await writeBudgetChange(await yard.as('lead'), { once: yard.once(), jobId, agreed: true, ...said, lines }));
});
afterAll(() => yard.close());

const budgetList = async () => openList(yard.db, (await yard.as('lead')).actor, 'budget', { job: number }, TODAY);
const read = async (bytes: Uint8Array) => readBudgetFile(yard.db, (await yard.as('lead')).actor, number, bytes);

async function asCsv(): Promise<string> {
  const { columns, pages } = await budgetList();
  let text = '';
  for await (const part of writeCsv(columns, pages)) text += part;
  return text;
}

describe('a budget that was taken out', () => {
  it('comes back in as CSV without changing anything, what is held back with it', async () => {
    const csv = await asCsv();
    expect(csv).toContain('Contingency');
    expect(await read(Buffer.from(csv))).toEqual({ ok: true, value: { lines: [], left: [] } });
  });

  it('comes back in as a workbook likewise', async () => {
    const { columns, pages, title } = await budgetList();
    const rows: never[] = [];
    for await (const page of pages) rows.push(...page);
    expect(await read(await writeXlsx(title, columns, rows))).toEqual({ ok: true, value: { lines: [], left: [] } });
  });

  it('begins a budget change with what was changed in it, which can be written as it is', async () => {
    const found = await read(Buffer.from((await asCsv()).replace('1234.56,0.00', '1300.00,0.00')));
    expect(found).toMatchObject({
      ok: true,
      value: { lines: [{ code: { number: '01' }, amount: '65.44' }], left: [] },
    });
  });

  it.each([
    ['nothing', ''],
    ['what is no sheet', '\u0000\u0001\u0002'],
    ['a job’s quote', 'Description,Qty\nHose,2\n'],
  ])('is refused as %s', async (_, text) => expect(await read(Buffer.from(text))).toMatchObject({ ok: false }));
});
