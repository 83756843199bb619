import { By } from 'selenium-webdriver';
import { App } from '../support/app';
import { Caller } from '../support/caller';
import { Browser } from './driver';

let app: App;
let wren: Browser;
let bram: Browser;
beforeAll(async () => {
  app = await App.start();
  [wren, bram] = await Promise.all([Browser.open(app.base), Browser.open(app.base)]);
  await wren.signIn('Wren Hale');
  await bram.signIn('Bram Tolley');
});
afterAll(async () => {
  await Promise.all([wren.close(), bram.close()]);
  await app.stop();
});

const cookieOf = async (browser: Browser) =>
  `kettle=${(await browser.driver.manage().getCookie('kettle'))?.value ?? ''}`;
const opensJobs = async (cookie: string) =>
  (await fetch(`${app.base}/jobs`, { redirect: 'manual', headers: { cookie } })).status === 200;

describe('an administrator', () => {
  it('lets a person in no more, whose open browser is out at its next click', async () => {
    await wren.go('/people');
    await (await wren.link('Bram Tolley')).click();
    await (await wren.button('Remove access')).click();
    await wren.reads('Their history stays under their name');
    await (await bram.link('Jobs')).click();
    await bram.reads('Or try it as');
    expect(await bram.driver.getCurrentUrl()).toContain('/sign-in');
    await (await wren.button('Restore access')).click();
    await wren.reads('Signed in on 0 devices');
  });

  it('gives a link, by which the person chooses a new password, once', async () => {
    await (await wren.button('Create password link')).click();
    await wren.reads('Give this link to Bram Tolley');
    const [link = ''] = await wren.texts('code[aria-label="Link"]');
    await bram.driver.get(link);
    await bram.type('New password', 'a password of my own');
    await (await bram.button('Save password')).click();
    await (await bram.link('Sign in')).click();
    await bram.type('Email', 'bram@wrackline.example');
    await bram.type('Password', 'a password of my own');
    await (await bram.button('Sign in')).click();
    await bram.reads('Hello');
    await bram.driver.get(link);
    await bram.type('New password', 'once more, with feeling');
    await (await bram.button('Save password')).click();
    await bram.reads('has been used');
  });

  it('changes what a person may do, and stays the last one', async () => {
    await wren.go('/people');
    await (await wren.link('Bram Tolley')).click();
    await wren.reads('Used to sign in');
    await (await wren.see(By.xpath('//label[contains(., "Storekeeper")]/input'))).click();
    await (await wren.button('Save person')).click();
    await wren.reads('Bram Tolley saved');
    await bram.go('/orders');
    await bram.reads('K26-0');
    await wren.go('/people');
    await (await wren.link('Wren Hale')).click();
    await wren.reads('Used to sign in');
    await (await wren.button('Remove access')).click();
    await wren.reads('This is the only administrator');
  });
});

describe('a person', () => {
  it('ends a sign-in elsewhere, whose cookie is worth nothing then', async () => {
    const other = await Caller.as(app.base, 'wren');
    expect(await opensJobs(other.cookie)).toBe(true);
    await wren.go('/you');
    await (await wren.button('Sign out all others')).click();
    await wren.reads('1 signed-in device');
    expect(await opensJobs(other.cookie)).toBe(false);
  });

  it('changes the password, by the keyboard alone', async () => {
    await wren.type('Current password', 'wrong');
    await wren.type('New password', 'ten letters at least\n');
    await wren.reads('isn’t your current password');
    await wren.type('Current password', 'kettle on the boil');
    await wren.type('New password', 'ten letters at least\n');
    await wren.reads('Password changed');
  });

  it('signs out, and a copy of the cookie is worth nothing', async () => {
    const copy = await cookieOf(wren);
    expect(await opensJobs(copy)).toBe(true);
    await (await wren.see(By.css('button[aria-label*="menu"]'))).click();
    await (await wren.see(By.xpath('//*[@role="menuitem"][contains(., "Sign out")]'))).click();
    await wren.reads('Or try it as');
    expect(await opensJobs(copy)).toBe(false);
  });

  it('left no error in the console', async () => {
    expect([...(await wren.consoleErrors()), ...(await bram.consoleErrors())]).toEqual([]);
  });
});
