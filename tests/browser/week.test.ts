import { mkdirSync } from 'node:fs';
import { By, Key } from 'selenium-webdriver';
import { simpleParser } from 'mailparser';
import { App } from '../support/app';
import { Browser } from './driver';

/** Where pictures of each step go, where somebody wants to look at them. */
const PICTURES = process.env.KETTLE_PICTURES;

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

const JOBS = ['412', '418', '419', '421', '422'] as const;
type Stages = { planned: number; drafted: number; onOrder: number };

/** What stands on each job's tab, in pence. */
const tabs = () =>
  app.look(async (db) => {
    const rows = (await db('tabSum as t')
      .join('job as j', 'j.id', 't.jobId')
      .whereIn('j.number', JOBS)
      .groupBy('j.number', 't.stage')
      .select('j.number', 't.stage')
      .sum({ amount: 't.amount' })) as unknown as { number: string; stage: keyof Stages; amount: number }[];
    const sum = (number: string, stage: string) =>
      rows.find((r) => r.number === number && r.stage === stage)?.amount ?? 0;
    return new Map<string, Stages>(
      JOBS.map((n) => [n, { planned: sum(n, 'planned'), drafted: sum(n, 'drafted'), onOrder: sum(n, 'onOrder') }]),
    );
  });

let before: Map<string, Stages>;
/** What each tab moved by since it was looked at last. */
async function moved(): Promise<Record<string, Partial<Stages>>> {
  const now = await tabs();
  const told: Record<string, Partial<Stages>> = {};
  for (const [job, own] of now) {
    const was = before.get(job);
    const change = Object.fromEntries(
      Object.entries(own).flatMap(([k, v]) => {
        const by = v - (was?.[k as keyof Stages] ?? 0);
        return by === 0 ? [] : [[k, by]];
      }),
    );
    if (Object.keys(change).length > 0) told[job] = change;
  }
  before = now;
  return told;
}

let steps = 0;
async function look(name: string): Promise<void> {
  if (PICTURES === undefined) return;
  mkdirSync(PICTURES, { recursive: true });
  await browser.still();
  await browser.shot(`${PICTURES}/${String((steps += 1)).padStart(2, '0')}-${name}.png`);
}

/** The shelf's action, by its keys. */
const act = () => browser.driver.actions().keyDown(Key.CONTROL).sendKeys(Key.ENTER).keyUp(Key.CONTROL).perform();
const pick = async (line: string) => (await browser.see(By.css(`[aria-label="Select ${line}"]`))).click();
const orderTo = (supplier: string) =>
  app.look(async (db) => {
    const row = (await db('purchaseOrder as o')
      .join('supplier as s', 's.id', 'o.supplierId')
      .where('s.name', supplier)
      .orderBy('o.id', 'desc')
      .first('o.id', 'o.number', 'o.state', 'o.net')) as { id: number; number: string; state: string; net: number };
    return row;
  });

/** What the five jobs' drafts come to in pence, worked out by hand from the price lists of the sample company. */
const EUR = 0.8571;
const RODS = { '419': 20 * 430, '422': 60 * 430 };
/** Sold by 3 m: 15 m come, of which one goes to stores. */
const FLAT = 14 * 740;
const TURBO = Math.round(12_100 * EUR);
const LINDQVIST = TURBO + Math.round(4800 * EUR);

describe('a week’s needs of five jobs', () => {
  it('become four orders: one joins a draft, one is filled up to free carriage, one is in euro', async () => {
    before = await tabs();
    await browser.go('/gather');
    for (const line of [
      'Round bar 316 12 mm for 419',
      'Flat bar 316L 40 × 6 for 421',
      'Bilge pump 24 V, serial for 412',
      'Cable gland M20 for 418',
      'Taper roller 32012 X for 418',
      'Turbo gasket kit for 412',
    ])
      await pick(line);
    await browser.reads('4 orders to draft');
    await browser.reads('£\u202f203 more for free carriage');
    await look('picked');
    await (await browser.see(By.xpath("//li[contains(., 'Eelmoor Metals')]//button[contains(., 'Top up')]"))).click();
    await (
      await browser.see(By.xpath("//*[@role='dialog']//label[contains(., 'Round bar') and contains(., '422')]//input"))
    ).click();
    await browser.reads('free carriage');
    await look('topped-up');
    await browser.keys(Key.ESCAPE);
    await browser.choose('Where the lines for Brightsound Marine Electrics go', 'Add to K26-0023');
    await browser.reads('3 orders to draft, added to 1 draft');
    await look('joined');
    await (await browser.button('Draft 3 orders, add to 1')).click();
    await browser.reads('Drafted K26-');
    expect(await moved()).toEqual({
      '412': { planned: -50_400 - 10_430, drafted: 64_200 + LINDQVIST },
      '418': { planned: -4320 - 16_000, drafted: 4320 + 16_480 + 1400 },
      '419': { planned: -8600, drafted: RODS['419'] },
      '421': { planned: -10_360, drafted: FLAT },
      '422': { planned: -25_800, drafted: RODS['422'] },
    });
    expect(await orderTo('Eelmoor Metals')).toMatchObject({ state: 'drafting', net: 8600 + 25_800 + 15 * 740 });
  });

  it('with drawings to a subcontractor’s address, in euro', async () => {
    const { number } = await orderTo('Lindqvist Motor');
    await browser.go(`/orders/${number}`);
    await browser.reads('Total incl. tax');
    await browser.pick('Deliver to', 'Kiln Lane');
    await (await browser.button('Save')).click();
    await browser.reads(`${number} saved`);
    await (await browser.button('Attach')).click();
    await (await browser.see(By.xpath("//*[@role='dialog']//label[contains(., 'rev. C')]//input"))).click();
    await (await browser.see(By.xpath("//*[@role='dialog']//button[contains(., 'Save')]"))).click();
    await browser.reads('frames-412.dxf (rev. C)');
    await look('euro');
    expect(await moved()).toEqual({});
  });

  it('go out in one step, and stand on order to the penny', async () => {
    await browser.go('/orders?show=unsent');
    for (const supplier of ['Eelmoor Metals', 'Brightsound Marine Electrics', 'Lindqvist Motor', 'Pellam Bearings']) {
      const { number } = await orderTo(supplier);
      await pick(number);
    }
    await browser.reads('4 orders selected');
    await act();
    await browser.reads('Each is emailed to its supplier as a PDF');
    await look('sending');
    await act();
    await browser.reads('4 orders sent');
    // With what the draft held before: two lights and six breakers for 412.
    const held = 9650 + 14_200 + 6 * 1840;
    expect(await moved()).toEqual({
      '412': { drafted: -64_200 - LINDQVIST - held, onOrder: 64_200 + LINDQVIST + held },
      '418': { drafted: -4320 - 17_880, onOrder: 4320 + 17_880 },
      '419': { drafted: -RODS['419'], onOrder: RODS['419'] },
      '421': { drafted: -FLAT, onOrder: FLAT },
      '422': { drafted: -RODS['422'], onOrder: RODS['422'] },
    });
    const { id } = await orderTo('Lindqvist Motor');
    const mail = await app.look((db) => db('message').where({ about: 'order', aboutId: id }).first('raw'));
    const { attachments, text } = await simpleParser(Buffer.from((mail as unknown as { raw: Buffer }).raw));
    expect(attachments.map((a) => a.filename)).toContain('frames-412.dxf');
    expect(text).toContain((await orderTo('Lindqvist Motor')).number);
  });

  it('one is revised: the tab holds what was sent until the revision goes', async () => {
    const { number } = await orderTo('Pellam Bearings');
    await browser.go(`/orders/${number}`);
    await (await browser.button('Revise')).click();
    await browser.type('Reason for revision (the supplier reads this)', 'Two spare rollers');
    await (await browser.button('Start revision')).click();
    await browser.reads('Revision 1 in progress');
    await browser.fill('Line 1', 'Quantity', '6');
    await (await browser.button('Save')).click();
    const send = await browser.button('Send revision 1');
    await look('revision');
    expect(await moved()).toEqual({});
    await send.click();
    await (await browser.button('Send now')).click();
    await browser.reads('sent to orders@pellam.example');
    expect(await moved()).toEqual({ '418': { onOrder: 2 * 4120 } });
  });

  it('and of one a line closed short: its money is free, and what is needed is to buy again', async () => {
    const { number } = await orderTo('Eelmoor Metals');
    await browser.go(`/orders/${number}`);
    const flat = By.xpath("//tr[contains(., 'Flat bar')]//button[contains(., 'Close short')]");
    await (await browser.see(flat)).click();
    await browser.reads('421 01 Hull');
    await browser.type('Reason', 'Out of the mill until July');
    await look('close-short');
    await (await browser.see(By.xpath("//*[@role='dialog']//button[contains(., 'Close short')]"))).click();
    await browser.reads('closed short at 0 of 15');
    expect(await moved()).toEqual({ '421': { planned: 10_360, onOrder: -FLAT } });
    await browser.go('/gather?job=421');
    await browser.reads('Flat bar 316L 40 × 6');
    await browser.go('/jobs/421');
    await look('tab');
    expect(await browser.consoleErrors()).toEqual([]);
  });
});
