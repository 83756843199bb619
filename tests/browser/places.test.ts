import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { By, Key } from 'selenium-webdriver';
import { App } from '../support/app';
import { axe } from './axe';
import { beyond, Browser, DESK, PHONE } from './driver';
import { PLACES } from './views';

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

/** What scrolls up and down on a page: the document by its name, everything else by its tag and label. */
const SCROLLING = `
  const scrolls = (e) =>
    e.scrollHeight > e.clientHeight + 1 && ['auto', 'scroll'].includes(getComputedStyle(e).overflowY) && e.tagName !== 'TEXTAREA';
  const root = document.scrollingElement;
  return [
    ...(root.scrollHeight > root.clientHeight + 1 ? ['the document'] : []),
    ...[...document.body.querySelectorAll('*')].filter(scrolls).map((e) => e.id || e.tagName + ' ' + e.getAttribute('aria-label')),
  ];`;

/** Tables that are wider than what they stand on. */
const CUT_OFF = `
  const right = (e) => e.getBoundingClientRect().right;
  return [...document.querySelectorAll('main table')]
    .filter((t) => right(t) > right(t.parentElement) + 1)
    .map((t) => t.getAttribute('aria-label'));`;

describe('every main view', () => {
  beforeAll(() => browser.stepInAs('Mina Rowe'));

  it.each(PLACES)(
    '%s can be used by everybody, scrolls in one place, is cut off nowhere, and leaves no error in the console',
    async (path) => {
      await browser.go(path);
      await browser.see(By.css('main h1, main h2'));
      await browser.still();
      expect(await axe(browser)).toEqual([]);
      expect(await browser.consoleErrors()).toEqual([]);
      const scrolling = await browser.driver.executeScript<string[]>(SCROLLING);
      expect(scrolling.filter((name) => name !== 'sheet-scroll')).toEqual([]);
      expect(await browser.driver.executeScript(CUT_OFF)).toEqual([]);
    },
  );

  it('is as readable in the evening theme', async () => {
    await browser.go('/');
    await (await browser.see(By.css('[aria-label="MR: Mina Rowe, menu"]'))).click();
    await (await browser.see(By.xpath("//*[@role='menuitem'][contains(., 'Dark theme')]"))).click();
    await browser.see(By.css('html[data-theme="evening"]'));
    for (const path of ['/', '/jobs/412', '/gather', '/orders/K26-0024', '/invoices/14', '/dock/K26-0015']) {
      await browser.go(path);
      await browser.still();
      expect({ path, found: await axe(browser) }).toEqual({ path, found: [] });
    }
  });
});

describe('what opens on a view', () => {
  afterEach(() => browser.resize(DESK));

  const press = async (words: string) => (await browser.button(words)).click();
  it.each<[string, () => Promise<unknown>]>([
    [
      'a quote file with its columns and problems',
      async () => {
        const file = join(app.folder, 'quote.csv');
        writeFileSync(file, 'Description,Qty,Our cost,Cost code,Supplier\nHose,2,8,77,Nobody\nRope,x,1,02,\n');
        await browser.go('/jobs/426/quote');
        await browser.hand(file);
        await browser.reads('Rows to check');
      },
    ],
    [
      'Gather with lines picked',
      async () => {
        await browser.go('/gather?job=412');
        await (await browser.see(By.css('[aria-label="Select all of Brightsound Marine Electrics"]'))).click();
        await browser.reads('1 order to draft');
      },
    ],
    [
      'an order being changed, with the parts of a line',
      async () => {
        await browser.go('/orders/K26-0023');
        await (await browser.cell('Line 3', 'Quantity')).click();
        await browser.keys('16', Key.ENTER, Key.ARROW_UP, '+');
        await browser.see(By.css('[aria-label="Line 3, split 2"]'));
      },
    ],
    ['the question before sending', async () => browser.go('/orders/K26-0024').then(() => press('Send'))],
    ['the reason for calling off', async () => browser.go('/orders/K26-0024').then(() => press('Cancel order'))],
    ['a line of the buy list', async () => browser.go('/jobs/412/buy-list').then(() => press('Bilge pump'))],
    ['Find', async () => browser.go('/').then(() => press('Find item'))],
    [
      'the person’s menu',
      async () => {
        await browser.go('/');
        await (await browser.see(By.css('[aria-label="MR: Mina Rowe, menu"]'))).click();
        await browser.see(By.css('[role="menuitem"]'));
      },
    ],
    ['the views of a list', async () => browser.go('/orders').then(() => press('Views'))],
    [
      'the columns of a list',
      async () => {
        await browser.go('/jobs');
        await (await browser.see(By.css('[aria-label="Columns"]'))).click();
        await browser.see(By.xpath("//label[contains(., 'Headroom')]"));
      },
    ],
    [
      'a quote being typed, its list of parts open',
      async () => {
        await browser.go('/jobs/426/quote');
        await (await browser.cell('Line 1', 'Item')).click();
        await browser.see(By.css('[role="option"]'));
      },
    ],
    [
      'a buy list being filled in',
      async () => {
        await browser.go('/jobs/412/buy-list');
        await press('Edit as sheet');
        await browser.cell('Line 1', 'Quantity');
      },
    ],
    [
      'the calendar of a day',
      async () => {
        await browser.go('/orders/K26-0024');
        await (await browser.see(By.css('[aria-label="Required by, calendar"]'))).click();
        await browser.see(By.css('[role="grid"] [role="gridcell"] button'));
      },
    ],
  ])('%s can be used by everybody, and fits a phone', async (_, open) => {
    await open();
    await browser.still();
    expect(await axe(browser)).toEqual([]);
    await browser.resize(PHONE);
    await browser.still();
    expect(await axe(browser)).toEqual([]);
    expect(await beyond(browser)).toBeLessThanOrEqual(0);
  });
});

describe('what is not theirs', () => {
  beforeAll(async () => {
    await browser.stepInAs('Joss Fenn');
  });

  it.each([
    '/gather',
    '/invoices',
    '/orders/K26-0015',
    '/suppliers',
    '/items',
    '/outbox',
    '/people',
    '/jobs/412/quote',
    '/jobs/412/history',
  ])('%s is kept from the storekeeper', async (path) => {
    await browser.go(path);
    await browser.reads('You don’t have permission');
  });

  it('the storekeeper sees no money anywhere on a job or at the dock', async () => {
    for (const path of ['/', '/jobs', '/jobs/412/buy-list', '/jobs/412/orders', '/dock', '/dock/K26-0015', '/orders']) {
      await browser.go(path);
      await browser.see(By.css('main h1'));
      expect({ path, money: /£|€|Price|Buying budget|Headroom/.test(await browser.text()) }).toEqual({
        path,
        money: false,
      });
    }
  });

  it('files and previews are kept from who is not signed in', async () => {
    const asked = ['/documents/1', '/outbox/1/raw', '/orders/K26-0001/pdf', '/find?words=412'].map(
      async (path) => (await fetch(app.base + path)).status,
    );
    expect(await Promise.all(asked)).toEqual([401, 401, 401, 401]);
    expect((await fetch(`${app.base}/gather/preview`, { method: 'POST', body: '[]' })).status).toBe(401);
    const page = await fetch(`${app.base}/jobs/412`, { redirect: 'manual' });
    expect([page.status, page.headers.get('location')]).toEqual([307, '/sign-in']);
  });

  it('files and previews are kept from who may not see money', async () => {
    const cookie = (await browser.driver.manage().getCookie('kettle'))?.value ?? '';
    const asked = ['/documents/1', '/outbox/1/raw', '/orders/K26-0001/pdf'].map(
      async (path) => (await fetch(app.base + path, { headers: { cookie: `kettle=${cookie}` } })).status,
    );
    expect(await Promise.all(asked)).toEqual([403, 403, 403]);
  });
});
