import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { By, Key } from 'selenium-webdriver';
import { simpleParser } from 'mailparser';
import { App } from '../support/app';
import { Browser, DESK, PHONE } from './driver';

let app: App;
let browser: Browser;
beforeAll(async () => {
  app = await App.start();
  browser = await Browser.open(app.base);
});
afterAll(async () => {
  await browser.close();
  await app.stop();
});

const NUMBER = 'K26-0023';

async function be(name: string, size = DESK): Promise<void> {
  await browser.resize(size);
  await browser.stepInAs(name);
}

/** A field of one step of the ladder. */
const inStep = (step: number, label: string) =>
  browser.see(
    By.xpath(
      `//li[@aria-label="Step ${step}"]//*[@id=//li[@aria-label="Step ${step}"]//label[normalize-space(.)="${label}"]/@for]`,
    ),
  );

async function fillIn(step: number, label: string, words: string): Promise<void> {
  const field = await inStep(step, label);
  await field.sendKeys(Key.chord(Key.CONTROL, 'a'), Key.BACK_SPACE, words);
}

const state = () => app.look(async (db) => (await db('purchaseOrder').where({ number: NUMBER }).first('state'))?.state);

/** Mails to one of our own people, the latest last. */
async function mailsTo(address: string) {
  const folder = join(app.folder, 'mail');
  const mails = await Promise.all(
    readdirSync(folder)
      .filter((f) => f.endsWith('.eml'))
      .sort()
      .map((f) => simpleParser(readFileSync(join(folder, f)))),
  );
  return mails.filter((m) => JSON.stringify(m.to).includes(address));
}

const waitForMail = (address: string, subject: string) =>
  browser.driver.wait(
    async () => (await mailsTo(address)).some((m) => m.subject === subject),
    20_000,
    `no mail “${subject}” to ${address}`,
  );

/** How many signatures of the order stand in the page in each state. */
const steps = () => browser.texts('ol > li b');

describe('an order that passes a budget', () => {
  it('has a ladder of three steps over it, once the company says so', async () => {
    await be('Wren Hale');
    await browser.go('/ladder');
    await fillIn(1, 'Order above, £', '');
    await fillIn(1, 'Budget over by more than, £', '10');
    await fillIn(2, 'Budget over by more than, £', '50');
    await fillIn(3, 'Order above, £', '500');
    await (await browser.button('Save ladder')).click();
    await browser.reads('Ladder saved');
  });

  it('shows in colour, and who will sign, before anybody is asked', async () => {
    await be('Mina Rowe');
    await browser.go(`/orders/${NUMBER}`);
    await browser.reads('£ 16.20 over');
    await browser.fill('Line 1', 'Quantity', '3');
    await browser.reads('£ 209.20 over');
    const over = await browser.see(By.xpath('//b[contains(., "209.20 over")]'));
    expect(await over.getAttribute('class')).toContain('text-brick');
    await browser.reads('Who signs');
    expect(await steps()).toEqual(['Asha Penrose', 'A manager', 'Wren Hale']);
    expect(await state()).toBe('drafting');
  });

  it('is saved and asked for in one, with a word along, and cannot be sent', async () => {
    await (await browser.button('Request sign-off')).click();
    await browser.type('Note to signatories', 'The breakers went up');
    await (await browser.button('Send request')).click();
    await browser.reads(`Sign-off of ${NUMBER} requested`);
    expect(await state()).toBe('withSignOff');
    expect(await browser.driver.findElements(By.xpath('//button[starts-with(normalize-space(.), "Send")]'))).toEqual(
      [],
    );
    await waitForMail('asha@wrackline.example', `Please sign: order ${NUMBER}, Brightsound Marine Electrics`);
  });

  it('is told of by a mail whose link asks to sign in', async () => {
    const mail = (await mailsTo('asha@wrackline.example')).at(-1);
    expect(mail?.text).toContain('The breakers went up');
    const link = /http\S+\/sign\/\S+/.exec(mail?.text ?? '')?.[0] ?? '';
    expect(link).toBe(`${app.base}/sign/${NUMBER}`);
    await browser.stepOut();
    await browser.driver.get(link);
    await browser.reads('Sign in');
    expect(await browser.text()).not.toContain('Brightsound');
  });

  it('is refused with a reason, and comes back to its buyer', async () => {
    await be('Asha Penrose');
    await (await browser.link('Review and sign')).click();
    await browser.reads('The breakers went up');
    await browser.reads('£ 209.20 over');
    await (await browser.button('Decline')).click();
    await browser.type('Reason', 'Two lights are enough');
    await (
      await browser.see(By.css('[role="dialog"] button[type="submit"], [role="alertdialog"] button[type="submit"]'))
    ).click();
    await browser.reads(`${NUMBER} declined`);
    expect(await state()).toBe('drafting');
  });

  it('is changed, and asked for again', async () => {
    await be('Mina Rowe');
    await browser.go(`/orders/${NUMBER}`);
    await browser.reads('Asha Penrose declined it Tue 12 May: “Two lights are enough”');
    await browser.fill('Line 1', 'Quantity', '2');
    await browser.reads('£ 112.70 over');
    await (await browser.button('Request sign-off')).click();
    await (await browser.button('Send request')).click();
    await browser.reads(`Sign-off of ${NUMBER} requested`);
  });

  it('is signed by its lead, by a deputy of the manager, and on a phone', async () => {
    await be('Asha Penrose');
    await browser.go(`/sign/${NUMBER}`);
    await browser.type('Note (optional)', 'Agreed');
    await (await browser.button('Sign step 1')).click();
    await browser.reads(`Step 1 of ${NUMBER} signed`);
    await be('Ida Quill');
    await browser.go(`/sign/${NUMBER}`);
    await browser.reads('You, for Tomas Brae');
    await (await browser.button('Sign step 2')).click();
    await browser.reads(`Step 2 of ${NUMBER} signed`);
    await be('Wren Hale', PHONE);
    await browser.go(`/sign/${NUMBER}`);
    await browser.reads('“Agreed”');
    const [width, inner] = (await browser.driver.executeScript(
      'return [document.documentElement.scrollWidth, innerWidth]',
    )) as number[];
    expect(width).toBe(inner);
    await (await browser.button('Sign step 3')).click();
    await browser.reads('ready to send');
    expect(await state()).toBe('readyToSend');
    await waitForMail('mina@wrackline.example', `Signed: order ${NUMBER}`);
  });

  it('is sent, and its history tells who agreed to what', async () => {
    await be('Mina Rowe');
    await browser.go(`/orders/${NUMBER}`);
    await (await browser.button('Send')).click();
    await (await browser.button('Send now')).click();
    await browser.reads(`${NUMBER} sent to`);
    const told = await app.look(async (db) =>
      (
        await db('audit as a')
          .join('auditSubject as s', 's.auditId', 'a.id')
          .join('purchaseOrder as o', 'o.id', 's.subjectId')
          .join('person as p', 'p.id', 'a.personId')
          .where({ 's.kind': 'order', 'o.number': NUMBER })
          .whereIn('a.action', ['requestSignOff', 'refuseSignOff', 'signOff'])
          .orderBy('a.id')
          .select('p.name', 'a.words')
      ).map((r: { name: string; words: string }) => `${r.name}: ${r.words}`),
    );
    expect(told).toEqual([
      expect.stringMatching(
        /^Mina Rowe: Requested sign-off of order K26-0023, £ 689.10, from Asha Penrose, a manager and Wren Hale/,
      ),
      'Asha Penrose: Declined step 1 of order K26-0023: Two lights are enough',
      expect.stringMatching(/^Mina Rowe: Requested sign-off of order K26-0023, £ 592.60/),
      expect.stringMatching(/^Asha Penrose: Signed step 1 of order K26-0023 \(leads 412.*: Agreed$/),
      expect.stringMatching(/^Ida Quill: Signed step 2 of order K26-0023 for Tomas Brae/),
      expect.stringMatching(/^Wren Hale: Signed step 3 of order K26-0023/),
    ]);
    expect(await browser.consoleErrors()).toEqual([]);
  });
});

describe('its job', () => {
  it('has a budget change raised, which counts at once and stands in the history', async () => {
    await be('Asha Penrose');
    await browser.go('/jobs/412/budget');
    await (await browser.button('Budget change')).click();
    await browser.pick('Cost code 1', '03');
    await browser.type('Amount 1, GBP', '150');
    await browser.type('Reason', 'A second light at the customer’s wish');
    await browser.type('Agreed by', 'The trust');
    await browser.type('Customer’s reference', 'VO 7');
    await browser.type('Change in contract price, GBP', '240');
    await browser.reads('total changes by £ 150.00');
    await (await browser.button('Agree change')).click();
    await browser.reads('Budget change 1 agreed');
    await browser.reads('1,930.00');
    await browser.go('/jobs/412');
    // 112.70 over before, 150.00 more.
    await browser.reads('37.30');
    await browser.go('/jobs/412/history');
    await browser.reads('Agreed budget change 1 of job 412, budget +£ 150.00: A second light at the customer’s wish');
    await browser.reads('Signed step 2 of order K26-0023 for Tomas Brae');
  });

  it('says of a cost code how it ends, and how much of it is done', async () => {
    await browser.go('/jobs/412/budget');
    await (
      await browser.see(By.xpath('//section[@aria-label="Cost at completion"]//button[contains(., "02 Machinery")]'))
    ).click();
    await browser.type('Cost at completion, GBP', '3,900');
    await browser.type('% complete', '40');
    await browser.type('Reason', 'The injectors took longer');
    await (await browser.button('Save')).click();
    await browser.reads('Cost at completion of 02 Machinery saved');
    // 3,699.00 of budget: 40 % earned is 1,479.60, and it ends 201.00 over.
    await browser.reads('1,479.60');
    await browser.reads('−201.00');
  });

  it('offers what can be done about a budget that is passed, and lets it be with a reason', async () => {
    await browser.go('/jobs/418');
    await (await browser.link('Decide')).click();
    await browser.reads('02 Machinery goes £ 54.31 over budget');
    await browser.reads('Request sign-off or reduce K26-0024');
    await (await browser.button('Accept the overspend')).click();
    await browser.type('Reason', 'The owner pays it by the hour');
    await (await browser.see(By.css('[role="alertdialog"] button[type="submit"], form button[type="submit"]'))).click();
    await browser.reads('accepted');
    await browser.driver.wait(async () => !(await browser.text()).includes('passes its budget'), 20_000);
  });

  it('stands in the history with what stood there before, and is found by words', async () => {
    await be('Mina Rowe');
    await browser.go('/history?about=order&words=K26-0023');
    await (await browser.see(By.xpath('//button[contains(., "Changed draft order K26-0023")]'))).click();
    await browser.reads('Before');
    await browser.reads('quantity');
    await browser.reads('Seal ');
    expect(await browser.text()).toMatch(/Seal [0-9a-f]{64}/);
  });

  it('has its budget brought in from a file, which a budget change begins with', async () => {
    await be('Asha Penrose');
    const file = join(app.folder, 'budget.csv');
    writeFileSync(file, 'Cost code,Name,Budget GBP\n01,Hull and structure,3400.00\n,Contingency,110\n77,Nothing,3\n');
    await browser.go('/jobs/422/budget');
    await browser.hand(file);
    await browser.reads('Row 4: Cost code “77” doesn’t exist. Choose one of the company’s codes.');
    await (await browser.button('Create budget change')).click();
    // 3,310.00 before and 200.00 held back: ninety pounds are released.
    await browser.reads('From contingency, total unchanged');
    await browser.type('Reason', 'The planking is sound');
    await (await browser.button('Agree change')).click();
    await browser.reads('Budget change 3 agreed');
    await browser.reads('3,400.00');
    await browser.reads('Contingency £\u202f110.00');
  });
});

describe('several orders that wait for one person', () => {
  it('are signed together, with what they come to and do to budgets beside them', async () => {
    await be('Wren Hale');
    await browser.go('/sign');
    await browser.reads('K26-0025');
    await (await browser.see(By.css('[aria-label="Select K26-0025"]'))).click();
    await browser.reads('together £\u202f2,664.00');
    await (await browser.button('Sign 1 order')).click();
    await browser.reads('Nothing to sign');
    const order = await app.look((db) => db('purchaseOrder').where({ number: 'K26-0025' }).first('state'));
    expect(order).toEqual({ state: 'readyToSend' });
  });
});
