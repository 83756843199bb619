import { By, Key } from 'selenium-webdriver';
import { App } from '../support/app';
import { Caller } from '../support/caller';
import { Browser } from './driver';

let app: App;
let browser: Browser;
let wren: Caller;
beforeAll(async () => {
  app = await App.start();
  browser = await Browser.open(app.base);
  await browser.stepInAs('Wren Hale');
  wren = await Caller.as(app.base, 'wren');
});
afterAll(async () => {
  await browser.close();
  await app.stop();
});

const press = async (words: string) => (await browser.button(words)).click();
const open = async (row: string) =>
  (await browser.see(By.xpath(`//td//button[normalize-space(.) = "${row}"]`))).click();
const taken = async (list: string) => (await wren.ask(`/lists/${list}?as=csv`)).text;

describe('settings', () => {
  it('lead to a page of each kind, with how it stands', async () => {
    await browser.go('/settings');
    await browser.reads('ladder of 3 steps');
    await (await browser.link('Company and calendar')).click();
    await browser.reads('Printed on every order');
  });

  it('keep the company’s address, tell it wrong beside its field, and keep it for the books', async () => {
    await browser.type('Order email (sender)', 'nowhere');
    await press('Save settings');
    await browser.reads('That isn’t an email address. Type it like name@example.com.');
    await browser.type('Order email (sender)', 'orders@wrackline.example');
    await browser.type('Job number pattern', 'J{yy}-{000}');
    await press('Save settings');
    await browser.reads('Company settings saved');
    expect(await taken('company')).toContain('orders@wrackline.example');
    expect(await taken('days-off')).toContain('Boxing Day');
  });

  it('add cost codes, rename one, and offer one no more', async () => {
    await browser.go('/codes');
    await browser.type('One per line, e.g. “08 Paint”', '08');
    await press('Add');
    await browser.reads('isn’t a cost code');
    await browser.type('One per line, e.g. “08 Paint”', '08 Rigging and sails');
    await press('Add');
    await browser.reads('1 cost code added');
    await open('Hire');
    await browser.type('Name', 'Hire and cranes');
    await press('Save');
    await browser.reads('Cost code 07 saved');
    await open('Hire and cranes');
    await press('Retire');
    await browser.reads('Retired');
    expect(await taken('cost-codes')).toMatch(/07,Hire and cranes,\d+,no/);
  });

  it('do not let a rate be changed that orders carry, and take a new one', async () => {
    await browser.go('/taxes');
    await open('VAT 20 %');
    await browser.reads('In use on orders or invoices: only the name can change.');
    expect(await (await browser.field('Rate, %')).isEnabled()).toBe(false);
    await browser.keys(Key.ESCAPE);
    await browser.keys('n');
    await browser.type('Name', 'VAT 12.5 %');
    await browser.type('Rate, %', '12.5');
    await press('Save');
    await browser.reads('VAT 12.5 % saved');
    expect(await taken('taxes')).toContain('VAT 12.5 %,S,standard or reduced rate,12.50,100.00,yes');
  });

  it('add a place of our own, and change its address', async () => {
    await browser.go('/places');
    await browser.keys('n');
    await browser.type('Name', 'Upper shed');
    await press('Save');
    await browser.reads('Enter the address.');
    await browser.type('Address', 'Hill Road');
    await press('Save');
    await browser.reads('Upper shed saved');
    expect(await taken('places')).toContain('Upper shed,Hill Road,');
  });

  it('leave units out of what is offered', async () => {
    await browser.go('/units');
    await (await browser.see(By.xpath('//label[contains(., "tonne")]//input'))).click();
    await press('Save units');
    await browser.reads('Units saved');
    expect(await taken('units')).toContain('TNE,tonne,t,no');
  });

  it('say a reason of the dock in other words, add one, and offer one no more', async () => {
    await browser.go('/reasons');
    await open('Damaged on the way');
    await press('Retire');
    await browser.reads('“Damaged on the way” is the last one with its effect. Add another before you retire it.');
    await browser.keys(Key.ESCAPE);
    await browser.keys('n');
    await browser.type('Reason', 'Wet through');
    await browser.choose('Type', 'damaged');
    await press('Save');
    await browser.reads('“Wet through” saved');
    await open('Damaged on the way');
    await browser.type('Reason', 'Broken on the way');
    await press('Save');
    await browser.reads('“Broken on the way” saved');
    await open('Broken on the way');
    await press('Retire');
    await browser.reads('Retired');
    expect(await taken('reasons')).toMatch(/Broken on the way,damaged,\d+,no[^]*Wet through,damaged,0,yes/);
  });

  it('stand in the history with what stood there before, and are taken out with their seals', async () => {
    await browser.go('/history?about=company');
    await (await browser.see(By.xpath('//button[contains(., "Changed cost code 07")]'))).click();
    await browser.reads('Hire and cranes');
    await browser.reads('Before');
    await browser.reads('Seal ');
    expect(await browser.text()).toMatch(/Seal [0-9a-f]{64}/);
    const file = (await wren.ask('/lists/history?as=csv&about=company')).text;
    expect(file).toMatch(/Changed cost code 07 Hire.*name: Hire → Hire and cranes.*[0-9a-f]{64}/);
  });

  it('are not for those who may not manage them', async () => {
    const mina = await Caller.as(app.base, 'mina');
    for (const path of ['/company', '/codes', '/taxes', '/units', '/places', '/reasons', '/people', '/ladder'])
      expect((await mina.ask(path)).text).toContain('You don’t have permission to manage people and settings');
    for (const list of [
      'company',
      'days-off',
      'people',
      'ladder',
      'rules',
      'cost-codes',
      'taxes',
      'places',
      'reasons',
      'units',
      'review-lists',
    ])
      expect((await mina.ask(`/lists/${list}?as=csv`)).status).toBe(403);
  });
});
