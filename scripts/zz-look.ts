import { Key, By } from 'selenium-webdriver';
import { Browser, DESK, PHONE } from '../tests/browser/driver';
import { App } from '../tests/support/app';
const app = await App.start();
const b = await Browser.open(app.base, DESK);
const wait = (ms: number) => new Promise((r) => setTimeout(r, ms));
try {
  await b.stepInAs('Mina Rowe');
  await b.go('/orders/K26-0024');
  await (await b.cell('Line 3', 'Line')).click();
  await wait(200);
  await b.keys(Key.ESCAPE, Key.ESCAPE);
  const rows = Array.from({ length: 500 }, (_, k) => `Shim ${k + 1}\t${k + 1}\t418\t02\t1.50`);
  const t = Date.now();
  await b.driver.executeScript(
    `const data = new DataTransfer();
     data.setData('text/plain', arguments[0]);
     document.activeElement.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }))`,
    `Description\tQty\tJob\tCode\tPrice\n${rows.join('\n')}\nWedge\t1\t418\t77\t2`);
  await b.reads('is not known here');
  console.log('pasted', Date.now() - t);
  const t2 = Date.now();
  await (await b.cell('Line 7', 'Quantity')).click();
  await b.keys('1');await b.keys('2');await b.keys('3');await b.keys(Key.ENTER);
  console.log('typed', Date.now() - t2);
  await b.shot('/tmp/o1.png');
  console.log(await b.consoleErrors());
} finally {
  await b.close();
  await app.stop();
}
