import { statSync } from 'node:fs';
import { join } from 'node:path';
import { App } from '../support/app';
import { Browser } from './driver';

let app: App;
let browser: Browser;

beforeAll(async () => {
  app = await App.own('company');
  browser = await Browser.open(app.base);
});
afterAll(async () => {
  await browser.close();
  await app.stop();
});

describe('an empty company file', () => {
  it('opens on the page that sets it up', async () => {
    await browser.go('/');
    await browser.reads('Set up your company');
  });

  it('makes company and owner, who is signed in at once', async () => {
    await browser.type('Company', 'Saltings Joinery');
    await browser.type('Your name', 'Ann Marlow');
    await browser.type('Address, printed on orders', 'Mill Lane');
    await browser.type('Your email, to sign in', 'ann@saltings.example');
    await browser.type('Password (10 characters or more)', 'short');
    await browser.type('Order email (sender)', 'buying@saltings.example');
    await browser.choose('Country (sets taxes and public holidays)', 'Germany');
    expect(await (await browser.field('Currency (ISO 4217)')).getAttribute('value')).toBe('EUR');
    await (await browser.button('Create company')).click();
    await browser.reads('Enter at least 10 characters.');
    await browser.type('Password (10 characters or more)', 'a much longer one');
    await (await browser.button('Create company')).click();
    await browser.reads('Hello, Ann');
    await browser.reads('Nothing to do');
  });

  it('has the taxes of its country, and tells of its founding first', async () => {
    await browser.go('/taxes');
    await browser.reads('VAT 19 %');
    expect(await browser.text()).not.toContain('20 %');
    await browser.go('/history');
    await browser.reads('Created company Saltings Joinery');
  });

  it('offers the first step in every empty place', async () => {
    for (const [path, words] of [
      ['/jobs', 'create a job'],
      ['/gather', 'Nothing left to buy here'],
      ['/suppliers', 'No suppliers yet'],
      ['/dock', 'Nothing on its way'],
      ['/invoices', 'No invoices waiting'],
      ['/outbox', 'No emails sent yet'],
    ] as const) {
      await browser.go(path);
      await browser.reads(words);
    }
  });

  it('cannot be set up twice, and offers nobody to step in as', async () => {
    await browser.stepOut();
    await browser.go('/welcome');
    await browser.reads('Sign in');
    expect(await browser.text()).not.toContain('step in as');
    expect((await fetch(`${app.base}/sample-quote`)).status).toBe(404);
  });

  it('keeps its session secret for its owner only', () =>
    expect(statSync(join(app.folder, 'session.secret')).mode & 0o777).toBe(0o600));
});
