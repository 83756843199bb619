import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { By, Key } from 'selenium-webdriver';
import { insertNeeds } from '@/store/needs';
import { postOne } from '@/store/ledger';
import { App, TODAY } from '../support/app';
import { Browser } from './driver';

let app: App;
let browser: Browser;
let folder: string;
beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'kettle-files-'));
  app = await App.start();
  browser = await Browser.open(app.base);
  await browser.stepInAs('Mina Rowe');
});
afterAll(async () => {
  await browser.close();
  await app.stop();
  rmSync(folder, { recursive: true, force: true });
});

const onOrder = (job: string) =>
  app.look(async (db) => {
    const [row] = (await db('tabSum as t')
      .join('job as j', 'j.id', 't.jobId')
      .where({ 'j.number': job, 't.stage': 'onOrder' })
      .sum({ amount: 't.amount' })) as unknown as { amount: number }[];
    return row?.amount ?? 0;
  });
const orderNow = (number: string) =>
  app.look((db) => db('purchaseOrder').where({ number }).first('id', 'state', 'revision', 'theirNumber'));
const dialog = (words: string) => browser.see(By.xpath(`//*[@role='dialog']//button[contains(., '${words}')]`));

describe('an order that was sent', () => {
  it('is revised: both stand side by side, nothing moves before it is sent, and then the difference', async () => {
    const before = await onOrder('418');
    await browser.go('/orders/K26-0019');
    await (await browser.button('Revise')).click();
    await browser.type('Reason for revision (the supplier reads this)', 'The gearbox has ten seals');
    await (await browser.button('Start revision')).click();
    await browser.reads('Revision 1 in progress');
    await browser.fill('Line 2', 'Quantity', '10');
    await browser.reads('headroom −54.31 → −73.91');
    await (await browser.button('Save')).click();
    const send = await browser.button('Send revision 1');
    expect(await onOrder('418')).toBe(before);
    await send.click();
    await (await browser.button('Send now')).click();
    await browser.reads('sent to orders@pellam.example');
    await browser.reads('revision 1');
    expect([(await orderNow('K26-0019'))?.revision, (await onOrder('418')) - before]).toEqual([1, 1997]);
    await browser.reads('First sent');
  });

  it('is chased by an email that is read first, and goes when it is asked for once more', async () => {
    const chased = () =>
      app.look(async (db) =>
        (await db('message').where({ kind: 'chase' }).select('recipient', 'state', 'body')).at(-1),
      );
    await browser.go('/orders/K26-0019');
    await (await browser.button('Chase…')).click();
    await browser.reads('orders@pellam.example');
    const body = await browser.see(By.xpath("//*[@aria-label='Email for K26-0019']"));
    const words = await body.getText();
    expect(await chased()).toBeUndefined();
    await (await dialog('Send now')).click();
    await browser.reads('orders@pellam.example chased');
    const gone = await chased();
    expect(gone).toMatchObject({ recipient: 'orders@pellam.example', state: 'taken' });
    expect(words.replace(/\s+/g, ' ')).toContain((gone?.body ?? '-').replace(/\s+/g, ' ').trim());
  });

  it('takes the supplier’s answer, and says where it differs', async () => {
    await browser.go('/orders/K26-0019');
    await (await browser.button('Record confirmation')).click();
    await browser.type('Supplier’s ref.', 'PB-4711');
    const [, second] = await browser.driver.findElements(By.xpath("//label[normalize-space(.)='Promised']/..//input"));
    await second?.sendKeys(Key.chord(Key.CONTROL, 'a'), '29 May', Key.TAB);
    await browser.reads('after the');
    await (await dialog('Save confirmation')).click();
    await browser.reads('Order K26-0019 confirmed');
    expect(await orderNow('K26-0019')).toMatchObject({ state: 'confirmed', theirNumber: 'PB-4711' });
    await browser.go('/orders?words=pb-4711');
    await browser.reads('K26-0019');
  });

  it('shows what closing a line short frees before it is done, and opens it again', async () => {
    await browser.go('/orders/K26-0019');
    await (await browser.button('Close short')).click();
    await browser.reads('419 02 Machinery');
    await browser.type('Reason', 'Sold out');
    await (await dialog('Close short')).click();
    await browser.reads('closed short at 0 of 14');
    const closed = await onOrder('419');
    await (await browser.button('Reopen line')).click();
    await browser.type('Reason', 'Found a box');
    await (await dialog('Reopen line')).click();
    await browser.reads('reopened');
    expect(await onOrder('419')).toBeGreaterThan(closed);
  });

  it('is raised again at today’s prices', async () => {
    await browser.go('/orders/K26-0019');
    await (await browser.button('Repeat order')).click();
    await browser.reads('Draft');
    await browser.reads('Oil seal 70 × 90 × 10');
    await browser.reads('Carriage');
  });
});

describe('a draft', () => {
  it('takes a discount as it is typed, and a number set by hand', async () => {
    await browser.go('/orders/K26-0023');
    await browser.fill('Line 1', 'Price', '96.50 -12.5%');
    await browser.reads('less 12.5 % = 84.4375');
    await (await browser.button('More details')).click();
    await browser.type('Number', 'LIGHTS-1');
    await (await browser.button('Save')).click();
    await browser.driver.wait(async () => (await browser.driver.getCurrentUrl()).endsWith('/orders/LIGHTS-1'), 20_000);
    await browser.reads('84.44');
  });

  it('goes with its drawings, and with nothing that is a program', async () => {
    const [drawing, program] = [join(folder, 'mast.dxf'), join(folder, 'setup.dxf')];
    writeFileSync(drawing, '  0\nSECTION\n');
    writeFileSync(program, 'MZ\u0090\u0000');
    await browser.go('/orders/LIGHTS-1');
    await (await browser.button('Attach')).click();
    await browser.type('Revision', 'C');
    const input = await browser.find(By.css('input[type="file"]'));
    await input.sendKeys(program);
    await browser.reads('setup.dxf is a program');
    await input.sendKeys(drawing);
    await browser.reads('mast.dxf saved with LIGHTS-1');
    await browser.keys(Key.ESCAPE);
    await browser.reads('mast.dxf (rev. C)');
    await (await browser.button('Send')).click();
    await browser.reads('as a PDF with 1 file');
    await (await browser.button('Send now')).click();
    await browser.reads('LIGHTS-1 sent to');
    const names = await app.look((db) =>
      db('messageFile as f')
        .join('document as d', 'd.id', 'f.documentId')
        .orderBy('f.messageId', 'desc')
        .limit(2)
        .select('d.name'),
    );
    expect(names.map((n) => n.name).sort()).toEqual(['LIGHTS-1.pdf', 'mast.dxf']);
  });
});

describe('gathering', () => {
  it('fills an order up, and tells what another supplier does to all that is picked', async () => {
    await browser.go('/gather');
    await (await browser.see(By.css('input[aria-label^="Select Tinned cable"]'))).click();
    await browser.reads('1 order to draft');
    await (await browser.button('Top up')).click();
    const later = await browser.see(By.xpath("//*[@role='dialog']//label[contains(., 'Cable gland')]//input"));
    await later.click();
    await browser.reads('2 lines selected');
    await browser.keys(Key.ESCAPE);
    await (await browser.button('Tinned cable')).click();
    await browser.reads('for all selected lines');
    await browser.keys(Key.ESCAPE);
    // The program that was refused is told of by the browser as well.
    expect((await browser.consoleErrors()).filter((e) => !e.includes('422'))).toEqual([]);
  });
});

describe('a long Gather', () => {
  it('reads on as one comes to its end, draws only what is in view, and picks by keys', async () => {
    await app.look(async (db) => {
      const [job, code, supplier] = [
        await db('job').where({ number: '423' }).first('id'),
        await db('costCode').where({ code: '04' }).first('id'),
        await db('supplier').where({ name: 'Fenny Timber' }).first('id'),
      ];
      const need = {
        ...{ jobId: job?.id ?? 0, costCodeId: code?.id ?? 0, supplierId: supplier?.id ?? 0, itemId: null },
        ...{ kind: 'goods' as const, quantity: 10_000 as never, unit: 'C62', price: 12_500 as never },
      };
      const names = Array.from({ length: 900 }, (_, k) => `Plank ${String(k + 1).padStart(3, '0')}`);
      const ids = await insertNeeds(
        db,
        names.map((description) => ({ ...need, description, neededOn: '2026-08-01' as never })),
        TODAY as never,
      );
      const happening = { event: 'Quote won', document: 'need' as const, documentId: ids[0] ?? 0, personId: 1 };
      await postOne(db, { ...happening, day: TODAY as never, at: TODAY }, ids);
    });
    await browser.go('/gather?job=423');
    await browser.reads('lines to buy');
    const rows = () => browser.texts('tbody tr[data-index]');
    expect((await browser.text()).includes('Plank 900')).toBe(false);
    await browser.driver.wait(async () => {
      await browser.driver.executeScript("document.getElementById('sheet-scroll').scrollBy(0, 4000)");
      await browser.still();
      return (await browser.text()).includes('Plank 900');
    }, 30_000);
    expect((await rows()).length).toBeLessThan(120);
    await browser.driver.executeScript("document.getElementById('sheet-scroll').scrollTo(0, 0)");
    await browser.driver.wait(async () => (await rows())[0]?.includes('Plank 001'), 20_000);
    // What was picked before is put back first.
    await browser.keys(Key.ESCAPE);
    await browser.reads('Select lines to see');
    await browser.keys(Key.ARROW_DOWN, ' ', Key.ARROW_DOWN, ' ');
    await browser.reads('2 lines selected');
    await browser.reads('1 order to draft');
    await browser.keys(Key.ESCAPE);
    await browser.reads('Selection cleared');
  });
});
