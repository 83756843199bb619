import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { By, Key } from 'selenium-webdriver';
import { Browser, PHONE } from '../tests/browser/driver';
import { App } from '../tests/support/app';

/** Fills docs/screenshots from the sample company, on a fixed day. */
const out = (name: string) => join('docs', 'screenshots', `${name}.png`);
const app = await App.own();
const browser = await Browser.open(app.base);

async function take(name: string, path: string, before: () => Promise<void> = async () => {}): Promise<void> {
  await browser.go(path);
  await browser.see(By.css('h1, h2'));
  await before();
  await browser.still();
  await browser.shot(out(name));
  console.log(out(name));
}

const pick = async (label: string) => (await browser.see(By.css(`[aria-label="${label}"]`))).click();

try {
  await browser.stepInAs('Mina Rowe');
  await take('desk', '/');
  await take('jobs', '/jobs');
  await take('job', '/jobs/412');
  await take('budget', '/jobs/422/budget');
  await take('buy-list', '/jobs/412/buy-list');
  await take('plan', '/jobs/421/plan', () => browser.reads('shortfall only 2,3'));
  await take('bom', '/items/44/bom', () => browser.reads('Made first, in this order'));
  await take('stores', '/stores');
  await take('gather', '/gather', async () => {
    await pick('Select all of Brightsound Marine Electrics');
    for (const line of ['Tube 316L 38 × 2 mm for 419', 'Tube 316L 38 × 2 mm for 421', 'Stern seal kit 60 mm for 412'])
      await pick(`Select ${line}`);
    await browser.reads('3 orders to draft');
    await browser.driver.executeScript("document.getElementById('sheet-scroll').scrollTo(0, 0)");
  });
  await take('orders', '/orders');
  await take('order', '/orders/K26-0023', async () => {
    await (await browser.cell('Line 3', 'Quantity')).click();
    await browser.keys('16', Key.ENTER, Key.ARROW_UP, '+');
    await browser.keys('418', Key.TAB);
    await browser.reads('418 03 Electrical');
    await (await browser.cell('Line 3', 'Quantity')).click();
  });
  await take('dock', '/dock/K26-0019');
  await take('invoice', '/invoices/14');
  await take('suppliers', '/suppliers');
  await take('history', '/history?about=order&id=22', async () => {
    await (await browser.see(By.xpath('//button[contains(., "Changed revision 1")]'))).click();
    await browser.reads('Seal');
  });
  await take('quote', '/jobs/425/quote');
  await take('quote-file', '/jobs/426/quote', async () => {
    const sample = join(app.folder, 'sample-quote.csv');
    const text = await (await fetch(`${app.base}/sample-quote`)).text();
    writeFileSync(sample, text.replace(',02,Pellam Bearings,', ',77,Unknown Works,'));
    await (await browser.find(By.css('input[type=file]'))).sendKeys(sample);
    await browser.reads('to check');
  });
  await browser.resize(PHONE);
  await browser.stepInAs('Joss Fenn');
  await take('dock-phone', '/dock/scan', async () => {
    const field = await browser.field('Barcode or number');
    for (const code of ['SE-OIL-70', 'SE-OIL-70', 'BE-6208', 'TI-PLY-18', '2000000000008'])
      await field.sendKeys(code, Key.ENTER);
    await browser.reads('1 unmatched');
  });
  await browser.stepInAs('Wren Hale');
  await take('sign-phone', '/sign/K26-0025');
} finally {
  await browser.close();
  await app.stop();
}
