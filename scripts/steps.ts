import { writeFileSync } from 'node:fs';
import { Browser } from '../tests/browser/driver';
import { App } from '../tests/support/app';
import { Steps, TASKS } from '../tests/support/steps';

/** Does daily tasks in the built application, counts keys and clicks, and writes them into docs/steps.md. */
const app = await App.start();
await app.withoutLadder();
const browser = await Browser.open(app.base);
const rows: string[] = [];
try {
  await browser.stepInAs('Mina Rowe');
  for (const task of TASKS) {
    const steps = new Steps(browser);
    await task.run(steps);
    rows.push(`| ${task.name} | ${steps.keys} | ${steps.clicks} |`);
    console.log(rows.at(-1));
  }
} finally {
  await browser.close();
  await app.stop();
}
writeFileSync(
  'docs/steps.md',
  `# What daily work takes

What a buyer does every day, counted by \`npm run steps\`, which drives the real interface on the sample company.
Keys are counted beside the names and numbers that are typed; two keys at once count as two. A test does them again and
compares.

| task | keys | clicks |
|---|---|---|
${rows.join('\n')}
`,
);
