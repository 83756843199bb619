import { By, Key } from 'selenium-webdriver';
import type { Driver } from 'selenium-webdriver/chrome.js';
import { App } from '../support/app';
import { Browser, PHONE } from './driver';

let app: App;
let browser: Browser;

beforeAll(async () => {
  app = await App.start();
  browser = await Browser.open(app.base, PHONE);
  await browser.stepInAs('Joss Fenn');
});
afterAll(async () => {
  await browser.close();
  await app.stop();
});

/** Types as a scanner does: all at once, and Enter. */
const scan = async (...codes: readonly string[]) => {
  const field = await browser.field('Barcode or number');
  for (const code of codes) await field.sendKeys(code, Key.ENTER);
};
/** Takes the network away from the page, and gives it back. */
const offline = async (away: boolean) => {
  const driver = browser.driver as Driver;
  if (away)
    await driver.setNetworkConditions({ offline: true, latency: 0, download_throughput: 0, upload_throughput: 0 });
  else await driver.deleteNetworkConditions();
};
/** What a scanner types, wherever the cursor is: faster than a driver's keys come on a machine that is busy. */
const wedge = (code: string) =>
  browser.driver.executeScript(
    `for (const key of [...arguments[0], 'Enter']) {
       const at = document.activeElement ?? document.body;
       const goesOn = at.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true }));
       if (key === 'Enter') { if (goesOn && at instanceof HTMLButtonElement) at.click(); }
       else if (goesOn && at instanceof HTMLInputElement) document.execCommand('insertText', false, key);
     }`,
    code,
  );
const rows = () => browser.texts('ul[aria-label="Tally"] > li');

describe('a mixed delivery on a phone', () => {
  it('is counted on the lines that await it, and what nobody awaits is set aside', async () => {
    await browser.go('/dock/scan');
    await scan('SE-OIL-70', 'SE-OIL-70', 'BE-6208');
    await browser.reads('2 of 8');
    await browser.reads('1 of 14');
    await scan('TI-PLY-18', '2000000000008');
    await browser.reads('4 scanned, 2 orders');
    await browser.reads('1 unmatched');
    await browser.reads('No item has this code.');
  });

  it('is all there after the page was left, and the last scan can be undone', async () => {
    await browser.go('/dock');
    await browser.go('/dock/scan');
    await browser.reads('4 scanned, 2 orders');
    await (await browser.button('Undo')).click();
    await browser.driver.wait(async () => !(await browser.text()).includes('unmatched'), 15_000);
    expect((await rows()).length).toBe(3);
  });

  it('loses none of ten codes that come at once, also while the network is away', async () => {
    await offline(true);
    await scan(...Array.from({ length: 5 }, () => 'SE-OIL-70'));
    await browser.reads('5 codes are kept here');
    await offline(false);
    await browser.reads('7 of 8');
    await browser.forgets('No connection');
  });

  it('is taken in by one step, an order each', async () => {
    await (await browser.button('Receive')).click();
    await browser.reads('Nothing scanned yet');
    const taken = await app.look((db) =>
      db('receipt as r')
        .join('purchaseOrder as o', 'o.id', 'r.orderId')
        .orderBy('r.id', 'desc')
        .limit(2)
        .select('o.number'),
    );
    expect(taken.map((t: { number: string }) => t.number).sort()).toEqual(['K26-0019', 'K26-0022']);
    await browser.go('/dock/K26-0019');
    await browser.reads('7 of 8 received');
    await browser.reads('1 of 14 received');
  });

  it('has the cursor wherever it was: after a press, on a button, in another field, and after a choice', async () => {
    await browser.go('/dock/scan');
    await scan('BE-6208', 'BE-6208');
    await browser.reads('2 scanned, 1 order');
    await (await browser.button('Undo')).click();
    await browser.reads('1 scanned, 1 order');
    // Its Enter would press Undo once more.
    await wedge('BE-6208');
    await browser.reads('2 scanned, 1 order');
    await browser.driver.executeScript(
      '[...document.querySelectorAll("button")].find((b) => b.innerText.startsWith("Undo")).focus()',
    );
    await wedge('BE-6208');
    await browser.reads('3 scanned, 1 order');
    await (await browser.button('Delivery note no.')).click();
    await browser.type('Delivery note no.', 'DN');
    // A scanner is told from a hand by the pause before it.
    await browser.driver.sleep(300);
    await wedge('TI-PLY-18');
    await browser.reads('4 scanned, 2 orders');
    await browser.holds('Delivery note no.', 'DN');
    await (await browser.button('Report a problem')).click();
    await browser.choose('The rest', 'Missing from the parcel');
    await wedge('TI-PLY-18');
    await browser.reads('5 scanned, 2 orders');
    await browser.reads('Stays on order; not paid for until it arrives.');
    await browser.go('/dock');
    await browser.go('/dock/scan');
    await (await browser.button('Start again')).click();
    await browser.reads('Nothing scanned yet');
  });

  it('ties a code to a part there and then, and counts it', async () => {
    await browser.go('/dock/scan');
    await scan('4006381333931');
    await (await browser.button('Link to item')).click();
    await browser.pick('Item', 'BE-6208');
    await browser.reads('1 of 13');
    expect(await app.look((db) => db('item').where({ number: 'BE-6208' }).first('gtin'))).toEqual({
      gtin: '4006381333931',
    });
  });

  it('is nothing for who does not receive', async () => {
    await browser.stepInAs('Asha Penrose');
    await browser.go('/dock/scan');
    await browser.reads('You don’t have permission to receive deliveries.');
    expect(await browser.driver.findElements(By.css('[aria-label="Barcode or number"]'))).toEqual([]);
  });
});
