import { mkdtempSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { simpleParser } from 'mailparser';
import { By, Key } from 'selenium-webdriver';
import { App } from '../support/app';
import { Browser } from './driver';

let app: App;
let browser: Browser;
let file: string;

beforeAll(async () => {
  app = await App.start();
  browser = await Browser.open(app.base);
  file = join(mkdtempSync(join(app.folder, 'file-')), 'sample-quote.csv');
  writeFileSync(file, await (await fetch(`${app.base}/sample-quote`)).text());
});
afterAll(async () => {
  await browser.close();
  await app.stop();
});

const click = async (by: By) => (await browser.see(by)).click();
const figure = async (code: string, column: number) => {
  const cell = await browser.find(
    By.xpath(`//table[@aria-label="The job’s tab by cost code"]//tr[th[contains(., '${code}')]]/td[${column}]`),
  );
  return cell.getText();
};
/** Columns of the tab: budget, planned, drafted, on order, received, actual. */
const tabOf = async (code: string) => Promise.all([1, 2, 3, 4, 5, 6].map((c) => figure(code, c)));

/** One purchase the whole way, as a buyer does it with the mouse; each step shows on the job's tab. */
describe('from a won quote to an invoice on the job’s tab', () => {
  it('signs in as the buyer and opens a job', async () => {
    await browser.stepInAs('Mina Rowe');
    await (await browser.link('Jobs')).click();
    await (await browser.link('New job')).click();
    await browser.type('Name', 'Shaft survey, launch Dabchick');
    await browser.type('Customer', 'Estuary Survey Trust');
    await (await browser.button('Create job')).click();
    await browser.reads('No lines yet');
  });

  it('brings a quote in from a file', async () => {
    await browser.hand(file);
    await browser.reads('10 of 10 rows ready');
    await browser.reads('Plus £\u202f588.00 of made and labour lines');
    expect(await (await browser.field('Contents of column Qty')).getAttribute('value')).toBe('quantity');
    await (await browser.button('Import 10 lines')).click();
    await browser.reads('10 lines');
    await browser.reads('Cutlass bearing, 60 mm bore');
  });

  it('marks the quote won: the budget opens, and the buy list fills', async () => {
    await (await browser.button('Mark won')).click();
    await browser.type('Accepted by (customer)', 'Hester Lowe');
    await (await browser.button('Mark won and open budget')).click();
    await browser.see(By.css('[aria-label="The job’s tab by cost code"]'));
    expect(await tabOf('02 Machinery')).toEqual(['682.40', '682.40', '–', '–', '–', '–']);
    expect(await figure('06 Subcontract', 1)).toBe('96.00');
    await (await browser.link('Buy list')).click();
    await browser.reads('8 of 8 lines to buy');
  });

  it('gathers lines of two jobs: bundles and budgets are shown before anything is made', async () => {
    await browser.go('/gather?supplier=1');
    await click(By.css('[aria-label="Select Tube 316L 38 × 2 mm for 427"]'));
    await click(By.css('[aria-label="Select Tube 316L 38 × 2 mm for 421"]'));
    await browser.reads('1 order to draft');
    await browser.reads('1 line · jobs 421, 427');
    await browser.reads('Free carriage (over £\u202f400)');
    await browser.reads('£\u202f486.98');
    await browser.go('/gather?job=427');
    await click(By.css('[aria-label="Select Stern seal kit 60 mm for 427"]'));
    await click(By.css('[aria-label="Select Cutlass bearing, 60 mm bore for 427"]'));
    await browser.reads('2 orders to draft');
    await browser.reads('Pellam Bearings');
    await browser.reads('4 lines selected');
  });

  it('drafts the orders, each line still charged to its own job', async () => {
    await (await browser.button('Draft 2 orders')).click();
    await browser.reads('Not sent yet');
    await (await browser.link('K26-0026')).click();
    await browser.reads('Effect on job budgets');
    await (await browser.button('2 splits')).click();
    const part = (n: number) => browser.texts(`[role="row"][aria-label="Line 1, split ${n}"] [role="gridcell"]`);
    for (const [n, job, quantity] of [
      [1, '421', '43.44'],
      [2, '427', '6'],
    ] as const)
      expect((await part(n)).filter(Boolean)).toEqual(
        expect.arrayContaining(['from buy list', quantity, job, '01 Hull and structure']),
      );
    const text = await browser.text();
    expect(text).toContain('486.98');
    expect(text).toContain('£\u202f584.38');
  });

  it('shows the drafted money on the tab', async () => {
    await browser.go('/jobs/427');
    expect(await tabOf('02 Machinery')).toEqual(['682.40', '208.40', '474.00', '–', '–', '–']);
    expect(await tabOf('01 Hull')).toEqual(['59.10', '–', '59.10', '–', '–', '–']);
  });

  it('sends the order: the PDF goes by real SMTP, and the outbox shows it', async () => {
    await browser.go('/orders/K26-0026');
    await (await browser.button('Send')).click();
    await browser.reads('emailed as a PDF to orders@eelmoor.example');
    await (await browser.button('Send now')).click();
    await browser.reads('K26-0026 sent to orders@eelmoor.example');
    await browser.reads('Emailed to orders@eelmoor.example');
    const mails = readdirSync(join(app.folder, 'mail'));
    const mail = await simpleParser(readFileSync(join(app.folder, 'mail', mails.at(-1) ?? '')));
    expect(mail.subject).toBe('Purchase order K26-0026 from Wrackline Boatyard');
    expect(mail.attachments[0]?.content.subarray(0, 5).toString()).toBe('%PDF-');
    await browser.go('/outbox');
    await (await browser.link('Purchase order K26-0026')).click();
    await browser.reads('accepted by the mail server');
    await browser.reads('Please find attached our purchase order K26-0026');
    await browser.go('/jobs/427');
    expect(await tabOf('01 Hull')).toEqual(['59.10', '–', '–', '59.10', '–', '–']);
  });

  it('takes a part in at the dock, later the rest', async () => {
    await browser.go('/dock/K26-0026');
    await browser.type('Quantity of Tube 316L 38 × 2 mm received', '45.44');
    await (await browser.button('Receive')).click();
    await browser.reads('45.44 of 49.44 m received');
    await browser.go('/jobs/427');
    expect(await tabOf('01 Hull')).toEqual(['59.10', '–', '–', '39.40', '19.70', '–']);
    await browser.go('/dock/K26-0026');
    await (await browser.button('Receive all')).click();
    await (await browser.button('Receive')).click();
    await browser.reads('49.44 of 49.44 m received');
    await browser.reads('Received');
  });

  it('enters the invoice, sees ordered, received and invoiced side by side, and matches it', async () => {
    await browser.go('/invoices/new?order=K26-0026');
    await browser.type('Invoice number', 'EM 90112');
    await browser.type('Invoiced price of Tube 316L 38 × 2 mm', '9.90');
    await browser.type('Invoice total incl. tax, £', '587.35');
    await browser.reads('Agrees with invoice total');
    await (await browser.button('Enter invoice')).click();
    await browser.reads('Three-way match');
    await browser.reads('£\u202f2.48 above order price. Within tolerance.');
    await browser.reads('Effect of matching');
    await browser.reads('headroom 0.00 → −0.30');
    await (await browser.button('Match')).click();
    await browser.reads('matched Tue 12 May by Mina Rowe');
    await browser.reads('Job budgets now');
  });

  it('has the amount as actual cost on the tab, and opens every figure to its postings', async () => {
    await browser.go('/jobs/427');
    expect(await tabOf('01 Hull')).toEqual(['59.10', '–', '–', '–', '–', '59.40']);
    await (await browser.link('59.40')).click();
    await browser.reads('Invoice matched');
    await browser.reads('EM 90112');
    await (await browser.find(By.css('body'))).sendKeys(Key.ESCAPE);
    await browser.go('/jobs/427/history');
    const history = await browser.text();
    for (const words of [
      'Matched invoice EM 90112',
      'Received 4 m Tube',
      'Sent K26-0026',
      'Drafted order K26-0026',
      'Quote Q-427 won: accepted by Hester Lowe',
      'Imported 10 lines into quote',
    ])
      expect(history).toContain(words);
  });

  it('keeps the tab as it stood on an earlier day', async () => {
    await browser.go('/jobs/412?on=2026-04-01');
    await browser.reads('As at end of Wed 1 Apr');
    expect((await tabOf('01 Hull')).slice(3)).toEqual(['1,669.80', '–', '–']);
  });

  it('left no error in the console', async () => expect(await browser.consoleErrors()).toEqual([]));
});
