import axeCore from 'axe-core';
import type { Browser } from './driver';

type Finding = { id: string; nodes: { target: string[]; failureSummary: string }[] };

/** What axe-core finds wrong by WCAG 2.0, 2.1 and 2.2, levels A and AA. */
export async function axe(browser: Browser): Promise<string[]> {
  await browser.driver.executeScript(axeCore.source);
  const found = (await browser.driver.executeAsyncScript(`
    const done = arguments[arguments.length - 1];
    axe.run(document, { runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'] }).then((r) => done(r.violations));`)) as Finding[];
  return found.flatMap((f) =>
    f.nodes.map((n) => `${f.id}: ${n.target.join(' ')} ${n.failureSummary.split('\n')[1] ?? ''}`),
  );
}
