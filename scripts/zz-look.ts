import { By, Key } from 'selenium-webdriver';
import { App } from '../tests/support/app';
import { Browser, DESK, PHONE } from '../tests/browser/driver';

const app = await App.start();
const browser = await Browser.open(app.base, DESK);
try {
  await browser.stepInAs('Mina Rowe');
  await browser.go(`/orders/K26-0023`);
  await (await browser.button('+ charge or discount')).click();
  await (await browser.see(By.xpath("//*[@role='menuitem'][contains(., 'Discount')]"))).click();
  await browser.keys('Trade discount', Key.TAB);
  await browser.fill('Line 4', 'Price', '5%');
  await browser.fill('Line 1', 'Price', '96.50 -12.5%');
  await browser.driver.sleep(700);
  await browser.shot('/tmp/l1.png');
  await (await browser.button('+ Attach')).click();
  await browser.driver.sleep(500);
  await browser.shot('/tmp/l2.png');
  await browser.keys(Key.ESCAPE);
  await browser.go('/orders/K26-0019');
  await (await browser.button('Their answer')).click();
  await browser.driver.sleep(400);
  await browser.shot('/tmp/l3.png');
  await browser.keys(Key.ESCAPE);
  await (await browser.button('close short')).click();
  await browser.driver.sleep(600);
  await browser.shot('/tmp/l4.png');
  await browser.go('/words');
  await browser.shot('/tmp/l5.png');
} catch (e) {
  console.log(String(e));
  await browser.shot('/tmp/look-error.png');
} finally {
  await browser.close();
  await app.stop();
}
