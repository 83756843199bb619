import { By } from 'selenium-webdriver';
import { App } from '../support/app';
import { Browser } from './driver';

let app: App;
let browser: Browser;
beforeAll(async () => {
  app = await App.start();
  browser = await Browser.open(app.base);
  await browser.stepInAs('Mina Rowe');
});
afterAll(async () => {
  await browser.close();
  await app.stop();
});

describe('an order that is revised', () => {
  it('keeps the numbers of its lines when one is cancelled, which is told on screen and in the email', async () => {
    await browser.go('/orders/K26-0019');
    await (await browser.button('Revise')).click();
    await browser.type('Reason for revision (the supplier reads this)', 'The seals are here already');
    await (await browser.button('Start revision')).click();
    await (await browser.see(By.css('[aria-label="Remove line 2"]'))).click();
    await browser.cell('Line 3', 'Item');
    await browser.cell('Line 4', 'Item');
    await (await browser.button('Save')).click();
    await (await browser.button('Send revision 1')).click();
    await (await browser.button('Send now')).click();
    await browser.reads('sent to orders@pellam.example');
    await browser.reads('Cancelled: 2 Oil seal 70 × 90 × 10');
    const lines = await app.look((db) =>
      db('orderLine as l')
        .join('purchaseOrder as o', 'o.id', 'l.orderId')
        .where({ 'o.number': 'K26-0019' })
        .orderBy('l.number')
        .pluck('l.number'),
    );
    expect(lines).toEqual([1, 3]);
    const mail = await app.look(async (db) =>
      (await db('message').where({ kind: 'revision' }).orderBy('id').select('body')).at(-1),
    );
    expect(mail?.body).toContain('Line 2, Oil seal 70 × 90 × 10: cancelled');
  });
});
