import { By, Key } from 'selenium-webdriver';
import { App } from '../support/app';
import { Browser } from './driver';

let app: App;
let browser: Browser;

beforeAll(async () => {
  app = await App.start();
  await app.withoutLadder();
  browser = await Browser.open(app.base);
});
afterAll(async () => {
  await browser.close();
  await app.stop();
});

const press = async (...keys: string[]) => {
  for (const key of keys) await browser.driver.actions().sendKeys(key).perform();
};
const chord = async (hold: string, key: string) =>
  browser.driver.actions().keyDown(hold).sendKeys(key).keyUp(hold).perform();
const type = (words: string) => browser.driver.actions().sendKeys(words).perform();
const tabTo = (name: string) => browser.tabTo(name);

const find = async () => {
  await press('/');
  await browser.see(By.css('[placeholder^="Item, job, order"]:focus'));
};

const focusedText = () => browser.driver.executeScript('return document.activeElement.textContent');

/** The same purchase without a mouse; only addresses are typed where a person would follow a link. */
describe('the main job by keyboard alone', () => {
  it('signs in', async () => {
    await browser.go('/sign-in');
    await tabTo('Email');
    await type('mina@wrackline.example');
    await press(Key.TAB);
    await type('kettle on the boil');
    await press(Key.ENTER);
    await browser.reads('Hello, Mina');
  });

  it('shows the keys of the place', async () => {
    await press('?');
    await browser.reads('Keyboard shortcuts');
    await browser.reads('Open job 412');
    await press(Key.ESCAPE);
  });

  it('finds a job with /, and opens one on the rail with Alt and a number', async () => {
    await find();
    await browser.reads('Type a number');
    await type('outb');
    await browser.reads('emails to suppliers');
    for (const _ of 'outb') await press(Key.BACK_SPACE);
    await type('Sanderling');
    await browser.reads('Wheelhouse heating');
    await press(Key.ENTER);
    await browser.see(By.xpath("//h1[contains(., 'Wheelhouse heating')]"));
    await chord(Key.ALT, '2');
    await browser.reads('Gearbox overhaul, pilot cutter Redshank');
  });

  it('wins a quote', async () => {
    await browser.go('/jobs/425/quote');
    await browser.reads('· with customer');
    await chord(Key.CONTROL, Key.ENTER);
    await browser.reads('Budget');
    await type('Ina Corrow');
    await press(Key.ENTER);
    await browser.reads('Forecast');
  });

  it('moves over the lines of Gather, picks, puts back and drafts', async () => {
    await browser.go('/gather?job=425');
    await browser.reads('Cabin heater');
    await press(Key.ARROW_DOWN, ' ');
    await browser.reads('1 line selected');
    await press(Key.ESCAPE);
    await browser.reads('Select lines to see');
    await press(' ', Key.ARROW_DOWN, ' ');
    await browser.reads('2 lines selected');
    await browser.reads('1 order to draft');
    await press('b');
    await browser.reads('Drafted K26-0026');
    await browser.reads('drafted today by Mina Rowe');
  });

  it('changes the order and sends it', async () => {
    await tabTo('Carrier');
    await chord(Key.CONTROL, 'a');
    await type('Morning van');
    await chord(Key.CONTROL, Key.ENTER);
    await browser.reads('K26-0026 saved');
    await chord(Key.CONTROL, Key.ENTER);
    await browser.reads('emailed as a PDF to');
    await chord(Key.CONTROL, Key.ENTER);
    await browser.reads('K26-0026 sent to');
  });

  it('takes the delivery in', async () => {
    await browser.go('/dock');
    await browser.reads('to come');
    await browser.go('/dock/K26-0026');
    await browser.reads('outstanding');
    await press('a');
    await browser.reads('to receive');
    await chord(Key.CONTROL, Key.ENTER);
    await browser.reads('Received as R-');
  });

  it('enters the invoice and matches it', async () => {
    await browser.go('/invoices');
    await press('n');
    await browser.reads('Which order is it for?');
    await tabTo('K26-0026');
    await press(Key.ENTER);
    await browser.reads('Lines plus tax');
    await tabTo('Invoice number');
    await type('BME-12001');
    const total = /Lines plus tax\s*£\u202f([\d,.]+)/.exec(await browser.text())?.[1] ?? '';
    await tabTo('Invoice total incl. tax');
    await type(total);
    await chord(Key.CONTROL, Key.ENTER);
    await browser.reads('Three-way match');
    await chord(Key.CONTROL, Key.ENTER);
    await browser.reads('matched Tue 12 May by Mina Rowe');
  });

  it('opens a row of a list with the arrows and Enter', async () => {
    await browser.go('/jobs');
    await browser.reads('Survey launch Dunlin');
    await press(Key.ARROW_DOWN, Key.ARROW_DOWN, Key.ENTER);
    await browser.reads('Fuel tank renewal, tug Whimbrel');
  });

  it('always shows where the focus is', async () => {
    await browser.go('/gather');
    await press(Key.TAB, Key.TAB, Key.TAB);
    const outline = await browser.driver.executeScript('return getComputedStyle(document.activeElement).outlineStyle');
    expect(outline).toBe('solid');
  });

  it('leaves Enter to a button that has the focus, and goes back to it from what it opened', async () => {
    await browser.go('/gather');
    await browser.reads('Tube 316L');
    await press(Key.ARROW_DOWN, ' ');
    await browser.reads('1 order to draft');
    await press('o');
    await tabTo('Top up');
    await press(Key.ENTER);
    await browser.reads('Also to buy from them');
    await press(Key.ESCAPE);
    await browser.driver.wait(async () => (await focusedText()) === 'Top up', 5000);
  });

  it('finds a place by the beginning of its name before what else is called so', async () => {
    await find();
    await browser.reads('Recently opened');
    await type('Orders');
    await press(Key.ENTER);
    await browser.see(By.xpath("//h1[contains(., 'Orders')]"));
  });

  it('goes into the terms of an order and out again, and opens what adds to it', async () => {
    await browser.go('/orders/K26-0024');
    await browser.reads('Ordered before');
    await press('t');
    await browser.see(By.css('[aria-label="Deliver to"]:focus, .entry-terms input:focus'));
    for (const [key, words] of [
      ['s', 'Each scan adds one to the order'],
      ['o', 'Today’s price, last quantity'],
      ['f', 'Attachments to K26-0024'],
    ] as const) {
      await press(Key.ESCAPE, key);
      await browser.reads(words);
    }
    await press(Key.ESCAPE);
  });

  it('does not clash with itself when the key comes again before the page shows what was saved', async () => {
    await (await browser.cell('Line 1', 'Quantity')).click();
    await type('7');
    await press(Key.ENTER);
    for (let k = 0; k < 2; k += 1) await chord(Key.CONTROL, Key.ENTER);
    await browser.reads('K26-0024 saved');
    expect(await browser.text()).not.toContain('after you opened it');
  });

  it('left no error in the console', async () => expect(await browser.consoleErrors()).toEqual([]));
});
