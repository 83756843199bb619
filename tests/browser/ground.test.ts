import { By } from 'selenium-webdriver';
import { App } from '../support/app';
import { Browser, PHONE } from './driver';

let app: App;
let browser: Browser;
beforeAll(async () => {
  app = await App.start();
  browser = await Browser.open(app.base);
});
afterAll(async () => {
  await browser?.close();
  await app?.stop();
});

describe('an invoice that was typed wrong', () => {
  it('carries what was not ordered, is changed, and is taken out', async () => {
    await browser.stepInAs('Ida Quill');
    await browser.go('/invoices/new?order=K26-0019');
    await browser.type('Invoice number', 'T-600');
    await browser.type('Invoice total incl. tax, £', '99.99');
    await (await browser.button('+ Line not ordered')).click();
    await browser.type('Not on order', 'Crane fee');
    await browser.type('Net £', '45');
    await (await browser.button('Enter invoice')).click();
    await browser.reads('Crane fee: £\u202f45.00 not ordered.');
    await browser.reads('outside tolerance');
    await (await browser.button('Edit')).click();
    await browser.reads('Edit invoice T-600');
    await browser.type('Net £', '40');
    await (await browser.button('Save invoice')).click();
    await browser.reads('Crane fee: £\u202f40.00 not ordered.');
    await (await browser.button('Void')).click();
    await browser.type('Reason', 'typed on the wrong order');
    const buttons = await browser.driver.findElements(
      By.xpath("//*[@role='dialog']//button[normalize-space(.)='Void']"),
    );
    await buttons[0]?.click();
    await browser.reads('void: no effect');
  });

  it('says how a number was read that could be read in two ways', async () => {
    await browser.go('/invoices/new?order=K26-0019');
    await browser.type('Invoice total incl. tax, £', '1,250');
    await browser.reads('read as 1\u202f250, with no decimals');
  });
});

describe('exchange rates', () => {
  it('are entered on a page of their own', async () => {
    await browser.go('/rates');
    await browser.reads('current');
    await browser.stepInAs('Mina Rowe');
    await browser.go('/rates');
    await browser.type('Currency', 'NOK');
    await browser.type('GBP for one NOK', '0.0742');
    await (await browser.button('Save rate')).click();
    await browser.reads('0.0742');
  });
});

describe('a job as of a day', () => {
  it('is of that day in its gauge, its counts and its figures', async () => {
    await browser.go('/jobs/412');
    const now = await (await browser.find(By.css('main'))).getText();
    await browser.go('/jobs/412?on=2026-03-31');
    await browser.reads('As at end of');
    const then = await (await browser.find(By.css('main'))).getText();
    const counts = (text: string) => /Orders (\d+)/.exec(text)?.[1];
    expect(Number(counts(then))).toBeLessThan(Number(counts(now)));
    expect(then).not.toContain('to buy');
  });
});

describe('the company’s calendar', () => {
  it('takes public holidays in, and a day off by hand', async () => {
    await browser.stepInAs('Wren Hale');
    await browser.go('/company');
    await browser.type('Public holidays of', '2028');
    await (await browser.button('Add public holidays')).click();
    await browser.reads('25 Dec 2028');
    await browser.type('Non-working day', '14/8/2026');
    await browser.type('Reason', 'Regatta');
    await (await browser.button('Add')).click();
    await browser.reads('Regatta');
    await browser.type('Receiving time (working days)', '2');
    await (await browser.button('Save settings')).click();
    await browser.reads('settings saved');
  });

  it('fits a phone, like rates and an invoice', async () => {
    await browser.resize(PHONE);
    for (const path of ['/company', '/rates']) {
      await browser.go(path);
      await browser.see(By.css('h1'));
      const wide = await browser.driver.executeScript<number>('return document.documentElement.scrollWidth');
      expect({ path, wide }).toEqual({ path, wide: PHONE.width });
    }
  });
});

it('nothing of it was told on the console as an error', async () => expect(await browser.consoleErrors()).toEqual([]));
