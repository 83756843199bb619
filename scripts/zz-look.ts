import { Key, By } from 'selenium-webdriver';
import { Browser, DESK, PHONE } from '../tests/browser/driver';
import { App } from '../tests/support/app';
const app = await App.start();
const b = await Browser.open(app.base, DESK);
const wait = (ms: number) => new Promise((r) => setTimeout(r, ms));
try {
  await b.stepInAs('Mina Rowe');
  await b.go('/orders/K26-0024');
  await (await b.button('+ service')).click();
  await b.fill('Line 3', 'Line', 'Balancing');
  await b.fill('Line 3', 'Price', '40');
  await b.fill('Line 3', 'Job', '418');
  await b.fill('Line 3', 'Cost code', '02');
  await wait(800);
  await b.shot('/tmp/o1.png');
  await (await b.button('Save')).click();
  await wait(1500);
  await b.shot('/tmp/o2.png');
  console.log(await b.consoleErrors());
} finally {
  await b.close();
  await app.stop();
}
