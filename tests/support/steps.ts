import { By, Key, type WebElement } from 'selenium-webdriver';
import { TYPING, type Browser } from '../browser/driver';

/** Does a task as a person would, and counts the keys and clicks it takes; names and numbers are typed beside them. */
export class Steps {
  keys = 0;
  clicks = 0;
  constructor(readonly browser: Browser) {}

  async press(...pressed: readonly string[]): Promise<void> {
    for (const key of pressed) await this.browser.keys(key);
    this.keys += pressed.length;
  }

  /** Two keys at once. */
  async chord(held: string, key: string): Promise<void> {
    await this.browser.driver.actions().keyDown(held).sendKeys(key).keyUp(held).perform();
    this.keys += 2;
  }

  /** The shelf's action. */
  act = (): Promise<void> => this.chord(Key.CONTROL, Key.ENTER);

  /** Names and numbers, which nobody can leave out. */
  words = (text: string): Promise<void> => this.browser.keys(text);

  async click(element: WebElement): Promise<void> {
    await element.click();
    this.clicks += 1;
  }

  /** Waits until a key has an effect, as a page that was just opened hears none yet; the key counts once. */
  async pressUntil(key: string, shown: By): Promise<void> {
    await this.browser.pressUntil(key, shown);
    this.keys += 1;
  }
}

export type Task = { readonly name: string; readonly run: (steps: Steps) => Promise<void> };

const inCell = By.css('[role="gridcell"]:focus, [role="rowheader"]:focus');
const ready = async ({ browser }: Steps, path: string, words: string): Promise<void> => {
  await browser.go(path);
  await browser.reads(words);
};

/** What the form of an invoice comes to with tax, as its shelf tells. */
async function workedTotal({ browser }: Steps): Promise<string> {
  const [shelf = ''] = await browser.texts('[aria-label="Shelf"]');
  return /£\u202f([\d,.]+)/.exec(shelf)?.[1] ?? '';
}

/** What a buyer does every day, on the sample company and in this order. */
export const TASKS: readonly Task[] = [
  {
    name: 'Put three parts on a job’s buy list',
    run: async (s) => {
      await ready(s, '/jobs/418/buy-list', 'to buy');
      await s.pressUntil('n', TYPING);
      const parts = [
        ['TU-316-38', '36'],
        ['GL-M20', '24'],
        ['NL-MH-360', '1'],
      ] as const;
      for (const [k, [part, quantity]] of parts.entries()) {
        await s.words(part);
        await s.browser.see(By.css('[role="option"]'));
        await s.press(Key.ENTER, Key.TAB);
        await s.words(quantity);
        await s.act();
        await s.browser.reads(`${k + 1} line${k === 0 ? '' : 's'} added`);
      }
      await s.press(Key.ESCAPE);
    },
  },
  {
    name: 'Select two lines in Gather and draft their order',
    run: async (s) => {
      await ready(s, '/gather?job=412', 'Select lines to see');
      await s.pressUntil(Key.ARROW_DOWN, By.css('[data-at="true"]'));
      await s.press(' ', Key.ARROW_DOWN, ' ');
      await s.browser.reads('2 lines selected');
      await s.browser.reads('to draft');
      await s.press('b');
      await s.browser.reads('Drafted K26-');
    },
  },
  {
    name: 'Change a quantity and a price on a draft, and save it',
    run: async (s) => {
      await ready(s, '/orders/K26-0023', 'Total incl. tax');
      await s.pressUntil(Key.ARROW_DOWN, inCell);
      await s.press(Key.ARROW_RIGHT);
      await s.words('2');
      await s.press(Key.TAB, Key.TAB);
      await s.words('95');
      await s.act();
      await s.browser.reads('K26-0023 saved');
      await s.browser.driver.wait(async () => !(await s.browser.text()).includes('unsaved change'), 20_000);
    },
  },
  {
    name: 'Share a line over two jobs',
    run: async (s) => {
      await ready(s, '/orders/K26-0023', 'Total incl. tax');
      await s.pressUntil(Key.ARROW_DOWN, inCell);
      await s.press(Key.ARROW_RIGHT, '+');
      await s.words('418');
      await s.browser.see(By.css('[role="option"]'));
      await s.chord(Key.SHIFT, Key.TAB);
      await s.words('1');
      await s.press(Key.ARROW_UP);
      await s.words('1');
      await s.press(Key.ENTER);
      await s.browser.reads('2 of 2 allocated');
      await s.act();
      await s.browser.reads('K26-0023 saved');
    },
  },
  {
    name: 'Send an order',
    run: async (s) => {
      await ready(s, '/orders/K26-0023', 'Total incl. tax');
      // Once the key is heard, a second one would send.
      await s.browser.still();
      await s.act();
      await s.browser.reads('emailed as a PDF to');
      await s.act();
      await s.browser.reads('sent to');
    },
  },
  {
    name: 'Receive a whole delivery',
    run: async (s) => {
      await ready(s, '/dock/K26-0022', 'outstanding');
      await s.pressUntil('a', By.css('input[value]:not([value=""])'));
      await s.act();
      await s.browser.reads('Received as');
    },
  },
  {
    name: 'Enter its invoice as ordered, and match it',
    run: async (s) => {
      await s.click(await s.browser.link('Enter its invoice'));
      await s.click(await s.browser.field('Invoice number'));
      await s.words('FT 1220');
      const total = await s.browser.field('Invoice total incl. tax, £');
      await s.click(total);
      await s.words(await workedTotal(s));
      await s.browser.reads('Agrees with invoice total');
      await s.act();
      await s.browser.button('Match');
      await s.act();
      await s.browser.reads('matched Tue 12 May');
    },
  },
  {
    name: 'Scan two parts onto a draft, and save it',
    run: async (s) => {
      await ready(s, '/orders/K26-0024', 'Total incl. tax');
      await s.pressUntil('s', By.css('[role="dialog"]'));
      for (const part of ['BE-6208', 'SE-OIL-70']) {
        await s.browser.see(By.css('[aria-label="Barcode or number"]:focus'));
        await s.words(part);
        await s.press(Key.ENTER);
        await s.browser.reads('1 scanned');
      }
      await s.press(Key.ESCAPE);
      await s.act();
      await s.browser.reads('K26-0024 saved');
    },
  },
  {
    name: 'Select every draft in the list and send them in one step',
    run: async (s) => {
      await ready(s, '/orders?show=unsent', 'not sent yet');
      // What is with sign-off stands among them, and is passed by.
      const pickable = (await s.browser.driver.executeScript(
        'return [...document.querySelectorAll("tbody tr")].map((r) => r.querySelector("input[type=checkbox]") !== null)',
      )) as boolean[];
      const drafts = pickable.filter(Boolean).length;
      await s.pressUntil(Key.ARROW_DOWN, By.css('tr[data-at="true"]'));
      for (const [k, picks] of pickable.entries())
        await s.press(...(k === 0 ? [] : [Key.ARROW_DOWN]), ...(picks ? [' '] : []));
      await s.browser.reads(`${drafts} orders selected`);
      await s.act();
      await s.browser.reads('emailed to its supplier as a PDF');
      await s.act();
      await s.browser.reads(`${drafts} orders sent`);
    },
  },
  {
    name: 'Quote three lines on the sheet, and mark the quote won',
    run: async (s) => {
      await s.browser.go('/jobs/new');
      await s.browser.type('Number', '440');
      await s.browser.type('Name', 'Cleat renewal');
      await s.browser.type('Customer', 'Saltmarsh Pilots');
      await (await s.browser.button('Create job')).click();
      await s.browser.reads('No lines yet');
      await s.pressUntil('n', inCell);
      for (const [part, quantity] of [
        ['NL-MH-360', '1'],
        ['GL-M20', '12'],
        ['BR-DP-16', '2'],
      ] as const) {
        await s.words(part);
        await s.press(Key.TAB, Key.TAB);
        await s.words(quantity);
        await s.press(Key.ENTER);
      }
      await s.browser.reads('3 unsaved changes');
      await s.browser.driver.wait(async () => !(await s.browser.text()).includes('choose code'), 20_000);
      await s.act();
      await s.browser.driver.wait(async () => !(await s.browser.text()).includes('unsaved change'), 20_000);
      await s.act();
      await s.browser.field('Accepted by (customer)');
      await s.words('Ada');
      await s.press(Key.ENTER);
      await s.browser.reads('Forecast');
    },
  },
  {
    name: 'Export the orders as a spreadsheet, the largest first',
    run: async (s) => {
      await ready(s, '/orders?show=all', 'Net');
      for (const way of ['sort=net', 'sort=-net']) {
        await s.click(await s.browser.button('Net'));
        await s.browser.driver.wait(async () => (await s.browser.driver.getCurrentUrl()).includes(way), 20_000);
      }
      await s.click(await s.browser.link('XLSX'));
    },
  },
  {
    name: 'Add BOM of what a job makes, for twelve',
    run: async (s) => {
      await ready(s, '/jobs/440/plan', 'to buy');
      await s.pressUntil('b', By.css('[role="dialog"]'));
      await s.words('LADDER-24');
      await s.browser.see(By.css('[role="option"]'));
      await s.press(Key.ENTER, Key.TAB);
      await s.words('12');
      await s.act();
      await s.browser.reads('to buy from its BOM');
    },
  },
  {
    name: 'Add a second supplier to an item',
    run: async (s) => {
      await ready(s, '/items/1', 'Suppliers');
      await s.click(await s.browser.button('Add a supplier'));
      await s.words('Cobb');
      await s.browser.see(By.css('[role="option"]'));
      await s.press(Key.ENTER);
      await s.browser.reads('Cobb & Tiller Chandlery’s terms for');
      await s.click(await s.browser.field('Price 1'));
      await s.words('10.20');
      await s.act();
      await s.browser.reads('saved');
    },
  },
  {
    name: 'Revise an order to what its supplier confirmed, and send that',
    run: async (s) => {
      await ready(s, '/orders/K26-0021', 'Total incl. tax');
      await s.pressUntil('r', By.css('[role="dialog"]'));
      await s.browser.see(By.css('[role="dialog"] input:focus, [role="dialog"] textarea:focus'));
      await s.words('As you confirmed');
      await s.press(Key.ENTER);
      await s.browser.reads('Revision 1 in progress');
      await s.browser.button('Send revision 1');
      await s.act();
      await s.browser.reads('Send now');
      await s.act();
      await s.browser.reads('sent to');
    },
  },
  {
    name: 'Close a line short, seeing what it frees',
    run: async (s) => {
      await ready(s, '/orders/K26-0021', 'Total incl. tax');
      await s.click(await s.browser.button('Close short'));
      await s.browser.reads('before');
      await s.words('Sold out');
      await s.press(Key.ENTER);
      await s.browser.reads('closed short');
    },
  },
  {
    name: 'Pick all stock of a job, and issue it',
    run: async (s) => {
      await ready(s, '/stores/pick/415', 'Pick for 415');
      await s.press(Key.ESCAPE);
      await s.pressUntil('a', By.xpath('//span[normalize-space(.)="picked"]'));
      await s.act();
      await s.browser.reads('issued to 415');
    },
  },
  {
    name: 'Count a bin by scan, and post what differs',
    run: async (s) => {
      await ready(s, '/stores/count', 'in progress');
      await s.pressUntil('n', By.css('[role="dialog"]'));
      await s.browser.choose('Bin', 'B-01');
      await s.act();
      await s.browser.reads('Count of B-01');
      await s.browser.see(By.css('input[aria-label="Barcode or number"]:focus'));
      await s.words('SEAL-MS');
      await s.press(Key.ENTER);
      await s.browser.reads('1 of 1 line counted');
      await s.act();
      await s.browser.reads('8 missing');
      await s.browser.button('Post 1 difference');
      await s.act();
      await s.browser.see(By.css('[role="dialog"] input:focus'));
      await s.words('Used and not booked');
      await s.act();
      await s.browser.reads('posted');
    },
  },
];
