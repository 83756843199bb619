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

const click = async (by: By) => (await browser.see(by)).click();

describe('the tab rail', () => {
  const tabs = () => browser.texts('nav[aria-label="Open jobs"] a .mono');

  it('keeps the jobs that a person has open', async () => {
    await browser.go('/');
    expect(await tabs()).toEqual(['412', '418', '421']);
  });

  it('takes a job on and lets it go again', async () => {
    await browser.go('/jobs/415');
    await (await browser.button('Pin to rail')).click();
    await browser.reads('Remove from rail');
    expect(await tabs()).toEqual(['412', '418', '421', '415']);
    await (await browser.button('Remove from rail')).click();
    await browser.reads('Pin to rail');
    expect(await tabs()).toEqual(['412', '418', '421']);
  });

  it('is put in another order with the keyboard', async () => {
    await browser.go('/');
    const tab = await browser.find(By.css('nav[aria-label="Open jobs"] a[href="/jobs/412"]'));
    await tab.sendKeys(Key.chord(Key.CONTROL, Key.ARROW_RIGHT));
    await browser.driver.wait(async () => (await tabs()).join() === '418,412,421', 30_000);
    await browser.go('/jobs');
    expect(await tabs()).toEqual(['418', '412', '421']);
  });

  it('belongs to the person', async () => {
    await browser.stepInAs('Tomas Brae');
    expect(await tabs()).toEqual(['412', '418']);
    await browser.stepInAs('Mina Rowe');
  });
});

describe('lists', () => {
  const column = (n: number) => browser.texts(`table[aria-label="Jobs"] tbody tr td:nth-child(${n})`);

  it('sort by a column, up, down and back', async () => {
    await browser.go('/jobs');
    const numbers = async () => (await column(7)).map((t) => Number(t.replaceAll(',', '')));
    const sorted = async (way: string) => {
      await (await browser.button('Budget')).click();
      await browser.see(By.css(way === '' ? 'thead:not(:has([aria-sort]))' : `th[aria-sort="${way}"]`));
    };
    const up = (await numbers()).sort((a, b) => a - b);
    const shows = (expected: readonly number[]) =>
      browser.driver.wait(async () => String(await numbers()) === String(expected), 20_000);
    await sorted('ascending');
    await shows(up);
    await sorted('descending');
    await shows([...up].reverse());
    await sorted('');
    await browser.becomes(() => column(1), ['412', '415', '418', '419', '421', '422', '423']);
  });

  it('go on where the first part ends, on every page of a job too', async () => {
    await browser.go('/jobs/412/orders');
    await browser.reads('orders in total');
    await browser.reads('to buy');
    await browser.go('/jobs/412/history');
    await browser.reads('Quote Q-412 won');
    await (await browser.link('Gather for 412')).click();
    await browser.reads('12 lines to buy');
    await browser.go('/jobs');
  });

  it('keep their filters in the address', async () => {
    await browser.choose('Status', 'All jobs');
    await browser.reads('Deckhouse windows');
    expect(await browser.driver.getCurrentUrl()).toContain('state=all');
    await browser.type('Job or customer', 'ferries');
    await browser.driver.wait(async () => (await column(1)).join() === '420,422,425', 30_000);
    await browser.driver.navigate().refresh();
    await browser.reads('Wheelhouse heating');
    expect(await column(1)).toEqual(['420', '422', '425']);
  });

  it('stand in groups, each with what its lines come to', async () => {
    await browser.go('/gather');
    await browser.reads('lines to buy');
    const rows = await browser.texts('tbody tr');
    const sums: { told: number; added: number }[] = [];
    for (const row of rows) {
      const last = Number(row.split(/\s/).at(-1)?.replaceAll(',', '').replace('–', '0'));
      if (/working day|choose one before/.test(row)) sums.push({ told: last, added: 0 });
      else (sums.at(-1) as { added: number }).added += last;
    }
    expect(sums.length).toBeGreaterThan(3);
    for (const { told, added } of sums) expect(added).toBeCloseTo(told, 2);
  });

  it('keep what is picked in Gather through a filter', async () => {
    await browser.go('/gather');
    await click(By.css('[aria-label="Select Iroko, planed for 412"]'));
    await browser.pick('Supplier', 'eelmoor');
    await browser.reads('Tube 316L');
    await click(By.css('[aria-label="Select Round bar 316 12 mm for 422"]'));
    await browser.reads('2 lines selected');
    await browser.reads('2 orders to draft');
    await (await browser.button('Clear selection')).click();
    await browser.reads('Select lines to see');
  });
});

describe('the buy list', () => {
  it('takes a line by hand, which is planned on the tab at once', async () => {
    await browser.go('/jobs/415/buy-list');
    await (await browser.button('Add line')).click();
    await browser.type('Item or description', 'Sight gauge for the tank');
    await browser.type('Quantity', '2');
    await browser.type('Estimated price, £ per piece', '34.50');
    await browser.pick('Cost code', '02');
    await (await browser.button('Add line')).click();
    await browser.reads('Sight gauge for the tank');
    await browser.go('/jobs/415?figure=02.planned');
    await browser.reads('Added to the buy list');
    await browser.reads('£\u202f69.00');
  });

  it('changes a line in its slip, and says what cannot be', async () => {
    await browser.go('/jobs/415/buy-list');
    await (await browser.button('Sight gauge for the tank')).click();
    await browser.type('Quantity', '1.5');
    await (await browser.button('Save line')).click();
    await browser.reads('a piece can’t be divided');
    await browser.type('Quantity', '3');
    await (await browser.button('Save line')).click();
    await browser.reads('Line changed');
  });

  it('chooses a supplier for a line in Gather that has none', async () => {
    await browser.go('/gather?supplier=0');
    await browser.pick('Supplier for Sight gauge for the tank', 'cobb');
    await browser.driver.wait(async () => !(await browser.text()).includes('Sight gauge'), 30_000, 'it still has none');
    await browser.go('/gather?job=415');
    await click(By.css('[aria-label="Select Sight gauge for the tank for 415"]'));
    await browser.reads('1 order to draft');
    await (await browser.button('Clear selection')).click();
  });
});

describe('an order', () => {
  it('is held open and taken up again', async () => {
    await browser.go('/orders/K26-0024');
    await (await browser.button('Hold open')).click();
    await browser.reads('Held open');
    await (await browser.button('Resume drafting')).click();
    await browser.button('Hold open');
  });

  it('that is held open takes lines picked later, and shows what that does before it is done', async () => {
    await browser.go('/orders/K26-0023');
    await (await browser.button('Hold open')).click();
    await browser.reads('Held open');
    await browser.go('/gather?job=418');
    await click(By.css('[aria-label="Select Cable gland M20 for 418"]'));
    await browser.reads('Added to 1 draft');
    const goes = await browser.field('Where the lines for Brightsound Marine Electrics go');
    expect(await goes.getAttribute('value')).not.toBe('0');
    await browser.choose('Where the lines for Brightsound Marine Electrics go', 'New order');
    await browser.reads('1 order to draft');
    await browser.choose('Where the lines for Brightsound Marine Electrics go', 'Add to K26-0023 (held open)');
    await (await browser.button('Add to 1 draft')).click();
    await browser.reads('Added to K26-0023');
    await browser.reads('Effect on job budgets');
    expect(await browser.driver.getCurrentUrl()).toContain('/orders/K26-0023');
    await browser.see(By.xpath('//h2/following-sibling::ul//a//*[contains(@class, "mono") and contains(., "418")]'));
    await browser.reads('Added 1 line to draft order K26-0023: £ 496.10 to £ 539.30 net');
    await browser.go('/orders/K26-0024');
  });

  it('gets a service and a charge, shared by two jobs', async () => {
    await (await browser.button('+ Service')).click();
    await browser.fill('Line 3', 'Item', 'Balancing');
    await browser.fill('Line 3', 'Price', '40');
    await browser.fill('Line 3', 'Job', '418');
    await browser.fill('Line 3', 'Cost code', '02');
    await (await browser.button('Save')).click();
    await browser.reads('K26-0024 saved');
    await browser.reads('Balancing');
    await browser.reads('482.00');
  });

  it('is cancelled with a reason, and its need is open again', async () => {
    await (await browser.button('Cancel order')).click();
    await browser.type('Reason', 'bought elsewhere');
    await (await browser.see(By.xpath("//*[@role='dialog']//button[normalize-space(.)='Cancel order']"))).click();
    await browser.reads('Order K26-0024 cancelled');
    await browser.reads('Cancelled order K26-0024: bought elsewhere');
    await browser.go('/gather?job=418');
    await browser.reads('Flexible shaft coupling 4 in');
  });

  it('has a line closed short, and what is left goes back to the buy list', async () => {
    await browser.go('/orders/K26-0015');
    await (await browser.button('Close short')).click();
    await browser.type('Reason', 'reel will not come');
    await (await browser.see(By.xpath("//*[@role='dialog']//button[normalize-space(.)='Close short']"))).click();
    await browser.reads('Tinned cable 2 × 2.5 mm² closed short');
    await browser.go('/jobs/412/buy-list');
    await browser.reads('90 m');
  });

  it('shows its paper as a PDF', async () => {
    const cookie = (await browser.driver.manage().getCookie('kettle'))?.value ?? '';
    const sent = await app.look((db) => db('document').where({ role: 'paper' }).orderBy('id').first('id'));
    for (const path of ['/orders/K26-0023/pdf', `/documents/${sent?.id}`]) {
      const answer = await fetch(app.base + path, { headers: { cookie: `kettle=${cookie}` } });
      expect([answer.status, answer.headers.get('content-type')]).toEqual([200, 'application/pdf']);
      expect(
        Buffer.from(await answer.arrayBuffer())
          .subarray(0, 5)
          .toString(),
      ).toBe('%PDF-');
    }
  });
});

describe('a receipt', () => {
  it('made by mistake is taken back', async () => {
    await browser.go('/dock/K26-0009');
    await (await browser.button('Reverse')).click();
    await (await browser.button('Reverse R-00009')).click();
    await browser.reads('R-00009-back');
    await browser.reads('0 of 6 received');
  });
});

describe('suppliers and items', () => {
  it('a supplier is added, and faults stand beside their fields', async () => {
    await browser.go('/suppliers/new');
    await browser.type('Name', 'Teasel Fasteners');
    await browser.type('Lead time (working days)', 'soon');
    await (await browser.button('Save supplier')).click();
    await browser.reads('Enter a number of days.');
    await browser.type('Lead time (working days)', '2');
    await browser.type('Carriage £', '6.50');
    await browser.type('Minimum order £', '20');
    await (await browser.button('+ Closure')).click();
    await browser.type('From', '2031-08-11');
    await browser.type('To', '2031-08-08');
    await (await browser.button('Save supplier')).click();
    await browser.reads('The last date is before the first. Correct one of them.');
    await browser.type('To', `2031-08-22${Key.TAB}`);
    await (await browser.button('+ Contact')).click();
    await browser.type('Telephone', '01632 960 900');
    await (await browser.button('Save supplier')).click();
    await browser.reads('Enter a name.');
    await browser.type('Who', 'Fay Teasel');
    await (await browser.button('Save supplier')).click();
    await browser.reads('Teasel Fasteners saved');
    await browser.reads('Items');
  });

  it('an item is added with how it is sold', async () => {
    await browser.go('/items/new');
    await browser.type('Item number', 'BO-M8');
    await browser.type('Name', 'Bolt M8 × 40, A4');
    await browser.pick('Default supplier', 'teasel');
    await (await browser.button('Save item')).click();
    await browser.reads('BO-M8 saved');
    await browser.reads('Teasel Fasteners’s terms for Bolt M8 × 40, A4');
    await browser.type('Pack size', '100');
    await browser.type('Minimum', '250');
    await browser.reads('In packs of 100 the minimum is 300.');
    await browser.type('Price 1', '0.18');
    await (await browser.button('+ Price')).click();
    await browser.type('Price 2', '0.20');
    await (await browser.button('Save supplier terms')).click();
    await browser.reads('Price 1 has the same quantity and overlapping dates.');
    await browser.type('From quantity, price 2', '1000');
    await browser.reads('1 price is higher than for a smaller quantity: from 1,000.');
    await browser.type('Price 2', '0.15');
    await (await browser.button('Save supplier terms')).click();
    await browser.reads('Teasel Fasteners’s terms for BO-M8 saved');
    await browser.reads('from 1,000');
    await browser.go('/suppliers');
    await (await browser.link('Teasel Fasteners')).click();
    await browser.reads('Bolt M8 × 40, A4');
  });
});

describe('a price list', () => {
  const list = join(tmpdir(), `kettle-prices-${process.pid}.csv`);
  afterAll(() => rmSync(list, { force: true }));

  it('is shown with what it changes, and taken from a day on', async () => {
    writeFileSync(list, 'Article no.,Price,Lead time\n88012,4.60,\n84410,6.15,\n99999,1.00,\n88120,nothing,\n');
    await browser.go('/suppliers/1');
    await browser.hand(list, 'input[aria-label="Price list"]');
    await browser.reads('Update 1 price');
    await browser.reads('4.30 → 4.60 / m');
    await browser.reads('+7 %');
    await browser.reads('2 rows skipped');
    await browser.reads('Row 4: 99999 isn’t in your items.');
    await browser.reads('Row 5: “nothing” isn’t a price. Type it like 12.50.');
    await (await browser.button('Update 1 price')).click();
    await browser.reads('1 price updated');
    await browser.driver.wait(async () => (await browser.text()).includes('4.60\n'), 5000);
    expect(await browser.consoleErrors()).toEqual([]);
  });
});

describe('people', () => {
  it('are added by the administrator, and can sign in', async () => {
    await browser.stepInAs('Wren Hale');
    await browser.go('/people');
    await browser.type('Name', 'Kit Marl');
    await browser.type('Email', 'kit@wrackline.example');
    await browser.type('First password', 'ten letters at least');
    await click(By.xpath("//label[contains(., 'Storekeeper')]/input"));
    await (await browser.button('Add person')).click();
    await browser.reads('Kit Marl added');
    await browser.stepOut();
    await browser.go('/sign-in');
    await browser.type('Email', 'kit@wrackline.example');
    await browser.type('Password', 'wrong');
    await (await browser.button('Sign in')).click();
    await browser.reads('Wrong email or password. Try again, or ask your administrator for a new password.');
    await browser.type('Password', 'ten letters at least');
    await (await browser.button('Sign in')).click();
    await browser.reads('Hello, Kit');
  });
});
