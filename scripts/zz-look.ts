import { By, Key } from 'selenium-webdriver';
import { Browser, PHONE } from '../tests/browser/driver';
import { App } from '../tests/support/app';
void (async () => {
  const app = await App.start();
  const b = await Browser.open(app.base);
  try {
    await b.stepInAs('Mina Rowe');
    await b.go('/gather?show=trouble&group=order');
    await b.reads('Order by');
    await b.driver.sleep(800);
    await b.shot('/tmp/l1.png');
    await b.go('/gather');
    await (await b.find(By.css('tbody tr[data-index="2"] button'))).click();
    await b.driver.sleep(1500);
    await b.shot('/tmp/l2.png');
    await b.go('/orders/K26-0023');
    await b.reads('Order total');
    const step = async (w: string) => (await b.find(By.xpath(`//button[contains(., "${w}")]`))).click();
    await step('by scanning');
    await b.driver.sleep(600);
    for (const w of ['GL-M20', 'GL-M20', '(01)0952', 'nothing']) await b.keys(w, Key.ENTER);
    await b.driver.sleep(1200);
    await b.shot('/tmp/l3.png');
    await b.keys(Key.ESCAPE);
    await step('ordered before');
    await b.driver.sleep(1200);
    await b.shot('/tmp/l4.png');
    await b.keys(Key.ESCAPE);
    await b.driver.sleep(600);
    await b.keys(Key.ARROW_DOWN);
    await b.driver.sleep(200);
    await b.keys(Key.ARROW_LEFT, Key.ENTER);
    await b.driver.sleep(1200);
    await b.shot('/tmp/l5.png');
  } finally {
    await b.close();
    await app.stop();
  }
})();
