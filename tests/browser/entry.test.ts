import readXlsxFile from 'read-excel-file/node';
import { By, Key } from 'selenium-webdriver';
import Papa from 'papaparse';
import { App } from '../support/app';
import { axe } from './axe';
import { Browser, DESK, PHONE } from './driver';

let app: App;
let browser: Browser;
beforeAll(async () => {
  app = await App.start();
  await app.withoutLadder();
  browser = await Browser.open(app.base);
  await browser.stepInAs('Mina Rowe');
});
afterAll(async () => {
  await browser.close();
  await app.stop();
});

let keys = 0;
/** Presses keys one after the other, and counts them. */
async function press(...pressed: readonly string[]): Promise<void> {
  for (const key of pressed) {
    await browser.driver.actions().sendKeys(key).perform();
    keys += 1;
  }
}
async function chord(...chorded: readonly string[]): Promise<void> {
  const [held = '', key = ''] = chorded;
  await browser.driver.actions().keyDown(held).sendKeys(key).keyUp(held).perform();
  keys += chorded.length;
}
const focused = () =>
  browser.driver.executeScript<string>(
    'const e = document.activeElement; return e.getAttribute("aria-label") ?? document.querySelector(`label[for="${e.id}"]`)?.innerText ?? e.innerText',
  );
const value = async (label: string) => (await browser.field(label)).getAttribute('value');

describe('adding lines to a buy list without a mouse', () => {
  const PARTS = [
    ['tu-316-38', '3*12'],
    ['gl-m20', '24'],
    ['cp-flex', '1'],
  ] as const;

  it('takes three parts in under 40 keys beside their numbers', async () => {
    await browser.go('/jobs/418/buy-list');
    await browser.button('Add line');
    keys = 0;
    let typed = 0;
    for (const [k, [part, quantity]] of PARTS.entries()) {
      if (k === 0) {
        await browser.pressUntil('n', By.css('[role="dialog"]'));
        keys += 1;
      }
      await browser.driver.wait(async () => (await focused()) === 'Item or description', 20_000);
      await press(...part);
      await press(Key.ENTER);
      await browser.driver.wait(async () => (await value('Cost code')) !== '', 20_000);
      await press(Key.TAB);
      await press(...quantity);
      typed += part.length + quantity.length;
      await chord(Key.CONTROL, Key.ENTER);
      await browser.reads(`${k + 1} line${k === 0 ? '' : 's'} added`);
    }
    expect(keys - typed).toBeLessThan(40);
    await press(Key.ESCAPE);
    await browser.reads('Tube 316L 38 × 2 mm');
    await browser.reads('36 m');
  });

  it('brings the part’s unit, code, supplier and price, each of which can be another', async () => {
    await (await browser.button('Add line')).click();
    await browser.pick('Item or description', 'ca-2-25');
    await browser.reads('Item CA-2-25');
    expect(await Promise.all(['Unit', 'Cost code', 'Supplier'].map(value))).toEqual([
      'metre',
      '03 Electrical',
      'Brightsound Marine Electrics',
    ]);
    expect(await value('Estimated price, £ per metre')).toBe('2.95');
    await browser.pick('Supplier', 'cobb');
    expect(await value('Supplier')).toBe('Cobb & Tiller Chandlery');
    await press(Key.ESCAPE);
  });

  it('keeps what was typed through Escape', async () => {
    await (await browser.button('Add line')).click();
    await browser.reads('Item CA-2-25');
    expect(await value('Supplier')).toBe('Cobb & Tiller Chandlery');
  });

  it('makes a part in passing, and goes on with it', async () => {
    const field = await browser.field('Item or description');
    await field.click();
    await field.sendKeys(Key.chord(Key.CONTROL, 'a'), 'AN-ZN-12');
    await (await browser.see(By.xpath("//*[@role='option'][contains(., 'New item')]"))).click();
    await browser.type('Name', 'Anode, zinc 1.2 kg');
    await (await browser.button('Add item')).click();
    await browser.reads('Item AN-ZN-12');
    expect(await value('Item or description')).toBe('Anode, zinc 1.2 kg');
    await browser.type('Quantity', '4');
    await (await browser.button('Add line')).click();
    await browser.reads('1 line added');
    await press(Key.ESCAPE);
    await browser.reads('AN-ZN-12');
  });

  it('says so when nothing is called as typed, and takes words for what is no part', async () => {
    await (await browser.button('Add line')).click();
    const field = await browser.field('Item or description');
    await field.click();
    await field.sendKeys(Key.chord(Key.CONTROL, 'a'), 'Odd job');
    await browser.reads('New item “Odd job”');
    await browser.type('Supplier', 'zzz');
    await browser.reads('New supplier “zzz”');
    await press(Key.ESCAPE);
    expect(await value('Item or description')).toBe('Odd job');
    await press(Key.ESCAPE);
  });
});

describe('a day', () => {
  it('is typed in short, told as it is read, and counts when the field is left', async () => {
    await browser.go('/jobs/412');
    const field = await browser.field('As of');
    await field.click();
    await field.sendKeys('1');
    await browser.reads('Fri 1 May');
    await field.sendKeys('0 apr');
    expect(await browser.driver.getCurrentUrl()).not.toContain('on=');
    await field.sendKeys(Key.ENTER);
    await browser.reads('As at end of Fri 10 Apr');
    expect(await browser.driver.getCurrentUrl()).toContain('on=2026-04-10');
  });

  it('that is none stays as typed, and says so', async () => {
    await browser.go('/jobs/new');
    await browser.type('Due', 'soonish');
    await (await browser.field('Name')).click();
    await browser.reads('“soonish” isn’t a date');
    expect(await value('Due')).toBe('soonish');
    await browser.type('Due', '+5w');
    await (await browser.field('Name')).click();
    expect(await value('Due')).toBe('Tue 19 May');
  });

  it('is chosen from a calendar by keys', async () => {
    const field = await browser.field('Starts');
    await field.click();
    await field.sendKeys(Key.ARROW_DOWN);
    await browser.reads('May 2026');
    await browser.driver.wait(async () => (await focused()).includes('12'), 10_000);
    await press(Key.ARROW_RIGHT, Key.ENTER);
    await browser.driver.wait(async () => (await value('Starts')) === 'Wed 13 May', 10_000);
  });
});

describe('finding', () => {
  it('finds a receipt, an invoice, a line and a place, and offers what was opened last', async () => {
    await browser.go('/jobs/418');
    await browser.reads('Gearbox overhaul');
    await browser.go('/suppliers');
    const open = async () => (await browser.button('Find item')).click();
    await open();
    await browser.reads('Recently opened');
    await browser.reads('Gearbox overhaul');
    await press(...'rates');
    await browser.reads('Exchange rates');
    await press(Key.ENTER);
    await browser.reads('Orders use the rate on the draft date');
    await open();
    await press(...'seal stern');
    await browser.reads('412 Dunlin winter refit');
    await browser.reads('SE-ST-60');
  });
});

describe('going about', () => {
  it('opens a page at its top, and goes back to where one was', async () => {
    await browser.go('/gather');
    await browser.reads('lines to buy');
    const at = () => browser.driver.executeScript<number>('return document.getElementById("sheet-scroll").scrollTop');
    // Where the sheet stands is kept as soon as the page has come alive.
    await browser.driver.wait(async () => {
      for (const to of [390, 400]) {
        await browser.driver.executeScript(`document.getElementById("sheet-scroll").scrollTop = ${to}`);
        await browser.still();
      }
      return browser.driver.executeScript<boolean>('return sessionStorage.getItem("kettle scroll /gather?") === "400"');
    }, 30_000);
    await (await browser.link('Suppliers')).click();
    await browser.see(By.xpath("//h1[.='Suppliers']"));
    expect(await at()).toBe(0);
    await browser.driver.navigate().back();
    await browser.reads('lines to buy');
    await browser.driver.wait(async () => (await at()) === 400, 30_000);
  });

  it('has a link that skips what stands above the sheet', async () => {
    await browser.go('/orders');
    await browser.reads('Orders');
    await press(Key.TAB);
    expect(await focused()).toBe('Skip to content');
    await press(Key.ENTER);
    expect(await browser.driver.executeScript('return document.activeElement.id')).toBe('sheet-scroll');
  });

  it('looks at a supplier and a part first, and changes them second', async () => {
    await browser.go('/suppliers/1');
    await browser.reads('on time in the last year');
    await browser.reads('Items');
    await (await browser.link('Edit supplier')).click();
    await browser.field('Contact');
    await browser.go('/items/1');
    await browser.reads('Suppliers');
    await browser.reads('Recent purchases');
    await (await browser.link('Edit item')).click();
    await browser.type('GTIN', '1234567890123');
    await (await browser.button('Save item')).click();
    await browser.reads('its check digit is wrong');
  });
});

describe('rows of a list', () => {
  it('are picked one by one with Ctrl, all up to one with Shift, and opened by a click alone', async () => {
    await browser.go('/gather');
    await browser.reads('lines to buy');
    const line = async (n: number) => browser.see(By.css(`tbody tr[data-index="${n}"] td:nth-child(4)`));
    const click = async (n: number, held?: string) => {
      const actions = browser.driver.actions();
      if (held !== undefined) actions.keyDown(held);
      actions.click(await line(n));
      if (held !== undefined) actions.keyUp(held);
      await actions.perform();
    };
    await click(0, Key.CONTROL);
    await browser.reads('1 line selected');
    await click(2, Key.CONTROL);
    await browser.reads('2 lines selected');
    await click(5, Key.SHIFT);
    await browser.reads('5 lines selected');
    await click(2, Key.CONTROL);
    await browser.reads('4 lines selected');
    await press(Key.ESCAPE);
    await browser.reads('Select lines to see');
    await browser.go('/orders?show=unsent');
    await browser.reads('not sent yet');
    // The first is with sign-off: it is not sent yet.
    await click(1, Key.CONTROL);
    await browser.reads('1 order selected');
    await click(1, Key.CONTROL);
    await browser.reads('not sent yet');
    await click(1);
    await browser.reads('Total incl. tax');
  });
});

describe('orders selected in the list', () => {
  it('are sent in one step by keys, and the list comes out with the sum that the orders have', async () => {
    await browser.go('/orders?show=unsent');
    await browser.reads('not sent yet');
    const before = await browser.texts('tbody tr');
    const boxes = await browser.driver.findElements(By.css('[aria-label^="Select K26"]'));
    expect(boxes.length).toBeGreaterThan(1);
    await boxes[0]?.click();
    await press(Key.ARROW_DOWN, ' ');
    await browser.reads('2 orders selected');
    // They stay picked while one of them is looked at.
    await press(Key.ENTER);
    await browser.reads('Total incl. tax');
    await browser.driver.navigate().back();
    await browser.reads('2 orders selected');
    await chord(Key.CONTROL, Key.ENTER);
    await browser.reads('Each is emailed to its supplier as a PDF');
    await chord(Key.CONTROL, Key.ENTER);
    await browser.reads('2 orders sent');
    await browser.driver.wait(async () => (await browser.texts('tbody tr')).length === before.length - 2, 20_000);
    const cookie = `kettle=${(await browser.driver.manage().getCookie('kettle'))?.value ?? ''}`;
    const out = async (as: string) => fetch(`${app.base}/lists/orders?show=all&as=${as}`, { headers: { cookie } });
    const csv = await (await out('csv')).text();
    const net = csv
      .trim()
      .split('\r\n')
      .slice(1)
      .reduce((sum, line) => sum + Math.round(Number(line.split(',').at(-1)) * 100), 0);
    const sheet = await readXlsxFile(Buffer.from(await (await out('xlsx')).arrayBuffer()));
    const rows = ((sheet as unknown as { data: unknown[][] }[])[0]?.data ?? sheet) as unknown[][];
    expect(rows.slice(1).reduce((sum, r) => sum + Math.round(Number(r.at(-1)) * 100), 0)).toBe(net);
    expect(net).toBeGreaterThan(0);
    expect((await fetch(`${app.base}/lists/orders?as=csv`)).status).toBe(401);
    expect((await fetch(`${app.base}/lists/constructor`, { headers: { cookie } })).status).toBe(404);
  });
});

describe('what opens', () => {
  it.each([
    ['a desk', DESK],
    ['a phone', PHONE],
  ])('has no fault for axe on %s', async (_, size) => {
    await browser.resize(size);
    await browser.go('/jobs/418/buy-list');
    await (await browser.button('Add line')).click();
    const field = await browser.field('Item or description');
    await field.click();
    await field.sendKeys(Key.chord(Key.CONTROL, 'a'), 'tube');
    await browser.see(By.css('[role="option"]'));
    expect(await axe(browser)).toEqual([]);
    await field.sendKeys(Key.ENTER);
    await (await browser.see(By.css('[aria-label="Needed by, calendar"]'))).click();
    await browser.reads('May 2026');
    expect(await axe(browser)).toEqual([]);
    await browser.resize(DESK);
  });

  it('leaves no error in the console', async () => expect(await browser.consoleErrors()).toEqual([]));
});

describe('a list of the company', () => {
  const column = async (n: number) => (await browser.texts(`table tbody td:nth-child(${n})`)).filter((t) => t !== '');

  it('is sorted by the server, whose foot adds up all that is found, and taken out so', async () => {
    await browser.go('/orders?show=all');
    await (await browser.button('Net')).click();
    await browser.driver.wait(async () => (await browser.driver.getCurrentUrl()).includes('sort=net'), 20_000);
    await (await browser.button('Net')).click();
    await browser.driver.wait(async () => (await browser.driver.getCurrentUrl()).includes('sort=-net'), 20_000);
    await browser.driver.wait(
      async () => (await browser.driver.findElements(By.css('th[aria-sort="descending"]'))).length === 1,
      20_000,
    );
    const foot = (await browser.texts('tfoot td')).join(' ');
    const cookie = (await browser.driver.manage().getCookie('kettle'))?.value ?? '';
    const file = await fetch(`${app.base}/lists/orders?show=all&sort=-net&as=csv`, {
      headers: { cookie: `kettle=${cookie}` },
    });
    const [head = [], ...rows] = Papa.parse<string[]>(await file.text(), { skipEmptyLines: true }).data;
    const [net, currency] = [head.indexOf('Net'), head.indexOf('Currency')];
    const pounds = rows.filter((r) => r[currency] === 'GBP').map((r) => Number(r[net]));
    expect(foot).toContain(
      pounds
        .reduce((sum, n) => sum + n, 0)
        .toLocaleString('en-GB', { minimumFractionDigits: 2, maximumFractionDigits: 2 }),
    );
    expect(foot).toContain(`${rows.length}`);
    const amounts = rows.map((r) => Number(r[net]));
    expect(amounts).toEqual([...amounts].sort((x, y) => y - x));
  });

  it('shows the columns that a person chose, here and later', async () => {
    await browser.go('/orders');
    const heads = () => browser.texts('thead th');
    await browser.reads('Net');
    await (await browser.see(By.css('[aria-label="Columns"]'))).click();
    await (await browser.see(By.xpath("//label[contains(., 'Sent')]//input"))).click();
    await (await browser.see(By.css('[aria-label="Move Required by left"]'))).click();
    await browser.driver.wait(async () => !(await heads()).includes('Sent'), 20_000);
    await browser.keys(Key.ESCAPE);
    // What was chosen is being written down while the page is asked for again.
    await browser.driver.wait(async () => {
      await browser.driver.navigate().refresh();
      await browser.reads('Net');
      const shown = await heads();
      return shown.includes('Required by') && !shown.includes('Sent');
    }, 20_000);
    await (await browser.see(By.css('[aria-label="Columns"]'))).click();
    await (await browser.button('Reset columns')).click();
    await browser.driver.wait(async () => (await heads()).includes('Sent'), 20_000);
    await browser.keys(Key.ESCAPE);
  });

  it('keeps a view by name, and goes back to it', async () => {
    await browser.go('/orders?show=all&sort=-net');
    await (await browser.button('Views')).click();
    await browser.type('Save this view as', 'Largest');
    await browser.keys(Key.ENTER);
    await browser.reads('View Largest saved');
    await browser.go('/orders');
    await (await browser.button('Views')).click();
    await (await browser.link('Largest')).click();
    await browser.driver.wait(async () => (await browser.driver.getCurrentUrl()).includes('sort=-net'), 20_000);
    await browser.reads('View: Largest');
    expect((await column(2)).length).toBeGreaterThan(11);
  });
});
