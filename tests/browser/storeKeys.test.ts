import { By, Key } from 'selenium-webdriver';
import { ONE } from '@/core/quantity/quantity';
import type { App } from '../support/app';
import { newestLine, pumpsOrdered } from '../support/pumps';
import { Browser } from './driver';

let app: App;
let browser: Browser;

beforeAll(async () => {
  app = await pumpsOrdered();
  browser = await Browser.open(app.base);
});
afterAll(async () => {
  expect(await browser.consoleErrors()).toEqual([]);
  await browser.close();
  await app.stop();
});

const press = (...keys: string[]) => browser.keys(...keys);
const main = () => browser.driver.actions().keyDown(Key.CONTROL).sendKeys(Key.ENTER).keyUp(Key.CONTROL).perform();
const enterOn = async (name: string, row?: string) => {
  await browser.tabTo(name, row);
  await press(Key.ENTER);
};
const type = async (name: string, words: string) => {
  await browser.tabTo(name);
  await press(words);
};
const focused = () => browser.driver.executeScript('return document.activeElement.getAttribute("aria-label")');
const scan = async (...codes: readonly string[]) => {
  await browser.driver.wait(async () => (await focused()) === 'Barcode or number', 15_000, 'the scanner’s field waits');
  for (const code of codes) await press(code, Key.ENTER);
};
const stepIn = async (name: string) => {
  await browser.stepOut();
  await browser.go('/sign-in');
  await enterOn(name);
  await browser.reads('Hello');
};
const valueOf = (label: string) =>
  browser.driver.executeScript<string>(`return document.querySelector('[aria-label^="${label}"]').value`);
const itemId = (number: string) => app.look(async (db) => (await db('item').where({ number }).first('id'))?.id ?? 0);

/** Only addresses are typed where a person would follow a link. */
describe('the storekeeper’s day by keyboard alone', () => {
  it('takes in what is scanned, with one piece that is broken and the rest of a line still to come', async () => {
    await stepIn('Joss Fenn');
    await browser.go('/dock');
    await browser.reads('to come');
    await enterOn('Scan');
    await scan('BR-DP-16', 'BE-6208', 'BE-6208', 'SE-OIL-70', 'SE-OIL-70', 'PU-BG-24', 'SN-2041');
    await browser.reads('6 scanned, 3 orders');
    await enterOn('Report a problem', 'Ball bearing');
    await type('Rejected (piece)', '1');
    await type('Reason for rejection', 'Dam');
    await enterOn('Report a problem', 'Oil seal');
    await browser.tabTo('The rest', 'Oil seal');
    await press('Back');
    await type('New delivery date', '2026-05-29');
    await main();
    await browser.reads('Nothing scanned yet');
    const line = (number: string) => newestLine(app, number);
    expect(await line('BE-6208')).toMatchObject({ received: ONE, rejected: ONE });
    expect(await line('SE-OIL-70')).toMatchObject({ received: 2 * ONE, promisedOn: '2026-05-29' });
    expect(await line('PU-BG-24')).toMatchObject({ received: ONE });
  });

  it('begins to keep pumps by their numbers, and puts two on the buy list of a repair', async () => {
    await stepIn('Mina Rowe');
    await browser.go(`/stores/${await itemId('PU-BG-24')}`);
    await enterOn('Count');
    await type('Serial numbers', ['SN-1101', 'SN-1102', 'SN-1103'].join(Key.ENTER));
    await type('Total value', '450');
    await type('Reason', 'Opening count');
    await main();
    await browser.reads('3 free');
    await browser.go('/jobs/418/buy-list');
    await browser.reads('to buy');
    await press('n');
    await type('Item or description', 'PU-BG-24');
    await browser.see(By.css('[role="option"]'));
    await press(Key.ENTER);
    await type('Quantity', '2');
    await main();
    await browser.reads('1 line added');
  });

  it('reserves, picks and issues the two, whose cost stands on the tab', async () => {
    await stepIn('Joss Fenn');
    await browser.go(`/stores/${await itemId('PU-BG-24')}`);
    await enterOn('Reserve', '418');
    await browser.reads('Reserve for 418');
    await main();
    await browser.reads('2 reserved');
    await browser.go('/stores/pick/418');
    await scan('SN-1103', 'SN-1101');
    await browser.reads('SN-1103');
    await main();
    await browser.reads('1 line issued to 418');
    await stepIn('Mina Rowe');
    await browser.go('/jobs/418?figure=all.actual');
    await browser.reads('Bilge pump 24 V, serial from Wrackline yard');
    await browser.reads('300.00');
  });

  it('counts a bin, and posts what differs', async () => {
    await stepIn('Joss Fenn');
    await browser.go('/stores/count');
    await enterOn('New count');
    await type('Bin', 'Rack 1');
    await main();
    await browser.reads('Count of Rack 1');
    for (const counted of ['1', '2', '3', '4', '5', '6']) {
      await scan('TU-316-38');
      await browser.becomes(() => valueOf('Counted of Tube'), counted);
    }
    await type('Counted of Angle S275', '10');
    await press(Key.TAB);
    await browser.reads('2 of 2 lines counted');
    await main();
    await browser.reads('1 difference');
    await main();
    await type('Reason', 'Offcut was not booked');
    await main();
    await browser.reads('posted');
  });
});
