import { readFileSync } from 'node:fs';
import { App } from '../support/app';
import { askManagers, SIGN_TASKS } from '../support/signSteps';
import { Steps, TASKS } from '../support/steps';
import { Browser } from './driver';

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

/** What the documentation says a task takes. */
const told = new Map(
  readFileSync('docs/steps.md', 'utf8')
    .split('\n')
    .flatMap((line) => {
      const [, name = '', keys, clicks] = line.split('|').map((cell) => cell.trim());
      return /^\d+$/.test(keys ?? '') ? [[name, { keys: Number(keys), clicks: Number(clicks) }] as const] : [];
    }),
);

describe('what daily work takes', () => {
  it('is told for every task', () => expect([...told.keys()]).toEqual([...TASKS, ...SIGN_TASKS].map((t) => t.name)));

  it.each(TASKS.map((t) => [t.name, t] as const))('%s', async (name, task) => {
    const steps = new Steps(browser);
    await task.run(steps);
    expect({ keys: steps.keys, clicks: steps.clicks }).toEqual(told.get(name));
  });
});

describe('what agreeing to money takes', () => {
  beforeAll(async () => {
    await app.stop();
    app = await App.start();
    await askManagers(app);
    await browser.close();
    browser = await Browser.open(app.base);
  });

  it.each(SIGN_TASKS.map((t) => [t.name, t] as const))('%s', async (name, task) => {
    await browser.stepInAs(task.who);
    const steps = new Steps(browser);
    await task.run(steps);
    expect({ keys: steps.keys, clicks: steps.clicks }).toEqual(told.get(name));
  });
});
