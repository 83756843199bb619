import { writeFileSync } from 'node:fs';
import { Browser } from '../tests/browser/driver';
import { App } from '../tests/support/app';
import { askManagers, SIGN_TASKS } from '../tests/support/signSteps';
import { Steps, TASKS } from '../tests/support/steps';

/** Does daily tasks in the built application, counts keys and clicks, and writes them into docs/steps.md. */
const app = await App.own();
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

const signing = await App.own();
await askManagers(signing);
const signer = await Browser.open(signing.base);
try {
  for (const task of SIGN_TASKS) {
    await signer.stepInAs(task.who);
    const steps = new Steps(signer);
    await task.run(steps);
    rows.push(`| ${task.name} | ${steps.keys} | ${steps.clicks} |`);
    console.log(rows.at(-1));
  }
} finally {
  await signer.close();
  await signing.stop();
}
writeFileSync(
  'docs/steps.md',
  `# What daily work takes

What a buyer does every day, and those who agree to money, counted by \`npm run steps\`, which drives the real interface on the sample company.
Keys are counted beside the names and numbers that are typed; two keys at once count as two. A test does them again and
compares.

| task | keys | clicks |
|---|---|---|
${rows.join('\n')}
`,
);
