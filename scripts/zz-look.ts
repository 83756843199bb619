import { By, Key } from 'selenium-webdriver';
import { App } from '../tests/support/app';
import { Browser, DESK, PHONE } from '../tests/browser/driver';

const app = await App.start();
const browser = await Browser.open(app.base, DESK);
const steps = process.argv[2] ?? 'all';
try {
  await browser.stepInAs('Mina Rowe');
  const orders = await app.look((db) => db('purchaseOrder').select('number', 'state'));
  console.log(orders.map((o) => `${o.number} ${o.state}`).join('; '));
  const draft = orders.find((o) => o.state === 'drafting')?.number;
  const sent = orders.find((o) => o.state === 'sent')?.number;
  if (steps === 'all' || steps === 'draft') {
    await browser.go(`/orders/${draft}`);
    await (await browser.button('+ charge or discount')).click();
    await browser.shot('/tmp/look-charge.png');
    await browser.driver.actions().sendKeys(Key.ESCAPE).perform();
    await browser.shot('/tmp/look-draft.png');
  }
  if (steps === 'all' || steps === 'sent') {
    await browser.go(`/orders/${sent}`);
    await browser.shot('/tmp/look-sent.png');
    await (await browser.button('Revise')).click();
    await browser.type('Why it is revised, as the supplier reads it', 'The job grew');
    await browser.shot('/tmp/look-revise.png');
    await (await browser.button('Begin the revision')).click();
    await browser.reads('is being written');
    await browser.shot('/tmp/look-revising.png');
  }
} catch (e) {
  console.log(String(e));
  await browser.shot('/tmp/look-error.png');
} finally {
  await browser.close();
  await app.stop();
}
