import { By } from 'selenium-webdriver';
import { App } from '../support/app';
import { axe } from './axe';
import { beyond, Browser, PHONE } from './driver';
import { PLACES } from './views';

let app: App;
let browser: Browser;

beforeAll(async () => {
  app = await App.start();
  browser = await Browser.open(app.base);
  await browser.stepInAs('Mina Rowe');
  await browser.resize(PHONE);
});
afterAll(async () => {
  await browser.close();
  await app.stop();
});

/**
 * What is to be tapped and is not hit 21 px above and below its middle. A link among words is left out, and so are the
 * lists in the column of what the work leads to; a row that opens is hit all over. Where something is laid over the page,
 * that alone is looked at.
 */
const SMALL_TARGETS = `
  const laid = document.querySelector('[role=dialog]') ?? document;
  const shown = (e) => {
    const { width, height } = e.getBoundingClientRect();
    return width > 1 && height > 1 && getComputedStyle(e).visibility !== 'hidden' && e.closest('.sr-only, aside') === null;
  };
  const amongWords = (e) =>
    e.tagName === 'A' && [...e.parentElement.childNodes].some((n) => n.nodeType === 3 && n.textContent.trim().length > 1);
  const inRow = (e) => e.tagName === 'A' && (e.closest('tr.cursor-pointer')?.getBoundingClientRect().height ?? 0) >= 44;
  const hits = (e, h) =>
    h !== null && (e.contains(h) || h.closest('label')?.control === e);
  return [...laid.querySelectorAll('a[href], button:not(:disabled), input, select, textarea, [role=option]')]
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

/** What is laid over a page, and the button that lays it there: one of each kind. */
const LAID_OVER = [
  ['/jobs', 'Views'],
  ['/jobs/new', 'Starts, calendar'],
  ['/jobs/412/budget', 'Budget change'],
  ['/jobs/412/buy-list', 'Round bar 316 12 mm'],
  ['/jobs/421/plan', 'LADDER-24'],
  ['/history', 'Counted count C26-0001'],
  ['/orders/K26-0024', '+ Scan'],
  ['/orders/K26-0024', '+ Ordered before'],
  ['/orders/K26-0015', 'Revise'],
  ['/orders/K26-0015', 'Close short'],
  ['/orders/K26-0015', 'Charge to another job'],
  ['/orders/K26-0015', 'Record confirmation'],
  ['/dock/K26-0015', 'Return goods'],
  ['/invoices/14', 'Void'],
  ['/items/8', 'Add a supplier'],
  ['/stores/1', 'Count'],
  ['/stores/1', 'Set minimum'],
  ['/stores/1', 'Issue'],
] as const;

describe('on a phone', () => {
  it.each(PLACES.filter((p) => !p.includes('figure')))(
    '%s fits the width, and is tapped within 44 px',
    async (path) => {
      await browser.go(path);
      await browser.see(By.css('main h1, main h2'));
      await browser.still();
      const found = {
        beyond: Math.max(0, await beyond(browser)),
        small: await browser.driver.executeScript(SMALL_TARGETS),
      };
      expect(found).toEqual({ beyond: 0, small: [] });
    },
  );

  it.each(LAID_OVER)('%s: %s is tapped within 44 px', async (path, opener) => {
    await browser.go(path);
    await browser.see(By.css('main h1, main h2'));
    await browser.still();
    const button = await browser.see(
      By.xpath(`//button[@aria-label="${opener}" or starts-with(normalize-space(), "${opener}")]`),
    );
    await browser.driver.executeScript("arguments[0].scrollIntoView({ block: 'center' })", button);
    await button.click();
    await browser.see(By.css('[role=dialog]'));
    await browser.still();
    expect(await browser.driver.executeScript(SMALL_TARGETS)).toEqual([]);
    expect(await beyond(browser)).toBeLessThanOrEqual(0);
  });

  it('offers choices of 44 px', async () => {
    await browser.go('/jobs/new');
    await browser.see(By.css('main h1, main h2'));
    await browser.still();
    const field = await browser.field('Customer');
    await field.click();
    await field.sendKeys('s');
    await browser.see(By.css('[role=option]'));
    await browser.still();
    const heights = await browser.driver.executeScript<number[]>(
      "return [...document.querySelectorAll('[role=option]')].map((o) => o.getBoundingClientRect().height)",
    );
    expect(heights.length).toBeGreaterThan(1);
    expect(Math.min(...heights)).toBeGreaterThanOrEqual(44);
  });

  it('takes a delivery in with the thumb, as the storekeeper', async () => {
    await browser.stepInAs('Joss Fenn');
    await (await browser.see(By.xpath("//nav[contains(@class, 'fixed')]//a[contains(., 'Dock')]"))).click();
    await browser.see(By.xpath("//h1[contains(., 'Dock')]"));
    await (await browser.link('K26-0022')).click();
    await browser.reads('Marine plywood 18 mm');
    await (await browser.button('All 10')).click();
    await (await browser.button('Receive')).click();
    await browser.reads('Received');
    expect(await axe(browser)).toEqual([]);
  });
});
