import { Browser, PHONE, DESK } from '../tests/browser/driver';
import { App } from '../tests/support/app';
const [who = 'Joss Fenn', size = 'desk', ...paths] = process.argv.slice(2);
const app = await App.start();
const browser = await Browser.open(app.base);
try {
  await browser.stepInAs(who);
  await browser.resize(size === 'phone' ? PHONE : DESK);
  for (const [k, path] of paths.entries()) { await browser.go(path); await new Promise((r) => setTimeout(r, 400)); await browser.shot(`/tmp/look-${k}.png`); }
} finally { await browser.close(); await app.stop(); }
