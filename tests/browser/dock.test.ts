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
    await browser.type(`Quantity of ${SEAL} received`, '8');
    await inRow(SEAL, 'Report a problem');
    await browser.type('Rejected (piece)', '1');
    await browser.choose('Reason for rejection', 'Faulty');
    await browser.reads('Kept here until it is returned; still on order.');
    await browser.type(`Quantity of ${BEARING} received`, '9');
    await (await browser.button('Receive')).click();
    await browser.reads('7 of 8 received');
    await browser.reads('1 rejected');
    await browser.reads('9 of 14 received');
    await inRow(BEARING, 'Report a problem');
    await browser.choose('The rest', 'Back-ordered');
    await browser.type('New delivery date', '2026-06-03');
    await (await browser.button('Receive')).click();
    await browser.reads('promised Wed 3 Jun');
    await browser.reads('Back-ordered');
  });

  it('shows what is rejected and lies here, and sends it back for a replacement', async () => {
    await browser.go('/dock?show=back');
    await browser.reads('Rejected, kept here until it is returned.');
    await browser.reads('K26-0019');
    await browser.go('/dock/K26-0019');
    await (await browser.button('Return goods')).click();
    await browser.type('Reason for return', 'lip torn');
    await (await browser.button('Return goods')).click();
    await browser.reads('B-00001');
    await browser.reads('2 lines outstanding');
    const marks = async () => (await browser.texts('ul[aria-label="Lines"] .tag-over')).length;
    await browser.driver.wait(async () => (await marks()) === 0, 15_000, 'nothing is marked as rejected');
  });

  it('holds what waits to be inspected, and releases it when somebody says so', async () => {
    await browser.stepInAs('Mina Rowe');
    await browser.go(`/items/${await itemId('SE-OIL-70')}/change`);
    await (await browser.see(By.xpath('//label[contains(., "Inspect before release")]/input'))).click();
    await (await browser.button('Save item')).click();
    await browser.reads('before release');
    await browser.stepInAs('Joss Fenn');
    await browser.go('/dock/K26-0019');
    await browser.type(`Quantity of ${SEAL} received`, '1');
    await browser.reads('I inspected and release this');
    await (await browser.button('Receive')).click();
    await browser.reads('1 awaiting inspection');
    await (await browser.button('Inspect 1 line')).click();
    await browser.reads('You are recorded as the inspector.');
    await (await browser.button('Save result')).click();
    await browser.reads('8 of 8 received');
    await browser.reads('I-00001');
  });

  it('takes an inspection back, and then it waits again', async () => {
    const receipt = await browser.see(By.xpath('//aside//li[.//span[normalize-space(.)="I-00001"]]'));
    await (await receipt.findElement(By.xpath('.//button[contains(., "Reverse")]'))).click();
    await (await browser.button('Reverse I-00001')).click();
    await browser.reads('1 awaiting inspection');
  });
});

describe('a delivery that was written down wrongly', () => {
  it('is put right in quantity, on its own day', async () => {
    const bearing = 'Ball bearing 6208 2RS';
    await browser.go('/dock/K26-0019');
    await browser.type(`Quantity of ${bearing} received`, '3');
    await (await browser.button('Receive')).click();
    await browser.reads('12 of 14 received');
    await (await browser.button('Correct')).click();
    await browser.type(`${bearing} received (piece)`, '2');
    await (await browser.see(By.xpath('//button[starts-with(normalize-space(.), "Correct R")]'))).click();
    await browser.reads('11 of 14 received');
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
    await (await browser.button('Issue')).click();
    await browser.reads('Tick the serial numbers.');
    await (await browser.see(By.xpath('//label[contains(., "GC-7732")]/input'))).click();
    await (await browser.button('Issue')).click();
    await browser.reads('Issued to jobs');
    await browser.driver.wait(
      async () =>
        (await browser.texts('table[aria-label="Serial numbers"] tbody')).join().includes('GC-7732') === false,
      15_000,
    );
    await (await browser.button('Return to stores')).click();
    await (await browser.button('Return to stores')).click();
    await browser.driver.wait(
      async () => (await browser.texts('table[aria-label="Serial numbers"] tbody')).join().includes('GC-7732'),
      15_000,
    );
  });

  it('goes from bin to bin, and from a job to stores with its cost', async () => {
    await browser.go(`/stores/${await itemId('CA-3-15')}`);
    await (await browser.button('Move')).click();
    await browser.choose('To', 'A-02');
    await browser.type('Quantity (metre)', '30');
    await (await browser.button('Move')).click();
    await browser.reads('A-02');
    await (await browser.button('Transfer')).click();
    await browser.type('Quantity (metre)', '10');
    await browser.type('Reason', 'left over');
    await (await browser.button('Transfer')).click();
    await browser.reads('10 m free');
    expect(await browser.text()).not.toContain('£');
  });
});
