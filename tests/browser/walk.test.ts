import { By, Key } from 'selenium-webdriver';
import readXlsxFile from 'read-excel-file/node';
import { App } from '../support/app';
import { Steps } from '../support/steps';
import { Browser, TYPING } from './driver';

let app: App;
let browser: Browser;
let steps: Steps;
beforeAll(async () => {
  app = await App.start();
  await app.withoutLadder();
  browser = await Browser.open(app.base);
  await browser.stepInAs('Mina Rowe');
  steps = new Steps(browser);
});
afterAll(async () => {
  await browser.close();
  await app.stop();
});

const drafted = async (): Promise<string[]> =>
  (await browser.texts('tbody tr')).flatMap((row) => /K26-\d{4}/.exec(row)?.[0] ?? []);
const headroom = async (budget: string): Promise<string> => {
  const found = (await browser.texts('aside li')).find((t) => t.startsWith(budget)) ?? '';
  return /£\u202f[\d,.]+ (?:left|over)/.exec(found)?.[0] ?? '';
};
const opens = async (path: string) =>
  browser.driver.wait(async () => (await browser.driver.getCurrentUrl()).includes(path), 20_000);

/** What a buyer does between breakfast and noon, the mouse left alone; what the keys do is looked at on the way. */
describe('a morning by keyboard alone', () => {
  it('puts three parts on the buy list of a job that was found, in under 40 keys beside their numbers', async () => {
    await steps.pressUntil('/', TYPING);
    await steps.words('418');
    await browser.see(By.xpath("//*[@role='option'][contains(., '418')]"));
    await steps.press(Key.ENTER);
    await opens('/jobs/418');
    await browser.go('/jobs/418/buy-list');
    await browser.reads('to buy');
    await steps.pressUntil('n', TYPING);
    for (const [k, [part, quantity]] of [
      ['TU-316-38', '36'],
      ['TREAD-GRP', '4'],
      ['GL-M20', '24'],
    ].entries()) {
      await steps.words(part ?? '');
      await browser.see(By.css('[role="option"]'));
      await steps.press(Key.ENTER, Key.TAB);
      await steps.words(quantity ?? '');
      await steps.act();
      await browser.reads(`${k + 1} line${k === 0 ? '' : 's'} added`);
    }
    await steps.press(Key.ESCAPE);
    expect(steps.keys).toBeLessThan(40);
    expect(steps.clicks).toBe(0);
  });

  it('picks two of them, of two cost codes, and drafts their order', async () => {
    await browser.go('/gather?job=418&supplier=1');
    await browser.reads('GRP ladder tread 400');
    const rows = await browser.texts('tbody tr:not(.group-row)');
    await steps.pressUntil(Key.ARROW_DOWN, By.css('[data-at="true"]'));
    for (const row of rows) {
      if (/TU-316-38|TREAD-GRP/.test(row)) await steps.press(' ');
      await steps.press(Key.ARROW_DOWN);
    }
    await browser.reads('2 lines selected');
    await browser.reads('1 order to draft');
    await steps.press('b');
    await browser.reads('Drafted K26-');
    await browser.reads('Total incl. tax');
  });

  it('changes a quantity and a price, and sees two budgets move before anything is saved', async () => {
    const [hull, deck] = [await headroom('418 01'), await headroom('418 04')];
    expect([hull, deck].every((words) => words.startsWith('£'))).toBe(true);
    await steps.pressUntil(Key.ARROW_DOWN, By.css('[role="gridcell"]:focus, [role="rowheader"]:focus'));
    await steps.press(Key.ARROW_RIGHT);
    await steps.words('42');
    await steps.press(Key.ENTER, Key.ARROW_RIGHT, Key.ARROW_RIGHT);
    await steps.words('15');
    await steps.press(Key.ENTER);
    await browser.driver.wait(
      async () => (await headroom('418 01')) !== hull && (await headroom('418 04')) !== deck,
      20_000,
      'not both budgets move',
    );
    await browser.reads('unsaved change');
    await steps.act();
    await browser.forgets('unsaved change');
  });

  it('shares a line over two jobs, both of which it shows', async () => {
    await browser.driver.navigate().refresh();
    await browser.reads('Total incl. tax');
    await steps.pressUntil(Key.ARROW_DOWN, By.css('[role="gridcell"]:focus, [role="rowheader"]:focus'));
    await steps.press(Key.ARROW_RIGHT, '+');
    await steps.words('412');
    await steps.chord(Key.SHIFT, Key.TAB);
    await steps.words('12');
    await steps.press(Key.ARROW_UP);
    await steps.words('30');
    await steps.press(Key.ENTER);
    await browser.reads('42 of 42');
    await browser.driver.wait(async () => (await headroom('412 01')) !== '', 20_000, 'the other job is not shown');
    await steps.act();
    await browser.forgets('unsaved change');
  });

  it('sends it with one confirmation', async () => {
    await browser.driver.wait(async () => !(await browser.text()).includes('unsaved change'), 20_000);
    await steps.act();
    await browser.reads('emailed as a PDF to');
    await steps.act();
    await browser.reads('sent to');
    expect(steps.clicks).toBe(0);
  });

  it('picks five orders in the list and sends them in one step', async () => {
    await browser.go('/gather');
    await browser.reads('lines to buy');
    await steps.pressUntil(Key.ARROW_DOWN, By.css('[data-at="true"]'));
    for (let k = 0; k < 30; k += 1) await browser.keys(' ', Key.ARROW_DOWN);
    await browser.driver.wait(async () => /[4-9] orders to draft/.test(await browser.text()), 20_000);
    await steps.press('b');
    await opens('/orders?show=unsent');
    await browser.reads('not sent yet');
    const before = await drafted();
    expect(before.length).toBeGreaterThanOrEqual(5);
    await steps.pressUntil(Key.ARROW_DOWN, By.css('[data-at="true"]'));
    for (let k = 0; k < 5; k += 1) await steps.press(' ', Key.ARROW_DOWN);
    await browser.reads('5 orders selected');
    await steps.act();
    await browser.reads('Each is emailed to its supplier as a PDF');
    await steps.act();
    await browser.reads('5 orders sent');
    await browser.driver.wait(async () => (await drafted()).length === before.length - 5, 20_000);
  });

  it('opens the list in a spreadsheet, whose sum is that of the foot', async () => {
    await browser.go('/orders?show=all');
    await browser.reads('in total');
    const foot = (await browser.texts('tfoot td')).join(' ');
    const href = await (await browser.link('XLSX')).getAttribute('href');
    const cookie = `kettle=${(await browser.driver.manage().getCookie('kettle'))?.value ?? ''}`;
    const file = Buffer.from(await (await fetch(href ?? '', { headers: { cookie } })).arrayBuffer());
    const read = await readXlsxFile(file);
    const [head = [], ...rows] = ((read as unknown as { data: unknown[][] }[])[0]?.data ?? read) as unknown[][];
    const [net, currency] = [head.indexOf('Net'), head.indexOf('Currency')];
    const sums = new Map<unknown, number>();
    for (const r of rows) sums.set(r[currency], (sums.get(r[currency]) ?? 0) + Math.round(Number(r[net]) * 100));
    const told = (pence: number) => (pence / 100).toLocaleString('en-GB', { minimumFractionDigits: 2 });
    expect(sums.size).toBeGreaterThan(0);
    for (const sum of sums.values()) expect(foot).toContain(told(sum));
    expect(foot).toContain(`${rows.length} in total`);
    expect(await browser.consoleErrors()).toEqual([]);
  });
});
