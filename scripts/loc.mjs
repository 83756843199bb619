// Counts lines of code that are not blank, and the share of tests in them.
import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';

const files = execFileSync('git', ['ls-files', 'src', 'scripts', 'tests'], { encoding: 'utf8' })
  .split('\n')
  .filter((f) => /\.(ts|tsx|css|mjs)$/.test(f));
const isTest = (f) => f.startsWith('tests/') || /\.test\.tsx?$/.test(f);
const linesOf = (f) =>
  readFileSync(f, 'utf8')
    .split('\n')
    .filter((l) => l.trim() !== '').length;
const sum = (all) => all.reduce((n, f) => n + linesOf(f), 0);
const [tests, code] = [sum(files.filter(isTest)), sum(files.filter((f) => !isTest(f)))];
console.log(
  `${code} lines of code, ${tests} of tests: tests are ${Math.round((100 * tests) / (code + tests))} % of all.`,
);
