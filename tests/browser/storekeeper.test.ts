import { By, Key } from 'selenium-webdriver';
import { ONE } from '@/core/quantity/quantity';
import type { App } from '../support/app';
import { newestLine, pumpsOrdered } from '../support/pumps';
import { Browser, PHONE } from './driver';

let app: App;
let browser: Browser;

beforeAll(async () => {
  app = await pumpsOrdered();
  browser = await Browser.open(app.base, PHONE);
  await browser.stepInAs('Joss Fenn');
});
afterAll(async () => {
  expect(await browser.consoleErrors()).toEqual([]);
  await browser.close();
  await app.stop();
});

const scan = async (...codes: readonly string[]) => {
  const field = await browser.field('Barcode or number');
  for (const code of codes) await field.sendKeys(code, Key.ENTER);
};
const times = (n: number, code: string) => Array.from({ length: n }, () => code);
const row = (what: string) => `//ul[@aria-label="Tally"]/li[contains(., "${what}")]`;
const notRight = async (what: string) => {
  const button = await browser.see(By.xpath(`${row(what)}//button[contains(., "Report a problem")]`));
  // The shelf may lie over it.
  await browser.driver.executeScript('arguments[0].scrollIntoView({ block: "center" })', button);
  await button.click();
};
/** Nothing runs out of the phone to the right. */
const fits = async () =>
  expect(await browser.driver.executeScript('return document.documentElement.scrollWidth <= innerWidth')).toBe(true);
const line = (number: string) => newestLine(app, number);

describe('a mixed delivery of three orders, on a phone', () => {
  it('is scanned, with one that is broken, one that goes by its number, and the rest of one still to come', async () => {
    await browser.go('/dock/scan');
    await (await browser.button('Delivery note no.')).click();
    await browser.type('Delivery note no.', 'DN 4471');
    await scan(...times(14, 'BR-DP-16'), ...times(3, 'BE-6208'), ...times(5, 'SE-OIL-70'), 'PU-BG-24');
    await new Promise((r) => setTimeout(r, 6000));
    await browser.reads('23 scanned, 3 orders');
    await browser.reads('needs a serial number: scan it next.');
    await scan('SN-2041');
    await browser.reads('SN-2041');
    await notRight('Ball bearing');
    await browser.type('Rejected (piece)', '1');
    await browser.choose('Reason for rejection', 'Damaged on the way');
    await fits();
    await notRight('Oil seal');
    const rest = `${row('Oil seal')}//select/option[contains(., "Back-ordered")]`;
    await (await browser.see(By.xpath(rest))).click();
    await browser.type('New delivery date', '2026-05-29');
    await fits();
  });

  it('says of a quantity that cannot be read what is wrong, and is all there after the page was left', async () => {
    const rejected = () => browser.see(By.xpath(`${row('Ball bearing')}//input`));
    await (await rejected()).sendKeys('x');
    await browser.reads('“1x” isn’t a number.');
    await browser.go('/dock');
    await browser.go('/dock/scan');
    await browser.reads('“1x” isn’t a number.');
    await (await rejected()).sendKeys(Key.BACK_SPACE);
  });

  it('is taken in by one step: what is good is in, what is broken waits to go back, and what is to come has its day', async () => {
    await (await browser.button('Receive')).click();
    await browser.reads('Nothing scanned yet');
    const notes = await app.look((db) => db('receipt').orderBy('id', 'desc').limit(3).select('note'));
    expect(notes.map((n) => n.note)).toEqual(['DN 4471', 'DN 4471', 'DN 4471']);
    expect(await line('BE-6208')).toMatchObject({ received: 2 * ONE, rejected: ONE });
    expect(await line('SE-OIL-70')).toMatchObject({ received: 5 * ONE, promisedOn: '2026-05-29' });
    expect(await line('PU-BG-24')).toMatchObject({ received: ONE });
    const spot = await app.look((db) =>
      db('stockSpot as s').join('lot as l', 'l.id', 's.lotId').where({ 'l.number': 'SN-2041' }).first('s.quantity'),
    );
    expect(spot?.quantity).toBe(ONE);
  });

  it('goes to one order alone while that is in hand', async () => {
    await browser.go('/dock/K26-0019');
    await (await browser.link('Scan')).click();
    await browser.reads('Only for K26-0019.');
    await scan('SE-OIL-70', 'TI-PLY-18');
    await browser.reads('1 scanned, 1 order');
    await browser.reads('Marine plywood 18 mm is due on a different order.');
    await (await browser.link('Any order')).click();
    await browser.reads('Goes to the oldest order it is due on.');
    await fits();
  });

  it('completes the material of a job, whose lead is told that work can start', async () => {
    await browser.go('/jobs/423/buy-list');
    await browser.reads('Material complete since');
    const lead = await app.look((db) =>
      db('job as j').join('person as p', 'p.id', 'j.leadId').where({ 'j.number': '423' }).first({ name: 'p.name' }),
    );
    await browser.stepInAs(String((lead as { name?: string } | undefined)?.name));
    await browser.reads('Navigation lights rewire');
    await fits();
  });
});
