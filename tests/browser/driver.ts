import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Builder, By, Key, until, type WebDriver, type WebElement } from 'selenium-webdriver';
import { Options, ServiceBuilder, type Driver } from 'selenium-webdriver/chrome';
import type { PersonKey } from '@/demo/catalogue';
import { Caller } from '../support/caller';

export const DESK = { width: 1280, height: 800 };
/** Something in a panel has the focus: what is typed goes there. A panel that is still being fetched hears nothing. */
export const TYPING = By.css('[role="dialog"] :focus');
export const PHONE = { width: 390, height: 844 };

const FLAGS = [
  '--headless=new',
  '--no-sandbox',
  '--disable-gpu',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
  '--disable-dev-shm-usage',
  '--force-color-profile=srgb',
  '--hide-scrollbars',
];

const WAIT = Number(process.env.KETTLE_WAIT ?? 45_000);

/** One browser with a profile of its own, and the few things a person does with it. */
export class Browser {
  private constructor(
    readonly driver: WebDriver,
    private readonly profile: string,
    readonly base: string,
  ) {}

  static async open(base: string, size = DESK, flags: readonly string[] = []): Promise<Browser> {
    const profile = mkdtempSync(join(tmpdir(), 'kettle-browser-'));
    const options = new Options();
    options.setChromeBinaryPath('/usr/bin/chromium');
    options.addArguments(...FLAGS, ...flags, `--user-data-dir=${profile}`);
    options.setLoggingPrefs({ browser: 'ALL' });
    process.env.LANGUAGE = 'en_GB';
    const driver = await new Builder()
      .forBrowser('chrome')
      .setChromeOptions(options)
      .setChromeService(new ServiceBuilder('/usr/bin/chromedriver'))
      .build();
    const browser = new Browser(driver, profile, base);
    await browser.resize(size);
    return browser;
  }

  async resize({ width, height }: typeof DESK): Promise<void> {
    await (this.driver as Driver).sendDevToolsCommand('Emulation.setDeviceMetricsOverride', {
      width,
      height,
      deviceScaleFactor: 1,
      mobile: width < 500,
    });
  }

  async close(): Promise<void> {
    await this.driver.quit();
    rmSync(this.profile, { recursive: true, force: true });
  }

  go = (path: string) => this.driver.get(this.base + path);

  find = (by: By): Promise<WebElement> =>
    Promise.resolve(this.driver.wait(until.elementLocated(by), WAIT, `${by} is not there`));

  /** Waits for one that is shown; the page may draw itself anew meanwhile. */
  see = (by: By): Promise<WebElement> =>
    Promise.resolve(
      this.driver.wait(
        async () => {
          for (const found of await this.driver.findElements(by))
            if (await found.isDisplayed().catch(() => false)) return found;
          return undefined;
        },
        WAIT,
        `${by} is not to be seen`,
      ) as PromiseLike<WebElement>,
    );

  /** Waits until the page shows these words. */
  async reads(words: string): Promise<void> {
    await this.driver.wait(async () => (await this.text()).includes(words), WAIT, `the page does not read “${words}”`);
  }

  /** Waits until the page shows these words no longer. */
  async forgets(words: string): Promise<void> {
    await this.driver.wait(async () => !(await this.text()).includes(words), WAIT, `the page still reads “${words}”`);
  }

  /** Waits until what is read is this. */
  async becomes<T>(read: () => Promise<T>, what: T): Promise<void> {
    let last: T | undefined;
    const isIt = async () => JSON.stringify((last = await read())) === JSON.stringify(what);
    await this.driver.wait(isIt, WAIT).catch(() => expect(last).toEqual(what));
  }

  text = (): Promise<string> => this.driver.executeScript('return document.body.innerText');

  /** What all that a selector finds read, of one moment. */
  texts = (css: string): Promise<string[]> =>
    this.driver.executeScript(
      'return [...document.querySelectorAll(arguments[0])].map((e) => e.innerText.trim())',
      css,
    );

  /** A button that can be pressed and is called so, or else that has these words in its name. */
  button = (words: string) => {
    const name = 'normalize-space(.)';
    const called = `(${name} = ${quoted(words)} or ${name} = concat(${quoted(words)}, 'Ctrl ↵') or ${name} = concat(${quoted(words)}, ' Ctrl ↵'))`;
    const open =
      "//button[not(@disabled) and not(@aria-disabled='true') and not(contains(concat(' ', @class, ' '), ' sr-only ')) and not(ancestor::*[@aria-hidden='true'])]";
    return this.see(
      By.xpath(`${open}[${called}] | ${open}[contains(${name}, ${quoted(words)})][not(${open}[${called}])]`),
    );
  };

  link = (words: string) => this.see(By.xpath(`//a[contains(normalize-space(.), ${quoted(words)})]`));

  field = (label: string): Promise<WebElement> =>
    this.see(By.xpath(`//*[@aria-label=${quoted(label)}] | id(//label[normalize-space(.)=${quoted(label)}]/@for)`));

  /** Hands a file over where the page asks for one, once it listens: nobody is as quick as a test. */
  async hand(file: string, css = 'input[type=file]'): Promise<void> {
    const input = await this.find(By.css(css));
    const listens = 'return Object.keys(arguments[0]).some((key) => key.startsWith("__reactProps"))';
    await this.driver.wait(() => this.driver.executeScript(listens, input), WAIT, `${css} never listens`);
    await input.sendKeys(file);
  }

  async type(label: string, words: string): Promise<void> {
    const field = await this.field(label);
    await this.driver.executeScript('arguments[0].select?.()', field);
    await field.sendKeys(words);
  }

  async choose(label: string, words: string): Promise<void> {
    const field = await this.field(label);
    await field.findElement(By.xpath(`.//option[contains(normalize-space(.), ${quoted(words)})]`)).click();
  }

  /** Picks a thing of the company: types some of it, and takes what is found first. */
  async pick(label: string, words: string): Promise<void> {
    const field = await this.field(label);
    await field.click();
    await field.sendKeys(Key.chord(Key.CONTROL, 'a'), words);
    await this.see(By.css('[role="option"]'));
    await field.sendKeys(Key.ENTER);
    await this.driver.wait(
      // What was picked may have taken the field away.
      async () => (await field.getAttribute('aria-expanded').catch(() => null)) !== 'true',
      WAIT,
      `${label} stays open`,
    );
  }

  /** A cell of a sheet, by what its row is called and how its column begins. */
  cell = (row: string, column: string) =>
    this.see(By.css(`[role="row"][aria-label=${quoted(row)}] [data-label^=${quoted(column)}]`));

  keys = (...keys: string[]): Promise<void> =>
    this.driver
      .actions()
      .sendKeys(...keys)
      .perform();

  /** Presses Tab until the focus is on what is called so, in a row that says these words. */
  async tabTo(name: string, row = ''): Promise<void> {
    for (let k = 0; k < 120; k += 1) {
      const [focused, around] = await this.driver.executeScript<[string, string]>(
        'const e = document.activeElement; const names = [e.getAttribute("aria-label"), e.labels?.[0]?.innerText, ["A", "BUTTON"].includes(e.tagName) && e.innerText]; return [names.filter(Boolean).join("|"), e.closest("li, tr")?.innerText ?? ""]',
      );
      if (focused.includes(name) && around.includes(row)) return;
      await this.keys(Key.TAB);
    }
    throw new Error(`Tab never came to “${name}”.`);
  }

  /** Types into a cell of a sheet, in the place of what stands there, and leaves it. */
  async fill(row: string, column: string, words: string): Promise<void> {
    await (await this.cell(row, column)).click();
    await this.see(By.css('.entry-sheet input'));
    await this.keys(words, Key.TAB);
  }

  /** Waits until a field holds these words. */
  async holds(label: string, words: string): Promise<void> {
    await this.driver.wait(
      async () => (await (await this.field(label)).getAttribute('value').catch(() => '')) === words,
      WAIT,
      `${label} does not hold “${words}”`,
    );
  }

  /** Ends the session here; what is open is left first, so that it does not ask for anything as nobody. */
  async stepOut(): Promise<void> {
    await this.go('/icon.svg');
    await this.driver.manage().deleteAllCookies();
  }

  /** Signs in through the page. */
  async signIn(name: string): Promise<void> {
    await this.stepOut();
    await this.go('/sign-in');
    await (await this.button(name)).click();
    await this.reads('Hello');
  }

  /** Signs in beside the page, where signing in is not what is tested, and looks at the Desk. */
  async stepInAs(name: string): Promise<void> {
    await this.stepOut();
    const { cookie } = await Caller.as(this.base, name.split(' ')[0]?.toLowerCase() as PersonKey);
    for (const part of cookie.split('; ')) {
      const at = part.indexOf('=');
      await this.driver.manage().addCookie({ name: part.slice(0, at), value: part.slice(at + 1), httpOnly: true });
    }
    await this.go('/');
    await this.reads('Hello');
  }

  /** Presses a key of a page that was just opened, which is to show something; a page that heard nothing is asked again. */
  async pressUntil(key: string, shown: By): Promise<void> {
    const isThere = async () => (await this.driver.findElements(shown)).length > 0;
    await this.still();
    await this.driver.wait(
      async () => {
        await this.keys(key);
        return this.driver.wait(isThere, WAIT / 5).catch(() => false);
      },
      WAIT,
      `${key} does not show ${shown}`,
    );
  }

  /** Waits until the page is drawn and works: its fonts are there, nothing moves, and it has nothing left to do. */
  still = (): Promise<void> =>
    this.driver.executeAsyncScript(`const done = arguments[0];
      const ends = (a) => a.playState === 'running' && a.effect.getComputedTiming().iterations !== Infinity;
      const moves = () => document.readyState !== 'complete' || document.getAnimations().some(ends);
      const look = () => requestIdleCallback(() => requestAnimationFrame(moves() ? look : () => done()), { timeout: 2000 });
      document.fonts.ready.then(look)`);

  async shot(file: string): Promise<void> {
    await this.driver.executeScript('return document.fonts.ready.then(() => undefined)');
    writeFileSync(file, Buffer.from(await this.driver.takeScreenshot(), 'base64'));
  }

  /** Messages of the browser's console that are errors. */
  async consoleErrors(): Promise<string[]> {
    const entries = await this.driver.manage().logs().get('browser');
    return entries.filter((e) => e.level.name === 'SEVERE').map((e) => e.message);
  }
}

/** An XPath string literal, whatever quotation marks the words hold. */
const quoted = (words: string) => (words.includes("'") ? `"${words}"` : `'${words}'`);

/** By how much a view is wider than its window. */
export const beyond = ({ driver }: Browser): Promise<number> =>
  driver.executeScript<number>(
    'const m = document.getElementById("sheet-scroll"); return Math.max(document.documentElement.scrollWidth, m.scrollWidth) - window.innerWidth',
  );
