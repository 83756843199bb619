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
  expect(await browser.consoleErrors()).toEqual([]);
  await browser.close();
  await app.stop();
});

const itemId = (number: string) => app.look(async (db) => (await db('item').where({ number }).first('id'))?.id ?? 0);
/** The row of a line at the dock. */
const row = (words: string) => browser.see(By.xpath(`//li[.//div[contains(normalize-space(.), "${words}")]]`));
const inRow = async (words: string, button: string) =>
  (await (await row(words)).findElement(By.xpath(`.//button[contains(normalize-space(.), "${button}")]`))).click();

describe('a delivery that is not as it was ordered', () => {
  const SEAL = 'Oil seal 70 × 90 × 10';
  const BEARING = 'Ball bearing 6208 2RS';

  it('is taken in with what is rejected, and with what became of the rest', async () => {
    await browser.stepInAs('Joss Fenn');
    await browser.go('/dock/K26-0019');
    await browser.type(`How much of ${SEAL} arrives`, '8');
    await inRow(SEAL, 'Something is not right');
    await browser.type('Of that rejected, in pieces', '1');
    await browser.choose('Why it is rejected', 'Faulty');
    await browser.reads('It lies here until it goes back, and is awaited still.');
    await browser.type(`How much of ${BEARING} arrives`, '9');
    await (await browser.button('Take in')).click();
    await browser.reads('7 of 8 in');
    await browser.reads('1 rejected');
    await browser.reads('9 of 14 in');
    await inRow(BEARING, 'Something is not right');
    await browser.choose('What became of the rest', 'Back-ordered');
    await browser.type('It comes on', '2026-06-03');
    await (await browser.button('Take in')).click();
    await browser.reads('promised Wed 3 Jun');
    await browser.reads('Back-ordered');
  });

  it('shows what is rejected and lies here, and sends it back for a replacement', async () => {
    await browser.go('/dock?show=back');
    await browser.reads('Was rejected and lies here until it goes back.');
    await browser.reads('K26-0019');
    await browser.go('/dock/K26-0019');
    await (await browser.button('Send goods back')).click();
    await browser.type('Why it goes back', 'lip torn');
    await (await browser.button('Send back')).click();
    await browser.reads('B-00001');
    await browser.reads('2 lines still to come');
    const marks = async () => (await browser.texts('ul[aria-label="Lines"] .tag-over')).length;
    await browser.driver.wait(async () => (await marks()) === 0, 15_000, 'nothing is marked as rejected');
  });

  it('holds what waits to be inspected, and releases it when somebody says so', async () => {
    await browser.stepInAs('Mina Rowe');
    await browser.go(`/items/${await itemId('SE-OIL-70')}/change`);
    await (await browser.see(By.xpath('//label[contains(., "Inspected before it is released")]/input'))).click();
    await (await browser.button('Save item')).click();
    await browser.reads('before it is released');
    await browser.stepInAs('Joss Fenn');
    await browser.go('/dock/K26-0019');
    await browser.type(`How much of ${SEAL} arrives`, '1');
    await browser.reads('Inspected by me, and released');
    await (await browser.button('Take in')).click();
    await browser.reads('1 not released');
    await (await browser.button('Inspect 1 line')).click();
    await browser.reads('You stand as the inspector.');
    await (await browser.button('Save what was found')).click();
    await browser.reads('8 of 8 in');
    await browser.reads('I-00001');
  });

  it('takes an inspection back, and then it waits again', async () => {
    const receipt = await browser.see(By.xpath('//aside//li[.//span[normalize-space(.)="I-00001"]]'));
    await (await receipt.findElement(By.xpath('.//button[contains(., "take back")]'))).click();
    await (await browser.button('Take I-00001 back')).click();
    await browser.reads('1 not released');
  });
});

describe('a delivery that was written down wrongly', () => {
  it('is put right in quantity, on its own day', async () => {
    const bearing = 'Ball bearing 6208 2RS';
    await browser.go('/dock/K26-0019');
    await browser.type(`How much of ${bearing} arrives`, '3');
    await (await browser.button('Take in')).click();
    await browser.reads('12 of 14 in');
    await (await browser.button('put right')).click();
    await browser.type(`What came of ${bearing}, in pieces`, '2');
    await (await browser.see(By.xpath('//button[starts-with(normalize-space(.), "Put R")]'))).click();
    await browser.reads('11 of 14 in');
    const [line] = await app.look((db) =>
      db('orderLine as l')
        .join('purchaseOrder as o', 'o.id', 'l.orderId')
        .where({ 'o.number': 'K26-0019', 'l.description': bearing })
        .select('l.received'),
    );
    expect(line).toEqual({ received: 110_000 });
  });
});

describe('what lies in stores', () => {
  it('has its serial numbers, and a job is given one of them and brings it back', async () => {
    await browser.go(`/stores/${await itemId('EN-GBX-CL')}`);
    await browser.reads('GC-7731');
    await (await browser.button('Issue')).click();
    await browser.pick('Cost code', '02');
    await (await browser.button('Issue it')).click();
    await browser.reads('Tick the pieces that go.');
    await (await browser.see(By.xpath('//label[contains(., "GC-7732")]/input'))).click();
    await (await browser.button('Issue it')).click();
    await browser.reads('With jobs');
    await browser.driver.wait(
      async () => (await browser.texts('table[aria-label="Where it lies"] tbody')).join().includes('GC-7732') === false,
      15_000,
    );
    await (await browser.button('Take back')).click();
    await (await browser.button('Take it back')).click();
    await browser.driver.wait(
      async () => (await browser.texts('table[aria-label="Where it lies"] tbody')).join().includes('GC-7732'),
      15_000,
    );
  });

  it('goes from bin to bin, and from a job to stores with its cost', async () => {
    await browser.go(`/stores/${await itemId('CA-3-15')}`);
    await (await browser.button('Move')).click();
    await browser.choose('To', 'A-02');
    await browser.type('How much, in metres', '30');
    await (await browser.button('Move it')).click();
    await browser.reads('A-02');
    await (await browser.button('Transfer')).click();
    await browser.type('How much, in metres', '10');
    await browser.type('Why', 'left over');
    await (await browser.button('Transfer it')).click();
    await browser.reads('10 m free');
    expect(await browser.text()).not.toContain('£');
  });
});
