// What `npm test` and `npm run proof` are made of: checks that run beside one another, and what they come to.
import { spawn } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { hasCommand, root, run } from './prepare.mjs';

const CHROMIUM = ['/usr/bin/chromium', '/usr/bin/chromedriver'];
const sums = { passed: 0, failed: 0 };

// Files in memory make the tests of real files twice as fast.
if (existsSync('/dev/shm')) process.env.TMPDIR = '/dev/shm';

/** The browser tests drive Debian's Chromium; it is installed where that can be done. */
export function ensureChromium() {
  if (CHROMIUM.every((p) => existsSync(p))) return;
  if (hasCommand('apt-get') && process.getuid?.() === 0) {
    console.log('Installing Chromium for the browser tests…');
    run('apt-get', ['update', '-q'], { stdio: 'ignore', mayFail: true });
    run('apt-get', ['install', '-y', '-q', 'chromium', 'chromium-driver'], {
      stdio: 'ignore',
      mayFail: true,
      env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
    });
  }
  if (CHROMIUM.every((p) => existsSync(p))) return;
  console.error(
    'The browser tests need Debian’s Chromium and its driver:\n  sudo apt-get install chromium chromium-driver\nthen run npm test again.',
  );
  process.exit(1);
}

/** Runs a program beside others; what it said is told at its end, in one piece. */
function ending(name, args, env = {}) {
  const began = Date.now();
  return new Promise((resolve) => {
    const told = [];
    const child = spawn(process.execPath, args, {
      cwd: root,
      stdio: ['ignore', 'pipe', 'pipe'],
      env: { ...process.env, NEXT_TELEMETRY_DISABLED: '1', ...env },
    });
    for (const stream of [child.stdout, child.stderr]) stream.on('data', (part) => told.push(part));
    child.on('close', (code) => {
      console.log(`\n— ${name}: ${Math.round((Date.now() - began) / 1000)} s\n${Buffer.concat(told)}`);
      resolve(code === 0);
    });
  });
}

const bin = (name) => join(root, 'node_modules', '.bin', name);

/** A check of the code as it stands, by a program of its own. */
async function check(name, ...args) {
  sums[(await ending(name, args)) ? 'passed' : 'failed'] += 1;
}

export async function staticChecks() {
  await check('types', bin('tsc'), '--noEmit');
  await check('lint', bin('eslint'), '.', '--max-warnings', '0');
  await check('format', bin('prettier'), '--check', 'src', 'tests', 'scripts');
  await check('layers', bin('depcruise'), '--config', '.dependency-cruiser.cjs', 'src');
  await check('unused code', bin('knip'));
}

/** The built application, built in a process of its own. */
export const build = () => check('build', '-e', 'import("./scripts/prepare.mjs").then((m) => m.ensureBuild())');

/** The bench from one end to the other on a small company: whether it runs, not how fast. */
export const shortBench = () => check('bench, short', '--import', 'tsx', join('scripts', 'bench.ts'), '--short');

/**
 * Runs tests with Jest, on two cores.
 * @param project unit or browser
 * @param files which of its files; all of them when none is named
 */
export async function tests(project, files = [], env = {}) {
  const folder = mkdtempSync(join(tmpdir(), 'kettle-jest-'));
  const report = join(folder, 'report.json');
  const jest = join(root, 'node_modules', 'jest', 'bin', 'jest.js');
  const options = ['--json', `--outputFile=${report}`, '--maxWorkers=2', `--selectProjects=${project}`, ...files];
  const node = ['--experimental-vm-modules', '--disable-warning=ExperimentalWarning', jest];
  await ending(`${project} tests`, [...node, ...options], env);
  const result = existsSync(report)
    ? JSON.parse(readFileSync(report, 'utf8'))
    : { numPassedTests: 0, numFailedTests: 0, numFailedTestSuites: 1 };
  rmSync(folder, { recursive: true });
  sums.passed += result.numPassedTests;
  sums.failed += Math.max(result.numFailedTests, result.numFailedTestSuites);
}

/** Tells what all of it came to, and ends with a failure when something failed. */
export function end() {
  console.log(`\n${sums.passed} passed, ${sums.failed} failed`);
  process.exit(sums.failed === 0 ? 0 : 1);
}
