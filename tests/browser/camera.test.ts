import { writeFileSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import bwipjs from 'bwip-js/node';
import { App } from '../support/app';
import { Browser, PHONE } from './driver';

const [WIDTH, HEIGHT, MODULE] = [640, 480, 4];
const [BLACK, WHITE, GREY] = [16, 235, 128];

/** A film of one barcode, as a camera would see it held still (YUV4MPEG2). */
function filmOf(code: string): Buffer {
  const [{ sbs }] = bwipjs.raw('code128', code, '') as unknown as [{ sbs: readonly number[] }];
  const row = Buffer.alloc(WIDTH, WHITE);
  let x = Math.floor((WIDTH - sbs.reduce((sum, n) => sum + n, 0) * MODULE) / 2);
  for (const [k, n] of sbs.entries()) {
    if (k % 2 === 0) row.fill(BLACK, x, x + n * MODULE);
    x += n * MODULE;
  }
  const blank = Buffer.alloc(WIDTH, WHITE);
  const rows = Array.from({ length: HEIGHT }, (_, y) => (y > 120 && y < 360 ? row : blank));
  const frame = Buffer.concat([Buffer.from('FRAME\n'), ...rows, Buffer.alloc((WIDTH * HEIGHT) / 2, GREY)]);
  const head = Buffer.from(`YUV4MPEG2 W${WIDTH} H${HEIGHT} F10:1 Ip A1:1 C420jpeg\n`);
  return Buffer.concat([head, ...Array.from({ length: 5 }, () => frame)]);
}

let app: App;
let folder: string;

beforeAll(async () => {
  app = await App.start();
  folder = mkdtempSync(join(tmpdir(), 'kettle-film-'));
});
afterAll(async () => {
  rmSync(folder, { recursive: true, force: true });
  await app.stop();
});

async function atTheDock(flags: readonly string[], look: (browser: Browser) => Promise<void>): Promise<void> {
  const browser = await Browser.open(app.base, PHONE, flags);
  try {
    await browser.stepInAs('Joss Fenn');
    await browser.go('/dock/scan');
    await (await browser.button('Use the camera')).click();
    await look(browser);
  } finally {
    await browser.close();
  }
}

describe('the camera of a phone', () => {
  it('counts a code that it sees, once as long as it is held before it', async () => {
    const film = join(folder, 'code.y4m');
    writeFileSync(film, filmOf('SE-OIL-70'));
    const flags = [
      '--use-fake-ui-for-media-stream',
      '--use-fake-device-for-media-stream',
      `--use-file-for-fake-video-capture=${film}`,
    ];
    await atTheDock(flags, async (browser) => {
      await browser.reads('1 of 8');
      // Two seconds more of the film, which shows the code all the time.
      const seen = () => browser.driver.executeScript<number>("return document.querySelector('video').currentTime");
      const from = await seen();
      await browser.driver.wait(async () => (await seen()) > from + 2);
      await browser.reads('1 scanned');
      expect(await browser.text()).not.toContain('2 of 8');
      await (await browser.button('Camera off')).click();
      await browser.button('Use the camera');
    });
  });

  it('says what is the matter where there is none', () =>
    atTheDock([], (browser) => browser.reads('There is no camera on this device. Type the code, or use a scanner.')));
});
