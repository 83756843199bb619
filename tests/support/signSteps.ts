import { By, Key } from 'selenium-webdriver';
import { TYPING } from '../browser/driver';
import type { App } from './app';
import type { Steps, Task } from './steps';

/** The manager is asked as soon as a budget is passed, so that a draft of the sample company needs a signature. */
export const askManagers = (app: App): Promise<unknown> =>
  app.look((db) =>
    db('ladderStep')
      .whereNotNull('overAbove')
      .update({ overAbove: 0 as never }),
  );

export type SignTask = Task & { readonly who: string };

const opened = async ({ browser }: Steps, path: string, words: string): Promise<void> => {
  await browser.go(path);
  await browser.reads(words);
};

/** Picks what is found first for what is typed, and goes on to the next field. */
async function take(s: Steps, words: string): Promise<void> {
  await s.words(words);
  await s.browser.see(By.css('[role="option"]'));
  await s.press(Key.ENTER, Key.TAB);
}

/** What those do who agree to money, on the sample company and in this order. */
export const SIGN_TASKS: readonly SignTask[] = [
  {
    name: 'Ask for the signatures that an order needs, with a word along',
    who: 'Mina Rowe',
    run: async (s) => {
      await opened(s, '/orders/K26-0024', 'Request sign-off');
      await s.browser.button('Request sign-off');
      await s.act();
      await s.browser.see(By.css('[aria-label="Shelf"] input:focus, [role="dialog"] input:focus, input:focus'));
      await s.words('The bearing is worn through');
      await s.act();
      await s.browser.reads('Awaiting sign-off');
    },
  },
  {
    name: 'Look at an order that waits, and sign it',
    who: 'Tomas Brae',
    run: async (s) => {
      await opened(s, '/sign', 'K26-0024');
      await s.act();
      await s.browser.reads('Lines');
      await s.browser.button('Sign');
      await s.act();
      await s.browser.reads('Nothing to sign');
    },
  },
  {
    name: 'Sign what waits from the list',
    who: 'Wren Hale',
    run: async (s) => {
      await opened(s, '/sign', 'K26-0025');
      await s.pressUntil(Key.ARROW_DOWN, By.css('[data-at="true"]'));
      await s.press(' ');
      await s.browser.reads('1 order selected');
      await s.act();
      await s.browser.reads('Nothing to sign');
    },
  },
  {
    name: 'Move budget from one cost code to another, and agree it',
    who: 'Asha Penrose',
    run: async (s) => {
      await opened(s, '/jobs/412/budget', 'Buying budget');
      await s.pressUntil('n', TYPING);
      await take(s, '01');
      await s.words('-50');
      await s.press(Key.TAB);
      await take(s, '03');
      await s.words('50');
      await s.browser.reads('total unchanged');
      await s.press(Key.TAB, Key.TAB, Key.TAB, Key.TAB);
      await s.words('Lights in the place of plates');
      await s.act();
      await s.browser.reads('agreed');
    },
  },
];
