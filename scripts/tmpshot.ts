import { By } from 'selenium-webdriver';
import { Browser, PHONE } from '../tests/browser/driver';
import { App } from '../tests/support/app';
const app = await App.own();
const browser = await Browser.open(app.base);
try {
  const who = process.argv[2] ?? 'Mina Rowe';
  await browser.stepInAs(who);
  await browser.resize(PHONE);
  for (const [k, arg] of process.argv.slice(3).entries()) {
    const [path, scroll = '0'] = arg.split('@');
    await browser.go(path as string);
    await browser.see(By.css('h1, h2'));
    await browser.still();
    if (scroll !== '0') {
      await browser.driver.executeScript(`document.getElementById('sheet-scroll').scrollTo(0, ${scroll})`);
      await browser.still();
    }
    await browser.shot(`/tmp/ph/${String(k).padStart(2, '0')}.png`);
  }
} finally {
  await browser.close();
  await app.stop();
}
