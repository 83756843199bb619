import { rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { By, Key } from 'selenium-webdriver';
import { App } from '../support/app';
import { Browser } from './driver';

let app: App;
let browser: Browser;
beforeAll(async () => {
  app = await App.start();
  browser = await Browser.open(app.base);
  await browser.stepInAs('Mina Rowe');
});
afterAll(async () => {
  await browser.close();
  await app.stop();
});

/** The cells of a row of a table, by a word in it. */
const row = async (words: string): Promise<string[]> => {
  const found = await browser.see(By.xpath(`//tr[.//*[contains(text(), "${words}")]]`));
  return browser.driver.executeScript('return [...arguments[0].cells].map((c) => c.innerText.trim())', found);
};
const click = async (by: By) => (await browser.see(by)).click();
const press = async (words: string) => (await browser.button(words)).click();
const ctrlEnter = () => browser.driver.actions().keyDown(Key.CONTROL).sendKeys(Key.ENTER).keyUp(Key.CONTROL).perform();
const read = async (words: string, cell: number, text: string) =>
  browser.driver.wait(async () => (await row(words))[cell] === text, 20_000, `${words} does not come to ${text}`);

describe('a job’s plan', () => {
  it('shows every branch of its BOM, what stores cover, and when work can start', async () => {
    await browser.go('/jobs/421/plan');
    await browser.reads('When work can start');
    expect((await row('Tube 316L')).slice(2)).toEqual([
      'bought',
      '49.44 m',
      '6 m',
      '–',
      '43.44 m',
      'Tue 19 May',
      'Tue 12 May',
      'part received',
      '',
    ]);
    expect((await row('Bolt A4 M8'))[1]).toContain('reserved');
    expect((await row('Stringer pair'))[2]).toBe('made (421-1)');
    expect((await row('Electropolishing'))[2]).toBe('service / subcontract');
    await browser.reads('421-1 Stringer pair');
  });

  it('shows what planning in full would change before it does, and does that', async () => {
    await browser.reads('full quantity 2,381');
    await press('full quantity');
    await browser.reads('Planned total £\u202f2,381.38.');
    await press('Buy full quantity');
    await read('Tube 316L', 6, '49.44 m');
    await read('GRP ladder tread', 6, '60');
    // The bolts were reserved by a person, and stay so.
    expect((await row('Bolt A4 M8'))[6]).toBe('–');
  });

  it('reserves what is there by one key', async () => {
    await browser.reads('Reserve available stock');
    await browser.keys('r');
    await read('Tube 316L', 6, '43.44 m');
    expect((await row('GRP ladder tread'))[1]).toContain('reserved');
  });

  it('leaves a part out for a reason, and takes it in again', async () => {
    await click(By.css('[aria-label="Select Bow shackle 12 mm"]'));
    await press('Exclude…');
    await browser.type('Reason', 'the customer has some');
    await press('Exclude');
    await browser.reads('excluded: the customer has some');
    expect((await row('Bow shackle'))[6]).toBe('');
    await click(By.css('[aria-label="Select Bow shackle 12 mm"]'));
    await press('Include again');
    await read('Bow shackle', 6, '20');
  });

  it('takes on another quantity, as far as it is accepted', async () => {
    await press('LADDER-24');
    await browser.type('Quantity to make', '12');
    await browser.reads('49.44 m → 59.328 m');
    await click(By.xpath('//label[contains(., "Bow shackle")]/input'));
    await press('Apply 9 changes');
    await read('Tube 316L', 3, '59.328 m');
    expect((await row('Bow shackle'))[3]).toBe('20');
  });

  it('is the same on the tab as on the plan', async () => {
    await browser.still();
    const shelf = await browser.texts('[aria-label="Shelf"]');
    const planned = /£\u202f([\d,]+) planned/.exec(shelf[0] ?? '')?.[1] ?? 'nothing';
    await browser.go('/jobs/421');
    const glass = async () => (await browser.texts('button')).map((t) => t.replace(/\s+/g, ' '));
    await browser.driver.wait(async () => (await glass()).includes(`Planned ${planned}`), 20_000);
  });
});

describe('a bill of materials', () => {
  it('is worked out over all levels as it is typed', async () => {
    await browser.go('/items');
    await click(By.linkText('LADDER-24'));
    await (await browser.link('Bill of materials')).click();
    await browser.reads('Costed breakdown for');
    await browser.fill('Line 3', 'Quantity', '2.8');
    await browser.reads('20.72');
    await browser.type('Quantity to make', '10');
    await browser.reads('49.44 m');
  });
  it('is changed in its tree, at any level', async () => {
    await click(By.css('[aria-label="Edit Round bar 316 12 mm"]'));
    await browser.type('Quantity', '2.5');
    await ctrlEnter();
    await read('Round bar 316', 2, '25 m');
    await click(By.css('[aria-label="Add an item below Stringer pair"]'));
    await browser.pick('Item', 'SHK-12');
    await ctrlEnter();
    await browser.see(By.css('[aria-label="Edit Bow shackle 12 mm"]'));
    await click(By.css('[aria-label="Edit Bow shackle 12 mm"]'));
    await press('Remove');
    await browser.driver.wait(
      async () => !(await browser.texts('[aria-label="Edit Bow shackle 12 mm"]')).length,
      20_000,
    );
  });
  it('is refused, with its way, when it would contain itself', async () => {
    await browser.go('/items');
    await click(By.linkText('LAD-STR'));
    await (await browser.link('Bill of materials')).click();
    await browser.reads('Round bar 316');
    await (await browser.cell('Line 3', 'Item')).click();
    await browser.see(By.css('.entry-sheet input'));
    await browser.keys('LADDER-24');
    await browser.see(By.css('[role="option"]'));
    await browser.keys(Key.ENTER);
    await browser.driver.wait(async () => (await (await browser.cell('Line 3', 'Type')).getText()) === 'made', 20_000);
    await ctrlEnter();
    await browser.reads('This BOM would contain itself: LAD-STR → LADDER-24 → LAD-STR. Remove one of those lines.');
  });
});

describe('stores', () => {
  it('say what lies where, and for whom', async () => {
    await browser.go('/stores');
    expect((await row('BO-A4-830')).slice(0, 5)).toEqual(['BO-A4-830', 'Bolt A4 M8 × 30', '300', '240', '60']);
  });
  it('are counted, and say so', async () => {
    await click(By.linkText('SEAL-MS'));
    await press('Count');
    await browser.type('Counted quantity (piece)', '7');
    await browser.type('Reason', 'two dried out');
    await press('Save count');
    await browser.reads('7 in stock');
    expect((await row('two dried out')).slice(-2)).toEqual(['−2', '−17.80']);
  });
  it('issue what is put by, and the job has it', async () => {
    await browser.go('/stores');
    await click(By.linkText('BO-A4-830'));
    await click(By.xpath('//table[@aria-label="Reserved for jobs"]//button[.="Issue"]'));
    await press('Issue to 421');
    await browser.reads('Issued to jobs');
    await browser.reads('60 in stock');
    await browser.go('/jobs/421/plan');
    await browser.reads('When work can start');
    const way = await browser.see(By.xpath('//tr[contains(., "Bolt A4")]//*[@role="img"]'));
    expect(await way.getAttribute('aria-label')).toBe('240 issued, 48 to buy');
  });
  it('hide money from those who may not see it', async () => {
    const other = await Browser.open(app.base);
    await other.stepInAs('Joss Fenn');
    await other.go('/stores');
    await other.reads('BO-A4-830');
    expect(await other.text()).not.toContain('Value');
    await other.close();
  });
});

describe('stores', () => {
  const list = join(tmpdir(), `kettle-counts-${process.pid}.csv`);
  afterAll(() => rmSync(list, { force: true }));

  it('take counts and levels from a file, shown before they are taken', async () => {
    await browser.stepInAs('Mina Rowe');
    writeFileSync(list, 'Item,Counted,Value,Level\nSHK-12,16,112.00,20\nNO-1,3,,\n');
    await browser.go('/stores');
    await browser.hand(list, 'input[aria-label="Count file"]');
    await browser.reads('1 stock line changes, stock value £\u202f112.00 higher.');
    await browser.reads('0 → 16');
    await browser.reads('Row 3: Item NO-1 isn’t in your items.');
    await press('Import 1 row');
    await browser.reads('1 row imported');
    await read('SHK-12', 2, '16');
    expect(await browser.consoleErrors()).toEqual([]);
  });

  it('order what is below its minimum up to it, from whom it is bought', async () => {
    await browser.go('/stores?show=low');
    await browser.reads('Brightsound Marine Electrics');
    const box = await browser.see(By.xpath("//input[starts-with(@aria-label, 'Select Cable gland M20')]"));
    expect(await box.getAttribute('aria-label')).toBe('Select Cable gland M20, 22 to order');
    await box.click();
    await browser.reads('1 item up to minimum');
    await press('Draft 1 order');
    await browser.reads('Drafted K26-');
    await browser.reads('GL-M20');
    const [line] = await app.look((db) => db('orderLine').orderBy('id', 'desc').limit(2).where({ kind: 'goods' }));
    // It is sold by the dozen.
    expect(line?.quantity).toBe(240_000);
    expect(await browser.consoleErrors()).toEqual([]);
  });
});
