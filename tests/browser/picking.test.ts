import { By, Key } from 'selenium-webdriver';
import type { Driver } from 'selenium-webdriver/chrome.js';
import { App } from '../support/app';
import { Browser, DESK, PHONE } from './driver';

let app: App;
let browser: Browser;

beforeAll(async () => {
  app = await App.start();
  browser = await Browser.open(app.base, PHONE);
});
afterAll(async () => {
  const errors = await browser.consoleErrors();
  expect(errors.filter((e) => !e.includes('ERR_INTERNET_DISCONNECTED'))).toEqual([]);
  await browser.close();
  await app.stop();
});

const stepIn = async (name: string, size = DESK) => {
  await browser.resize(size);
  await browser.stepInAs(name);
};
const click = async (words: string) => (await browser.button(words)).click();
const scan = async (...codes: readonly string[]) => {
  const field = await browser.field('Barcode or number');
  for (const code of codes) await field.sendKeys(code, Key.ENTER);
};
/** Takes the network away from the page, and gives it back. */
const offline = async (away: boolean) => {
  const driver = browser.driver as Driver;
  if (away)
    await driver.setNetworkConditions({ offline: true, latency: 0, download_throughput: 0, upload_throughput: 0 });
  else await driver.deleteNetworkConditions();
};
const itemId = (number: string) => app.look(async (db) => (await db('item').where({ number }).first('id'))?.id ?? 0);
const spots = (number: string) =>
  app.look((db) =>
    db('stockSpot as s')
      .join('item as i', 'i.id', 's.itemId')
      .where({ 'i.number': number, 's.jobId': 0 })
      .sum({ n: 's.quantity' }),
  );

describe('two serial parts of a repair', () => {
  it('lie in stores, each by its number', async () => {
    await stepIn('Mina Rowe');
    await browser.go(`/stores/${await itemId('PU-BG-24')}`);
    await click('Count');
    await browser.type('Serial numbers of Bilge pump 24 V, serial, none yet', 'SN-1101\nSN-1102\nSN-1103');
    await browser.type('Total value, £', '450');
    await browser.type('Reason', 'Opening count');
    await click('Save count');
    await browser.reads('3 free');
  });

  it('are wanted by the job, reserved by the storekeeper, and stand on the picking list', async () => {
    await browser.go('/jobs/418/buy-list');
    await click('Add line');
    await browser.pick('Item or description', 'PU-BG-24');
    await browser.type('Quantity', '2');
    await click('Add line');
    await browser.reads('Bilge pump 24 V, serial');
    await stepIn('Joss Fenn', PHONE);
    await browser.go(`/stores/${await itemId('PU-BG-24')}`);
    const row = By.xpath('//tr[.//a[normalize-space(.)="418"]]//button[normalize-space(.)="Reserve"]');
    await (await browser.see(row)).click();
    await click('Reserve for 418');
    await browser.reads('2 reserved');
    await browser.go('/jobs/418/buy-list');
    await browser.reads('reserved');
  });

  it('are picked by scan, and issued in one step', async () => {
    await (await browser.link('Select')).click();
    await browser.reads('Pick for 418');
    await scan('PU-BG-24');
    await browser.reads('is tracked by serial or lot number');
    await scan('SN-1103', 'SN-1101', 'SN-1103');
    await browser.reads('SN-1103 already picked.');
    await scan('NO-SUCH');
    await browser.reads('No line on this list has this code.');
    await click('Issue');
    await browser.reads('1 line issued to 418');
    expect((await spots('PU-BG-24'))[0]?.n).toBe(10_000);
    await browser.go('/jobs/418/buy-list');
    await browser.reads('issued');
  });

  it('cost what those two pieces cost, on the tab of the job', async () => {
    const issue = await app.look((db) => db('issue').orderBy('id', 'desc').first('value'));
    expect(issue?.value).toBe(30_000);
    await stepIn('Mina Rowe');
    await browser.go('/jobs/418?figure=all.actual');
    await browser.reads('Bilge pump 24 V, serial from Wrackline yard');
    await browser.reads('300.00');
  });

  it('can be followed by their numbers', async () => {
    const lot = await app.look((db) => db('lot').where({ number: 'SN-1103' }).first('id'));
    await browser.go(`/stores/numbers/${lot?.id}`);
    await browser.reads('418');
  });
});

describe('all that lies here for a job', () => {
  it('is picked at once and issued, and the job has it', async () => {
    await stepIn('Joss Fenn', PHONE);
    await browser.go('/stores/pick');
    await (await browser.link('Fuel tank renewal')).click();
    await browser.reads('Pick for 415');
    await click('Pick all');
    await click('Issue');
    await browser.reads('issued to 415');
    await browser.go('/jobs/415/buy-list');
    await browser.reads('Material complete since');
    await browser.go('/stores/pick/415');
    await browser.reads('Nothing reserved for this job');
  });

  it('has a picking list on paper', async () => {
    const bytes = await browser.driver.executeAsyncScript<string>(
      "const done = arguments[0]; fetch('/stores/pick/412/list').then((r) => r.text()).then((t) => done(t.slice(0, 5)))",
    );
    expect(bytes).toBe('%PDF-');
  });
});

describe('a bin that is counted', () => {
  it('is counted blind, compared, and posted with its reason', async () => {
    await browser.go('/stores/count');
    await click('New count');
    await browser.choose('Bin', 'Rack 1');
    await (await browser.see(By.xpath('//label[contains(., "Blind")]'))).click();
    await click('Start');
    await browser.reads('Count of Rack 1');
    expect(await browser.text()).not.toMatch(/book \d/);
    await browser.type('Counted of Angle S275 50 × 50 × 6 in Rack 1', '10');
    await browser.keys(Key.TAB);
    await browser.reads('1 of 2 lines counted');
    // Ten a second, and half of them while the network is away: none is lost.
    await scan(...Array.from({ length: 5 }, () => 'TU-316-38'));
    await offline(true);
    await scan(...Array.from({ length: 5 }, () => 'TU-316-38'));
    await browser.reads('kept here and saved when you’re back online');
    await offline(false);
    await browser.holds('Counted of Tube 316L 38 × 2 mm in Rack 1', '10');
    await browser.reads('2 of 2 lines counted');
    await browser.driver.wait(
      async () => (await app.look((db) => db('stockCountLine').where({ counted: 100_000 as never }))).length === 2,
      15_000,
    );
    await browser.type('Counted of Tube 316L 38 × 2 mm in Rack 1', '6');
    await browser.keys(Key.TAB);
    await browser.driver.wait(
      async () => (await app.look((db) => db('stockCountLine').where({ counted: 60_000 as never }))).length === 1,
      9000,
    );
    await click('Compare with book');
    await browser.reads('1 m missing');
    await browser.reads('1 difference');
    await click('Post 1 difference');
    await browser.type('Reason', 'Offcut was not booked');
    await click('Post');
    await browser.reads('posted');
    expect((await spots('AN-50-50'))[0]?.n).toBe(100_000);
  });

  it('waits on the desk of who may post it, where it was handed on', async () => {
    await stepIn('Tomas Brae');
    await (await browser.link('A-03')).click();
    await browser.reads('2 missing');
    await click('Post 1 difference');
    await browser.type('Reason', 'Used on 412 and not booked');
    await click('Post');
    await browser.reads('Used on 412 and not booked');
    expect((await spots('GL-M20'))[0]?.n).toBe(120_000);
  });
});
