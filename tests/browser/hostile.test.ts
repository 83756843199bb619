import { By } from 'selenium-webdriver';
import { App } from '../support/app';
import { Browser } from './driver';

let app: App;
let browser: Browser;
let cookie: string;

beforeAll(async () => {
  app = await App.start();
  browser = await Browser.open(app.base);
  await browser.signIn('Mina Rowe');
  cookie = `kettle=${(await browser.driver.manage().getCookie('kettle'))?.value ?? ''}`;
});
afterAll(async () => {
  await browser.close();
  await app.stop();
});

const ask = (path: string, init: RequestInit = {}) =>
  fetch(app.base + path, { redirect: 'manual', ...init, headers: { cookie, ...init.headers } });

const upload = (body: BodyInit | null, headers: Record<string, string> = {}, quote = '1') =>
  ask(`/jobs/426/quote/file?quote=${quote}&name=quote.csv`, { method: 'POST', body, headers });

describe('requests that are not from our pages', () => {
  it.each([
    ["/jobs/412' or '1'='1", 404],
    ['/orders/..%2f..%2fetc%2fpasswd', 404],
    ['/documents/99999', 404],
    ['/documents/1%20or%201=1', 404],
    ['/outbox/-1/raw', 404],
    ['/nowhere', 404],
  ])('%s answers %d and tells nothing', async (path, status) => {
    const answer = await ask(path);
    expect(answer.status).toBe(status);
    expect(await answer.text()).not.toMatch(/SqliteError|at Object|node_modules/);
  });

  it.each([
    '/orders?show=constructor',
    '/orders?before=x&words=%25',
    '/jobs?state=__proto__&after=%27',
    '/jobs/412?on=2026-99-99',
    '/jobs/412?figure=02.toString',
    '/jobs/412/history?before=-1e9',
    '/invoices?show=toString&before=NaN',
    '/gather?supplier=abc&by=never&job=%27',
  ])('%s is answered as a page all the same', async (path) => {
    const answer = await ask(path);
    expect(answer.status).toBe(200);
    expect(await answer.text()).not.toMatch(/SqliteError|This page could not be shown/);
  });

  it.each([
    ['no list', '{"a":1}'],
    ['no JSON', 'not json'],
    ['a quantity that is text', '{"picks":[{"needId":1,"buy":"1; drop table need"}],"joins":{}}'],
    ['a draft that is text', '{"picks":[{"needId":1,"buy":10000}],"joins":{"1":"1 or 1=1"}}'],
    ['more picks than anybody makes', JSON.stringify({ picks: Array(2001).fill({ needId: 1, buy: 1 }), joins: {} })],
  ])('a preview with %s declined', async (_, body) => {
    expect((await ask('/gather/preview', { method: 'POST', body })).status).toBe(400);
  });

  it('an action from another site declined', async () => {
    const answer = await ask('/jobs', {
      method: 'POST',
      body: '[{"jobId":1}]',
      headers: { origin: 'http://elsewhere.example', 'next-action': '7f00000000000000000000000000000000000000aa' },
    });
    expect(answer.status).toBeGreaterThanOrEqual(400);
  });

  it('carries headers that keep it out of frames and its files from being sniffed', async () => {
    const { headers } = await ask('/');
    expect(headers.get('x-content-type-options')).toBe('nosniff');
    expect(headers.get('content-security-policy')).toContain("frame-ancestors 'none'");
    expect(headers.get('x-powered-by')).toBeNull();
  });

  it('keeps the cookie from scripts and other sites', async () => {
    const kept = await browser.driver.manage().getCookie('kettle');
    expect([kept?.httpOnly, kept?.sameSite]).toEqual([true, 'Lax']);
    expect(await browser.driver.executeScript('return document.cookie')).not.toContain('kettle');
  });

  it('does not take a cookie that was tampered with', async () => {
    const middle = Math.floor(cookie.length / 2);
    const tampered = cookie.slice(0, middle) + (cookie[middle] === 'A' ? 'B' : 'A') + cookie.slice(middle + 1);
    const answer = await fetch(`${app.base}/jobs`, { redirect: 'manual', headers: { cookie: tampered } });
    expect(answer.headers.get('location')).toBe('/sign-in');
  });
});

describe('uploads', () => {
  it('are refused when nobody is signed in', async () => {
    expect((await upload('a,b\n1,2', { cookie: '' })).status).toBe(401);
  });

  it.each([
    ['sec-fetch-site', 'cross-site'],
    ['origin', 'http://elsewhere.example'],
    ['origin', 'null'],
  ])('are refused when they come from another site, as %s: %s says', async (header, value) =>
    expect((await upload('a,b\n1,2', { [header]: value })).status).toBe(403),
  );

  it('are refused when they are too large', async () => {
    const answer = await upload(new Uint8Array(9 * 1024 * 1024).fill(65));
    expect(answer.status).toBe(413);
    expect(((await answer.json()) as { message: string }).message).toContain('over 8 MB');
  });

  it('are read no further than they may be long, when they do not say how long they are', async () => {
    let given = 0;
    const endless = new ReadableStream({
      pull: (to) => {
        given += 1;
        to.enqueue(new Uint8Array(1024 * 1024));
        if (given > 400) to.close();
      },
    });
    const body = { method: 'POST', body: endless, duplex: 'half' } as RequestInit;
    const answer = await ask('/jobs/426/quote/file?quote=1&name=x', body).catch(() => ({ status: 413 }));
    expect(answer.status).toBe(413);
    expect(given).toBeLessThan(100);
  });

  it('are refused without a file, and for a quote that is not there or none', async () => {
    expect((await upload(null)).status).toBe(422);
    expect((await upload('a,b\n1,2', {}, '9999')).status).toBe(422);
    expect((await upload('a,b\n1,2', {}, '1 or 1=1')).status).toBe(404);
  });
});

describe('words that look like code', () => {
  const SCRIPT = '<img src=x onerror="window.hurt = true">';

  it('are shown as words', async () => {
    await browser.go('/jobs/415/buy-list');
    await (await browser.button('Add line')).click();
    await browser.type('Item or description', SCRIPT);
    await browser.type('Quantity', '1');
    await browser.pick('Cost code', '02');
    await (await browser.button('Add line')).click();
    await browser.reads(SCRIPT);
    for (const path of ['/gather?job=415', '/jobs/415/history']) {
      await browser.go(path);
      await browser.reads(SCRIPT);
    }
    expect(await browser.driver.executeScript('return window.hurt')).toBeNull();
    expect(await browser.driver.findElements(By.css('img[src="x"]'))).toEqual([]);
  });

  it('are looked for as words', async () => {
    for (const words of ["' or 1=1 --", '%', '_', '\\', '"><script>']) {
      const answer = await ask(`/find?words=${encodeURIComponent(words)}`);
      expect(answer.status).toBe(200);
      expect(Array.isArray(await answer.json())).toBe(true);
    }
  });
});

describe('a very long quote', () => {
  const onward = async () => {
    const link = await browser.link('More lines');
    // By the keyboard: what was just done is still told where the mouse would click.
    await link.sendKeys('\n');
  };

  it('of 20,000 lines comes in, and can be scrolled through', async () => {
    const rows = Array.from({ length: 20_000 }, (_, k) => `Part ${k + 1},1,pc,1.25,02`);
    const quote = (await (
      await upload(['Description,Qty,Unit,Cost,Cost code', ...rows].join('\n'), {}, '12')
    ).json()) as { id?: number };
    expect(quote.id).toBeGreaterThan(0);
    await browser.go(`/jobs/426/quote?file=${quote.id}`);
    await browser.reads('20,000 of 20,000 rows ready');
    await (await browser.button('Import 20,000 lines')).click();
    await browser.reads('Part 30');
    const drawn = await browser.driver.findElements(By.css('table[aria-label="Lines of the quote"] tbody tr'));
    expect(drawn.length).toBeLessThan(200);
    await browser.driver.executeScript('document.getElementById("sheet-scroll").scrollTo(0, 1e9)');
    await browser.reads('Part 1000');
    await onward();
    await browser.reads('Part 1001');
    await browser.reads('Lines 1,001–2,000 of 20,000');
  });

  it('opens as a job, without sending all of it', async () => {
    await browser.go('/jobs/426/quote');
    await (await browser.button('Mark won')).click();
    await browser.type('Accepted by (customer)', 'the owner');
    await (await browser.button('Mark won and open budget')).click();
    await browser.driver.wait(async () => /\/jobs\/426$/.test(await browser.driver.getCurrentUrl()), 30_000);
    for (const path of ['/jobs/426', '/jobs/426/buy-list', '/jobs/426/quote', '/gather?job=426', '/']) {
      const answer = await ask(path);
      expect([path, answer.status, (await answer.text()).length < 2_000_000]).toEqual([path, 200, true]);
    }
    await browser.go('/jobs/426/buy-list');
    await browser.reads('20,000 of 20,000 lines to buy');
    await browser.reads('Lines 1–250 of 20,000');
    await onward();
    await browser.driver.wait(async () => (await browser.driver.getCurrentUrl()).includes('after='), 30_000);
    await browser.reads('Lines 251–500 of 20,000');
    await browser.reads('Back to start');
  });
});
