import { By, Key } from 'selenium-webdriver';
import { Browser, PHONE, DESK } from '../tests/browser/driver';
import { App } from '../tests/support/app';
const app = await App.start();
const b = await Browser.open(app.base, DESK);
const out = (n: string) => `/tmp/look/${n}.png`;
const take = async (n: string, path?: string) => { if (path) await b.go(path); await b.driver.sleep(1200); await b.shot(out(n)); const [w, h] = await b.driver.executeScript('return [document.documentElement.scrollWidth, innerWidth]') as number[]; if (w !== h) console.log('WIDE', n, w, h); };
try {
  await b.stepInAs('Asha Penrose');
  await take('b1', '/jobs/412/budget');
  await (await b.button('Budget change')).click(); await b.driver.sleep(800);
  await b.pick('Cost code 1', '03'); await b.type('Plus or minus 1, GBP', '350');
  await b.pick('Cost code 2', '01'); await b.type('Plus or minus 2, GBP', '-350');
  await b.type('Why', 'More lights at the customer’s wish'); await b.type('Who agreed', 'Ms Teal of the trust');
  await take('b2');
  await b.keys(Key.chord(Key.CONTROL, Key.ENTER)); await b.driver.sleep(1500); await take('b3');
  await b.resize(PHONE); await take('p-b3', '/jobs/412/budget');
  await (await b.button('Budget change')).click(); await take('p-b4');
} finally { await b.close(); await app.stop(); }
