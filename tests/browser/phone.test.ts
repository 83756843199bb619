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
  it.each(PLACES.filter((p) => !p.includes('figure')))('%s fits the width', async (path) => {
    await browser.go(path);
    await browser.see(By.css('main h1, main h2'));
    expect(await beyond(browser)).toBeLessThanOrEqual(0);
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
