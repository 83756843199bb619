import { Key } from 'selenium-webdriver';
import { App } from '../support/app';
import { Browser } from './driver';

let app: App;
let browser: Browser;
beforeAll(async () => {
  app = await App.start();
  browser = await Browser.open(app.base);
  await browser.stepInAs('Asha Penrose');
});
afterAll(async () => {
  await browser.close();
  await app.stop();
});

const press = async (words: string) => (await browser.button(words)).click();
const ctrlEnter = () => browser.driver.actions().keyDown(Key.CONTROL).sendKeys(Key.ENTER).keyUp(Key.CONTROL).perform();
const side = () => browser.texts('[aria-label="Quantity prices"] tbody tr');

describe('a quote by the piece', () => {
  it('is priced side by side as it is typed, and written for another number', async () => {
    await browser.go('/jobs/425/quote');
    await press('Terms and wording…');
    await browser.type('Also price for', '2, 5');
    await ctrlEnter();
    await browser.reads('Enter the quantity the lines are priced for.');
    await browser.type('Lines priced for (pieces)', '2');
    await ctrlEnter();
    await browser.reads('for 2 pieces');
    await browser.reads('Rewrite for 5');
    // One heater each, and the hose, the cable and the breakers with them; the carriage is had once.
    await browser.fill('Line 5', 'Charged', 'once');
    await browser.reads('1 unsaved change');
    await browser.driver.wait(async () => (await side()).length === 2, 10_000);
    await browser.driver.wait(async () => (await side())[1]?.includes('6,926.50') === true, 10_000);
    await ctrlEnter();
    await browser.reads('Quote Q-425 saved');
    await press('Rewrite for 5');
    await browser.reads('for 5 pieces');
    await browser.reads('Rewrite for 2');
    await press('Rewrite for 2');
    await browser.reads('Rewrite for 5');
    expect(await browser.consoleErrors()).toEqual([]);
  });
});

describe('what a repair works on', () => {
  it('is said on its job, and goes along where parts are looked up', async () => {
    await browser.go('/jobs/426/quote');
    await browser.reads('Equipment: Stern tube, shaft 60 mm, water lubricated');
    await press('Change');
    await browser.type('Serial number', 'ST-6011');
    await ctrlEnter();
    await browser.reads('serial ST-6011');
    await (await browser.cell('Line 1', 'Item')).click();
    await browser.keys('seal');
    await browser.reads('for Stern tube, shaft 60 mm, water lubricated, serial ST-6011');
    await browser.reads('Stern seal kit 60 mm');
    await browser.keys(Key.ESCAPE, Key.ESCAPE);
    await browser.go('/jobs/418/buy-list');
    await browser.reads('Equipment: Marine gearbox, two-speed, 2.5 : 1, 110 kW, serial 88-41207');
    expect(await browser.consoleErrors()).toEqual([]);
  });
});

describe('a quote that was won', () => {
  it('is revised; what changes is shown before it is taken on', async () => {
    await browser.go('/jobs/425/quote');
    await press('Mark won');
    await browser.type('Accepted by (customer)', 'Ida Sound');
    await press('Mark won and open budget');
    await browser.reads('on the buy list');
    await browser.go('/jobs/425/quote');
    await press('Revise quote');
    await browser.reads('Q-425 applies until this revision is won');
    await browser.fill('Line 2', 'Quantity', '24');
    await ctrlEnter();
    await browser.reads('Quote Q-425/2 saved');
    await press('Mark won');
    await browser.reads('Changes to the buy list Q-425');
    await browser.reads('16 m → 24 m');
    await browser.still();
    await browser.type('Accepted by (customer)', 'Ida Sound');
    await press('Mark won and apply');
    await browser.reads('Budget changed by £\u202f64.00');
    await browser.go('/jobs/425/buy-list');
    await browser.reads('Fuel hose 10 mm');
    await browser.reads('24 m');
    expect(await browser.consoleErrors()).toEqual([]);
  });
});
