import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { By, Key } from 'selenium-webdriver';
import { App } from '../support/app';
import { axe } from './axe';
import { Browser, DESK, PHONE } from './driver';

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

const PLACES = [
  '/',
  '/jobs',
  '/jobs/new',
  '/jobs/412',
  '/jobs/412?figure=03.received',
  '/jobs/412/budget',
  '/jobs/412/buy-list',
  '/jobs/412/plan',
  '/jobs/421/plan',
  '/jobs/412/orders',
  '/jobs/412/quote',
  '/jobs/412/papers',
  '/words',
  '/words?supplier=1',
  '/jobs/412/history',
  '/history',
  '/gather',
  '/orders',
  '/orders/K26-0024',
  '/orders/K26-0015',
  '/orders/K26-0025',
  '/sign',
  '/sign/K26-0025',
  '/you',
  '/dock',
  '/dock/K26-0015',
  '/dock/scan',
  '/invoices',
  '/invoices/14',
  '/invoices/new',
  '/invoices/new?order=K26-0019',
  '/suppliers',
  '/suppliers/1',
  '/suppliers/1/change',
  '/items/8/sold/1',
  '/items',
  '/items/8',
  '/items/44/bom',
  '/stores',
  '/stores/1',
  '/stores/pick',
  '/stores/pick/418',
  '/stores/count',
  '/stores/count/1',
  '/outbox',
  '/outbox/1',
];

/** What scrolls up and down on a page: the document by its name, everything else by its tag and label. */
const SCROLLING = `
  const scrolls = (e) =>
    e.scrollHeight > e.clientHeight + 1 && ['auto', 'scroll'].includes(getComputedStyle(e).overflowY) && e.tagName !== 'TEXTAREA';
  const root = document.scrollingElement;
  return [
    ...(root.scrollHeight > root.clientHeight + 1 ? ['the document'] : []),
    ...[...document.body.querySelectorAll('*')].filter(scrolls).map((e) => e.id || e.tagName + ' ' + e.getAttribute('aria-label')),
  ];`;

describe('every main view', () => {
  beforeAll(() => browser.stepInAs('Mina Rowe'));

  it.each(PLACES)(
    '%s can be used by everybody, scrolls in one place, and leaves no error in the console',
    async (path) => {
      await browser.go(path);
      await browser.see(By.css('main h1, main h2'));
      await browser.still();
      expect(await axe(browser)).toEqual([]);
      expect(await browser.consoleErrors()).toEqual([]);
      const scrolling = await browser.driver.executeScript<string[]>(SCROLLING);
      expect(scrolling.filter((name) => name !== 'sheet-scroll')).toEqual([]);
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

/** By how much a view is wider than its window. */
const beyond = () =>
  browser.driver.executeScript<number>(
    'const m = document.getElementById("sheet-scroll"); return Math.max(document.documentElement.scrollWidth, m.scrollWidth) - window.innerWidth',
  );

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
        await (await browser.find(By.css('input[type=file]'))).sendKeys(file);
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
    expect(await beyond()).toBeLessThanOrEqual(0);
  });
});

/**
 * What is to be tapped and is not hit 21 px above and below its middle. A link among words is left out, and so are the
 * lists in the column of what the work leads to; a row that opens is hit all over.
 */
const SMALL_TARGETS = `
  const shown = (e) => {
    const { width, height } = e.getBoundingClientRect();
    return width > 1 && height > 1 && getComputedStyle(e).visibility !== 'hidden' && e.closest('.sr-only, aside') === null;
  };
  const amongWords = (e) =>
    e.tagName === 'A' && [...e.parentElement.childNodes].some((n) => n.nodeType === 3 && n.textContent.trim().length > 1);
  const inRow = (e) => e.tagName === 'A' && (e.closest('tr.cursor-pointer')?.getBoundingClientRect().height ?? 0) >= 44;
  const hits = (e, h) =>
    h !== null && (e.contains(h) || h.closest('label')?.control === e);
  return [...document.querySelectorAll('a[href], button:not(:disabled), input, select, textarea')]
    .filter((e) => shown(e) && !amongWords(e) && !inRow(e))
    .flatMap((e) => {
      e.scrollIntoView({ block: 'center', inline: 'center' });
      const { left, top, width, height } = e.getBoundingClientRect();
      const [x, y] = [left + width / 2, top + height / 2];
      const within = [-21, 21].filter((d) => y + d > 0 && y + d < innerHeight);
      return within.every((d) => hits(e, document.elementFromPoint(x, y + d)))
        ? []
        : [(e.getAttribute('aria-label') ?? e.innerText ?? e.tagName).trim() + ' ' + Math.round(width) + ' × ' + Math.round(height)];
    });`;

describe('on a phone', () => {
  beforeAll(() => browser.resize(PHONE));
  afterAll(() => browser.resize(DESK));

  it.each(PLACES.filter((p) => !p.includes('figure')))('%s fits the width', async (path) => {
    await browser.go(path);
    await browser.see(By.css('main h1, main h2'));
    expect(await beyond()).toBeLessThanOrEqual(0);
  });

  it.each(PLACES.filter((p) => !p.includes('figure')))('%s is tapped within 44 px', async (path) => {
    await browser.go(path);
    await browser.see(By.css('main h1, main h2'));
    await browser.still();
    expect(await browser.driver.executeScript(SMALL_TARGETS)).toEqual([]);
  });

  it('takes a delivery in with the thumb, as the storekeeper', async () => {
    await browser.stepInAs('Joss Fenn');
    await (await browser.see(By.xpath("//nav[contains(@class, 'fixed')]//a[contains(., 'Dock')]"))).click();
    await (await browser.link('K26-0022')).click();
    await browser.reads('Marine plywood 18 mm');
    await (await browser.button('All 10')).click();
    await (await browser.button('Receive')).click();
    await browser.reads('Received');
    expect(await axe(browser)).toEqual([]);
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
