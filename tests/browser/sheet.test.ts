import { By, Key } from 'selenium-webdriver';
import { App } from '../support/app';
import { axe } from './axe';
import { Browser, DESK, PHONE } from './driver';

let app: App;
let browser: Browser;
beforeAll(async () => {
  app = await App.start();
  await app.withoutLadder();
  browser = await Browser.open(app.base);
  await browser.stepInAs('Mina Rowe');
});
afterAll(async () => {
  await browser.close();
  await app.stop();
});

const cells = (row: string) => browser.texts(`[role="row"][aria-label="${row}"] [role="gridcell"]`);
const first = async (row: string, column: string) => {
  const cell = await browser.cell(row, column);
  return (await cell.getText()).split('\n')[0];
};
const focused = () =>
  browser.driver.executeScript<string>(
    `const a = document.activeElement.closest('[data-col]');
     return a === null ? '' : a.closest('[data-row]').getAttribute('aria-label') + ': ' + a.dataset.col`,
  );
/** Puts rows on the clipboard of the page and pastes them into the cell that has the focus. */
const paste = (text: string) =>
  browser.driver.executeScript(
    `const data = new DataTransfer();
     data.setData('text/plain', arguments[0]);
     document.activeElement.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }))`,
    text,
  );
const save = ({ driver }: Browser) =>
  driver.actions().keyDown(Key.CONTROL).sendKeys(Key.ENTER).keyUp(Key.CONTROL).perform();
const ctrl = (key: string) => browser.driver.actions().keyDown(Key.CONTROL).sendKeys(key).keyUp(Key.CONTROL).perform();
const mark = async (row: string, column: string) => {
  await (await browser.cell(row, column)).click();
  // An open list is closed first.
  await browser.keys(Key.ESCAPE, Key.ESCAPE);
};

describe('an order, changed where it stands', () => {
  it('changes a quantity by two keys and the number, and says at once what that does', async () => {
    await browser.go('/orders/K26-0023');
    await browser.reads('Total incl. tax');
    await mark('Line 1', 'Quantity');
    expect(await focused()).toBe('Line 1: quantity');
    await browser.keys('4', Key.ENTER);
    await browser.reads('386.00');
    await browser.reads('412 Electrical goes');
    await browser.reads('1 unsaved change · kept on this device');
    expect(await focused()).toBe('Line 2: quantity');
    // Three more lights of 96.50 on top of the 16.20 that it was over with this order.
    await browser.reads('412 Electrical goes £\u202f305.70 over');
  });

  it('goes about by Tab, Enter and arrows, and copies from above by a ditto mark', async () => {
    await browser.keys(Key.TAB, Key.TAB);
    expect(await focused()).toBe('Line 2: price');
    await browser.keys('140', Key.TAB);
    expect(await focused()).toBe('Line 2: job');
    await browser.keys(Key.ARROW_DOWN, Key.ARROW_LEFT);
    expect(await focused()).toBe('Line 3: price');
    await browser.keys('"');
    expect(await first('Line 3', 'Price')).toBe('140');
    await ctrl('z');
    expect(await first('Line 3', 'Price')).toBe('18.40');
  });

  it('follows the supplier’s price breaks, and says where a price came from', async () => {
    expect((await cells('Line 3'))[3]).toContain('list price');
    expect((await cells('Line 2'))[3]).toContain('list 142.00');
    expect((await cells('Line 2'))[3]).toContain('paid 142.00 in Apr');
  });

  it('moves a line by Alt and an arrow, and by dragging it at its number', async () => {
    const lines = async () => Promise.all([1, 2, 3].map((n) => first(`Line ${n}`, 'Item')));
    const [light, side, breaker] = await lines();
    await mark('Line 1', 'Quantity');
    await browser.driver.actions().keyDown(Key.ALT).sendKeys(Key.ARROW_DOWN).keyUp(Key.ALT).perform();
    expect(await lines()).toEqual([side, light, breaker]);
    expect(await focused()).toBe('Line 2: quantity');
    await ctrl('z');
    const number = (n: number) => browser.see(By.css(`[role="row"][aria-label="Line ${n}"] [role="rowheader"]`));
    const [from, to] = [await number(3), await number(1)];
    const mouse = browser.driver.actions();
    await mouse
      .move({ origin: from })
      .press()
      .move({ origin: from, y: -12 })
      .move({ origin: to, duration: 300 })
      .perform();
    await browser.still();
    await mouse.clear();
    await browser.driver.actions().release().perform();
    await browser.driver.wait(async () => (await lines())[0] === breaker, 10_000);
    await browser.reads('unsaved changes');
    await mark('Line 1', 'Quantity');
    await ctrl('z');
    expect(await lines()).toEqual([light, side, breaker]);
  });

  it('keeps what is typed when the page is left, and puts it back only when that is said', async () => {
    await browser.go('/');
    await browser.go('/orders/K26-0023');
    await browser.reads('2 unsaved changes');
    expect(await first('Line 1', 'Quantity')).toBe('4');
    await (await browser.button('Discard changes')).click();
    await browser.driver.wait(async () => (await first('Line 1', 'Quantity')) === '1', 30_000);
    await (await browser.button('Undo')).click();
    await browser.reads('2 unsaved changes');
  });

  it('shares a line among jobs, and says how much of it is shared out', async () => {
    await mark('Line 3', 'Quantity');
    await browser.keys('16', Key.ENTER, Key.ARROW_UP, '+');
    await browser.reads('16 of 16 allocated');
    expect(await focused()).toBe('Line 3, split 3: job');
    await browser.keys('418', Key.TAB);
    await browser.driver.wait(async () => (await first('Line 3, split 3', 'Job')) === '418', 30_000);
    expect(await first('Line 3, split 3', 'Quantity')).toBe('2');
    await browser.reads('418 03 Electrical');
  });

  it('shows the same figures when it is saved, and the work goes on where it was', async () => {
    await ctrl(Key.ENTER);
    await browser.reads('K26-0023 saved');
    await browser.driver.wait(async () => !(await browser.text()).includes('unsaved change'), 30_000);
    expect(await focused()).toMatch(/^Line 3, split 3/);
    const text = await browser.text();
    for (const figure of ['386.00', '140', '294.40', '412 Electrical goes']) expect(text).toContain(figure);
    await browser.go('/orders/K26-0023');
    expect(await first('Line 1', 'Quantity')).toBe('4');
  });

  it('asks about what is not saved before it is sent, and sends what is seen', async () => {
    await mark('Line 1', 'Quantity');
    await browser.keys('2', Key.ENTER);
    await (await browser.button('Send…')).click();
    await browser.reads('1 unsaved change saved first · emailed as a PDF');
    await (await browser.button('Save and send')).click();
    await browser.reads('sent to');
    await browser.reads('193.00');
  });

  it('is a grid to a screen reader: rows by name, cells with their columns, one of them reached by Tab', async () => {
    await browser.go('/orders/K26-0024');
    await browser.cell('Line 1', 'Quantity');
    type Node = { role?: { value: string }; name?: { value: string }; ignored: boolean };
    const { nodes } = (await (
      browser.driver as unknown as {
        sendAndGetDevToolsCommand: (c: string, p: object) => Promise<{ nodes: Node[] }>;
      }
    ).sendAndGetDevToolsCommand('Accessibility.getFullAXTree', {})) as { nodes: Node[] };
    const of = (role: string) =>
      nodes.filter((n) => !n.ignored && n.role?.value === role).map((n) => n.name?.value ?? '');
    expect(of('grid')).toEqual(['Order lines']);
    expect(of('row')).toContain('Line 1');
    expect(of('columnheader')).toEqual([
      'Line',
      'Item',
      'Quantity',
      'Unit',
      'Price £',
      'Job',
      'Cost code',
      'Required by',
      'Net £',
      'Remove',
    ]);
    const gridcells = of('gridcell').length;
    expect(gridcells % 9).toBe(0);
    const reached = await browser.driver.findElements(By.css('[role="grid"] [tabindex="0"]'));
    expect(reached).toHaveLength(1);
    expect(await axe(browser)).toEqual([]);
  });

  it('is filled in on a phone as well', async () => {
    await browser.resize(PHONE);
    await browser.go('/orders/K26-0024');
    await browser.fill('Line 1', 'Quantity', '3');
    await browser.reads('1 unsaved change');
    const wide = await browser.driver.executeScript<number>('return document.documentElement.scrollWidth');
    expect(wide).toBeLessThanOrEqual(PHONE.width);
    await (await browser.button('Discard changes')).click();
    await browser.resize(DESK);
  });
});

describe('two people in one order', () => {
  it('each keeps what was typed, and chooses where they differ', async () => {
    const second = await Browser.open(app.base);
    try {
      await second.stepInAs('Tomas Brae');
      for (const b of [browser, second]) {
        await b.go('/orders/K26-0024');
        await b.cell('Line 1', 'Quantity');
      }
      await browser.fill('Line 1', 'Quantity', '5');
      await second.fill('Line 1', 'Quantity', '7');
      await second.fill('Line 1', 'Price', '9.90');
      await (await browser.button('Save')).click();
      await browser.reads('K26-0024 saved');
      await (await second.button('Save')).click();
      await second.reads('after you opened it');
      await (await second.button('Save my choices')).click();
      await second.reads('K26-0024 saved');
      const cell = await second.cell('Line 1', 'Quantity');
      expect(await cell.getText()).toBe('7');
      await second.fill('Line 1', 'Quantity', '1');
      await second.fill('Line 1', 'Price', '428');
      await (await second.button('Save')).click();
      await second.driver.wait(async () => !(await second.text()).includes('unsaved change'), 30_000);
    } finally {
      await second.close();
    }
  });
});

describe('two people on one job', () => {
  it('choose between their versions of its quote, and nothing of either is lost', async () => {
    await browser.go('/jobs/new');
    await browser.type('Number', '451');
    await browser.type('Name', 'Slipway winch, new brake');
    await browser.type('Customer', 'Harrow Sound Pilots');
    await (await browser.button('Create job')).click();
    await browser.reads('No lines yet');
    await browser.fill('Line 1', 'Item', 'Brake band');
    await browser.fill('Line 1', 'Quantity', '2');
    await browser.fill('Line 1', 'Cost £', '40');
    await browser.fill('Line 1', 'Cost code', '02');
    await browser.driver.wait(async () => (await first('Line 1', 'Cost code'))?.startsWith('02') ?? false, 20_000);
    await save(browser);
    await browser.reads('Quote Q-451 saved');
    const second = await Browser.open(app.base);
    try {
      await second.stepInAs('Tomas Brae');
      await second.go('/jobs/451/quote');
      await second.fill('Line 1', 'Quantity', '3');
      await browser.fill('Line 1', 'Cost £', '44');
      await browser.fill('Line 2', 'Item', 'Brake lining');
      await browser.fill('Line 2', 'Cost £', '12');
      await save(browser);
      await browser.driver.wait(async () => !(await browser.text()).includes('unsaved change'), 20_000);
      await save(second);
      await second.reads('Choose for each difference');
      await second.reads('2 Brake band, at 44');
      await second.reads('3 Brake band, at 40');
      // The line that the first added stays, though the second has not seen it.
      await second.reads('1 Brake lining, at 12');
      await (await second.button('Save my choices')).click();
      await second.driver.wait(async () => !(await second.text()).includes('unsaved change'), 20_000);
      await second.reads('cost £\u202f132.00');
    } finally {
      await second.close();
    }
  });

  it('choose between their versions of a line to buy', async () => {
    const second = await Browser.open(app.base);
    try {
      await second.stepInAs('Tomas Brae');
      for (const b of [browser, second]) {
        await b.go('/jobs/412/buy-list');
        await b.reads('to buy');
        await b.pressUntil('f', By.css('.entry-sheet'));
      }
      await browser.fill('Line 1', 'Cost £', '91');
      await second.fill('Line 1', 'Cost £', '92');
      await save(browser);
      await browser.reads('1 line changed');
      await save(second);
      await second.reads('Choose for each difference');
      await second.reads('at 91');
      await second.reads('at 92');
      await (await second.button('Save my choices')).click();
      await second.reads('1 line changed');
      await second.driver.wait(async () => !(await second.text()).includes('unsaved change'), 20_000);
      expect((await (await second.cell('Line 1', 'Cost £')).getText()).split('\n')[0]).toBe('92.00');
    } finally {
      await second.close();
    }
  });
});

describe('rows of a spreadsheet', () => {
  it('says by name what a pasted row has that is not known, and takes 500 rows', async () => {
    await browser.go('/orders/K26-0024');
    await mark('Line 3', 'Item');
    const rows = Array.from({ length: 500 }, (_, k) => `Shim ${k + 1}\t${k + 1}\t418\t02\t1.50`);
    await paste(`Description\tQty\tJob\tCode\tPrice\n${rows.join('\n')}\nWedge\t1\t418\t77\t2`);
    await browser.reads('“77” isn’t in the list. Choose one, or add it.');
    await browser.reads('501 unsaved changes');
    expect(await first('Line 502', 'Item')).toBe('Shim 500');
    // 1 + … + 500 pieces at 1.50, one wedge, and what stood there.
    const net = (500 * 501 * 1.5) / 2 + 2 + 442;
    await browser.reads(net.toLocaleString('en-GB', { minimumFractionDigits: 2 }));
    await browser.fill('Line 503', 'Cost code', '02');
    await browser.forgets('“77” isn’t in the list. Choose one, or add it.');
    await browser.still();
    await (await browser.button('Save')).click();
    // So many lines are drawn longer than the word of their saving stays.
    await browser.forgets('unsaved changes');
    await browser.go('/orders/K26-0024');
    await browser.reads(net.toLocaleString('en-GB', { minimumFractionDigits: 2 }));
  });
});

describe('a job from nothing', () => {
  it('is quoted on a sheet, won, and has its buy list, without any file', async () => {
    await browser.go('/jobs/new');
    await browser.type('Number', '430');
    await browser.type('Name', 'Sheet metal trial');
    await browser.type('Customer', 'Greyhaven Dredging');
    await (await browser.button('Create job')).click();
    await browser.reads('No lines yet');
    await mark('Line 1', 'Item');
    await browser.keys(
      'NL-MH-360',
      Key.TAB,
      Key.TAB,
      '2',
      Key.TAB,
      Key.TAB,
      '96.50',
      Key.TAB,
      Key.TAB,
      '120',
      Key.ENTER,
    );
    await browser.driver.wait(
      async () => (await first('Line 1', 'Item'))?.startsWith('Masthead light') ?? false,
      30_000,
    );
    expect(await focused()).toBe('Line 2: description');
    await paste('Fitting by a subcontractor\tBought\t1\t\t300\t\t400\t03\nFreight\tAllowance\t1\t\t25\t\t\t03');
    await browser.driver.wait(async () => (await first('Line 3', 'Type')) === 'Allowance', 30_000);
    await browser.reads('cost £\u202f518.00');
    await ctrl(Key.ENTER);
    await browser.reads('Quote Q-430 saved');
    await browser.driver.wait(async () => !(await browser.text()).includes('unsaved change'), 30_000);
    await ctrl(Key.ENTER);
    await browser.type('Accepted by (customer)', 'Ada');
    await ctrl(Key.ENTER);
    await browser.reads('opened, 2 lines on the buy list');
    await browser.go('/jobs/430/buy-list');
    await browser.reads('Fitting by a subcontractor');
    expect(await browser.text()).not.toContain('Freight');
  });

  it('has its buy list filled in on the same sheet', async () => {
    await browser.keys('f');
    await browser.fill('Line 1', 'Quantity', '3');
    await mark('Line 3', 'Item');
    await paste('Cable ties\t100\t\t0.05\t03\nHose clip\t10\t\t0.80\t03\tBrightsound Marine Electrics');
    await browser.reads('3 unsaved changes');
    await (await browser.button('Save')).click();
    await browser.reads('1 line changed, 2 lines added');
    await browser.go('/jobs/430/buy-list');
    await browser.reads('Hose clip');
    await browser.reads('Cable ties');
  });

  it('says which line of the sheet cannot be so', async () => {
    await browser.keys('f');
    await browser.fill('Line 1', 'Quantity', '1.5');
    await (await browser.button('Save')).click();
    await browser.reads('can’t be divided');
    const cell = await browser.cell('Line 1', 'Quantity');
    expect(await cell.getAttribute('aria-invalid')).toBe('true');
    expect(await axe(browser)).toEqual([]);
  });
});
