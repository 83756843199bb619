import { Browser, DESK } from '../tests/browser/driver';
import { By } from 'selenium-webdriver';
const b = await Browser.open('http://127.0.0.1:4180', DESK);
try {
  await b.stepInAs('Mina Rowe');
  await b.go('/gather');
  await (await b.find(By.css('[aria-label="Pick all of Brightsound Marine Electrics"]'))).click();
  await (await b.find(By.css('[aria-label="Pick Tube 316L 38 × 2 mm for 419"]'))).click();
  await (await b.find(By.css('[aria-label="Pick Tube 316L 38 × 2 mm for 421"]'))).click();
  await (await b.find(By.css('[aria-label="Pick Stern seal kit 60 mm for 412"]'))).click();
  await b.reads('These make 3 orders');
  await new Promise(r=>setTimeout(r,600));
  await b.shot('/tmp/s1.png');
  await b.go('/jobs/412?figure=03.received'); await new Promise(r=>setTimeout(r,900)); await b.shot('/tmp/s2.png');
  await b.go('/jobs/426/quote'); await b.reads('no lines yet');
  await (await b.find(By.css('input[type=file]'))).sendKeys('/tmp/bad.csv');
  await b.reads('Columns of the file'.slice(0,0)); await new Promise(r=>setTimeout(r,2500)); await b.shot('/tmp/s3.png');
  await b.go('/orders/K26-0024'); await (await b.button('Change')).click(); await new Promise(r=>setTimeout(r,700)); await b.shot('/tmp/s4.png');
  console.log(await b.consoleErrors());
} finally { await b.close(); }
