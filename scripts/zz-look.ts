import { By, Key } from 'selenium-webdriver';
import { Browser, PHONE, DESK } from '../tests/browser/driver';
import { App } from '../tests/support/app';
import { mkdirSync } from 'node:fs';
mkdirSync('/tmp/look',{recursive:true});
const app = await App.start();
const b = await Browser.open(app.base);
const shot = async (n: string) => { await b.driver.sleep(700); await b.shot(`/tmp/look/${n}.png`); };
const keys = async (...k: string[]) => { for (const x of k) { await b.driver.actions().sendKeys(x).perform(); await b.driver.sleep(60);} };
try {
  await b.stepInAs('Mina Rowe');
  await b.go('/jobs/412/buy-list'); await b.driver.sleep(500);
  await (await b.button('Add a line')).click(); await b.driver.sleep(900);
  await keys('t','u','b','e',' ','3','8'); await b.driver.sleep(600); await shot('pick');
  await keys(Key.ENTER); await b.driver.sleep(200); await keys(Key.TAB); await keys('3','*','1','2','+','4'); await shot('picked');
  await b.type('Needed', '+5w'); await b.driver.sleep(300); await shot('date');
  await (await b.see(By.css('[aria-label="Needed, calendar"]'))).click(); await b.driver.sleep(800); await shot('calendar');
  await keys(Key.ESCAPE); await keys(Key.ESCAPE); await b.driver.sleep(400);
  await b.go('/gather'); await b.driver.sleep(300); await shot('gather');
  await keys('/'); await b.driver.sleep(500); await shot('find-empty'); await keys('3','1','6'); await b.driver.sleep(700); await shot('find');
  console.log(await b.consoleErrors());
} finally { await b.close(); await app.stop(); }
