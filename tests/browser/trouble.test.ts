import { mkdtempSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { By } from 'selenium-webdriver';
import { App } from '../support/app';
import { Browser } from './driver';

let app: App;
let browser: Browser;

beforeAll(async () => {
  app = await App.start();
  browser = await Browser.open(app.base);
});
afterAll(async () => {
  await browser.close();
  await app.stop();
});

const write = (name: string, content: string | Uint8Array) => {
  const path = join(mkdtempSync(join(app.folder, 'file-')), name);
  writeFileSync(path, content);
  return path;
};
const upload = async (path: string) => {
  await browser.go('/jobs/426/quote');
  await browser.reads('No lines yet');
  await browser.hand(path);
};
const HEAD = 'Part;Description;Qty;Unit;Our cost;Sell;Cost code;Vendor;Needed\r\n';

describe('files that are not as they should be', () => {
  beforeAll(() => browser.stepInAs('Mina Rowe'));

  it.each([
    ['an empty file', 'empty.csv', '', 'empty.csv: The file is empty.'],
    [
      'a picture renamed to .csv',
      'photo.csv',
      Uint8Array.of(0x89, 0x50, 0x4e, 0x47, 13, 10),
      'photo.csv: This is a PNG picture, not a CSV file.',
    ],
    ['only headings', 'head.csv', HEAD, 'head.csv: The file has headings but no rows under them.'],
    ['a quotation mark left open', 'open.csv', 'a,b\n"x,1\ny,2', 'has an unclosed quotation mark'],
  ])('says what is wrong with %s', async (_, name, content, words) => {
    await upload(write(name, content as string));
    await browser.reads(words);
  });

  it('lists problems row by row, and brings nothing in by half', async () => {
    await upload(
      write(
        'mixed.csv',
        `${HEAD};Bolts;-2;pcs;1,50;2;04;;2026-06-01\r\n;Rope 12 mm;40;m;2,10;3;77;Unknown Works;01/06/2026\r\n;Chain;6,5;m;9;14;04;;31/02/2026\r\n;Shackle;4;pcs;7,20;11;04;;\r\n`,
      ),
    );
    await browser.reads('1 of 4 rows ready');
    await browser.reads('columns separated by semicolons');
    for (const words of [
      'Quantity “-2”: Enter a quantity above zero.',
      'Cost code “77” doesn’t exist. Choose one of the company’s codes.',
      'Supplier “Unknown Works” doesn’t exist.',
      '“31/02/2026” isn’t a date',
    ])
      await browser.reads(words);
    expect(
      await (await browser.see(By.xpath("//button[contains(., 'Import 1 line')]"))).getAttribute('aria-disabled'),
    ).toBe('true');
  });

  it('lets unknown names be settled and bad rows be left out, deliberately', async () => {
    await browser.pick('What “77” means', '04');
    await browser.pick('What “Unknown Works” means', 'leave');
    await browser.reads('2 of 4 rows ready');
    await (await browser.button('Skip the 2 with errors')).click();
    await browser.reads('2 skipped');
    await (await browser.button('Import 2 lines')).click();
    await browser.reads('Rope 12 mm');
    await browser.reads('2 lines imported into quote Q-426');
  });
});

describe('two people at one thing', () => {
  let second: Browser;
  beforeAll(async () => {
    second = await Browser.open(app.base);
    await second.stepInAs('Tomas Brae');
  });
  afterAll(() => second.close());

  it('shows the second both versions, to choose from', async () => {
    for (const b of [browser, second]) {
      await b.go('/orders/K26-0024');
      await b.field('Carrier');
    }
    await browser.type('Carrier', 'Morning van');
    await (await browser.button('Save')).click();
    await browser.reads('K26-0024 saved');
    await second.type('Carrier', 'Night parcel');
    await second.type('Instructions to the supplier', 'Ring before you come');
    await second.reads('2 unsaved changes · kept on this device');
    await (await second.button('Save')).click();
    await second.reads('after you opened it');
    await second.reads('Morning van');
    await second.reads('Night parcel');
    await (await second.see(By.xpath("//label[contains(., 'Morning van')]"))).click();
    await (await second.button('Save my choices')).click();
    await second.reads('K26-0024 saved');
    await second.holds('Carrier', 'Morning van');
    await second.holds('Instructions to the supplier', 'Ring before you come');
    expect(await second.text()).not.toContain('unsaved change');
  });

  it('lets the second save a supplier over the first, or take theirs, and loses nothing typed', async () => {
    for (const b of [browser, second]) {
      await b.go('/suppliers/1/change');
      await b.field('Contact');
    }
    await browser.type('Contact', 'First desk');
    await (await browser.button('Save supplier')).click();
    await browser.reads('Eelmoor Metals saved');
    await second.type('Contact', 'Second desk');
    await (await second.button('Save supplier')).click();
    await second.reads('Keep your version or theirs');
    const contact = async () => (await second.field('Contact')).getAttribute('value');
    expect(await contact()).toBe('Second desk');
    await (await second.button('Overwrite with mine')).click();
    await second.reads('Eelmoor Metals saved');
    for (const b of [browser, second]) await b.go('/suppliers/1/change');
    await browser.type('Contact', 'Third desk');
    await second.type('Contact', 'Fourth desk');
    await (await second.button('Save supplier')).click();
    await second.reads('Eelmoor Metals saved');
    await browser.go('/');
    await browser.go('/suppliers/1/change');
    await browser.holds('Contact', 'Third desk');
    await (await browser.button('Save supplier')).click();
    await (await browser.button('Use theirs')).click();
    await browser.driver.wait(
      async () => (await (await browser.field('Contact')).getAttribute('value')) === 'Fourth desk',
      30_000,
    );
  });

  it('does not take one delivery in twice', async () => {
    for (const b of [browser, second]) {
      await b.go('/dock/K26-0022');
      await b.type('Quantity of Marine plywood 18 mm received', '4');
    }
    await (await browser.button('Receive')).click();
    await browser.reads('Received as');
    await (await second.button('Receive')).click();
    await second.reads('Later receipts are shown now');
    await second.reads('4 of 10');
    await second.holds('Quantity of Marine plywood 18 mm received', '4');
    expect((await second.text()).match(/R-\d+/g)).toHaveLength(1);
  });

  it('sends what both see: the second is shown what the first changed', async () => {
    for (const b of [browser, second]) {
      await b.go('/orders/K26-0023');
      await b.button('Send');
    }
    await browser.type('Carrier', 'Their own van');
    await (await browser.button('Save')).click();
    await browser.reads('K26-0023 saved');
    await (await second.button('Send')).click();
    await (await second.button('Send now')).click();
    await second.reads('This is the latest version');
    await second.holds('Carrier', 'Their own van');
    expect(await second.text()).not.toContain('Emailed to');
  });
});

describe('in the middle of a form', () => {
  it('a signed-out person signs in on the spot, and nothing typed is lost', async () => {
    await browser.go('/jobs/new');
    await browser.type('Name', 'Hatch repair, barge Teal');
    await browser.type('Customer', 'Greyhaven Dredging');
    await browser.driver.manage().deleteAllCookies();
    await (await browser.button('Create job')).click();
    await browser.reads('Nothing you typed is lost');
    await browser.type('Password', 'kettle on the boil');
    await (await browser.button('Sign in')).click();
    await browser.reads('Hatch repair, barge Teal');
    await browser.reads('No lines yet');
  });

  it('keeps what was typed when the page is left and come back to', async () => {
    await browser.go('/jobs/new');
    await browser.type('Name', 'Half a thought');
    await browser.go('/');
    await browser.go('/jobs/new');
    await browser.reads('Unsaved entries from last time');
    await browser.holds('Name', 'Half a thought');
  });

  it('says beside the field what is wrong', async () => {
    await browser.go('/jobs/new');
    await browser.type('Number', '412');
    await browser.type('Name', 'Twice');
    await browser.type('Customer', 'Greyhaven Dredging');
    await (await browser.button('Create job')).click();
    await browser.reads('Job 412 already exists. Choose another number.');
  });
});

describe('quantities that cannot be', () => {
  it('the dock asks before it takes in more than was ordered', async () => {
    await browser.go('/dock/K26-0019');
    await browser.type('Quantity of Ball bearing 6208 2RS received', '20');
    await (await browser.button('Receive')).click();
    await browser.reads('20 of Ball bearing 6208 2RS entered, 14 outstanding.');
    await browser.type('Quantity of Ball bearing 6208 2RS received', '-3');
    await (await browser.button('Receive')).click();
    await browser.reads('Enter a quantity above zero.');
    await browser.type('Quantity of Ball bearing 6208 2RS received', '1.23456');
    await (await browser.button('Receive')).click();
    await browser.reads('has more than 4 decimals');
    await browser.reads('0 of 14 received');
  });

  it('gathers no more than is left to buy', async () => {
    await browser.go('/gather?job=421');
    await (await browser.see(By.css('[aria-label="Select Bow shackle 12 mm for 421"]'))).click();
    await browser.type('Quantity of Bow shackle 12 mm to buy for 421', '99');
    await browser.reads('99 selected, but only 20 left to buy');
    await browser.type('Quantity of Bow shackle 12 mm to buy for 421', 'ten');
    await browser.reads('the quantity isn’t a number');
    await (await browser.find(By.css('h1'))).click();
    await browser.driver.actions().sendKeys('b').perform();
    expect(
      await browser.driver.findElements(By.xpath("//button[contains(., 'Draft') and not(@aria-disabled='true')]")),
    ).toEqual([]);
    expect(await browser.driver.getCurrentUrl()).toContain('/gather');
    await (await browser.button('Clear selection')).click();
  });

  it('holds an invoice for more than came', async () => {
    await browser.go('/invoices/new?order=K26-0021');
    await browser.type('Invoice number', 'EM 1');
    await browser.type('Invoiced quantity of Plate 5083 H111 5 mm', '2');
    await browser.type('Invoice total incl. tax, £', '763.20');
    await (await browser.button('Enter invoice')).click();
    await browser.reads('2 invoiced, 0 received');
    await browser.reads('Accounts or a manager can approve the difference.');
  });
});

describe('mail that fails', () => {
  it('is said plainly, and the order stays unsent', async () => {
    await browser.go('/suppliers/3/change');
    await browser.type('Order email', 'nobody@pellam.example');
    await (await browser.button('Save supplier')).click();
    await browser.reads('Pellam Bearings saved');
    await browser.go('/orders/K26-0024');
    await (await browser.button('Send')).click();
    await (await browser.button('Send now')).click();
    await browser.reads('This order was not sent:');
    await browser.reads('550');
    await browser.reads('Draft');
    await browser.go('/outbox');
    await browser.reads('failed');
  });

  it('a double click sends once', async () => {
    await browser.go('/orders/K26-0023');
    await (await browser.button('Send')).click();
    const send = await browser.button('Send now');
    await browser.driver.actions().doubleClick(send).perform();
    await browser.reads('K26-0023 sent to');
    await browser.go('/outbox');
    const rows = await browser.driver.findElements(By.xpath("//tr[contains(., 'K26-0023')]"));
    expect(rows).toHaveLength(1);
  });
});
