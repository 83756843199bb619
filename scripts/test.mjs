// The one command that checks everything, on a fresh clone too. Ends with a line "N passed, N failed".
import { spawnSync } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { ensureBuild, ensurePackages, hasCommand, root, run } from './prepare.mjs';

const CHROMIUM = ['/usr/bin/chromium', '/usr/bin/chromedriver'];

/** The browser tests drive Debian's Chromium; it is installed where that can be done. */
function ensureChromium() {
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

// Files in memory make the tests of real files twice as fast.
if (existsSync('/dev/shm')) process.env.TMPDIR = '/dev/shm';

const sums = { passed: 0, failed: 0 };
const bin = (name) => join(root, 'node_modules', '.bin', name);

function check(name, command, args) {
  console.log(`\n— ${name}`);
  const good = run(command, args, { mayFail: true });
  sums[good ? 'passed' : 'failed'] += 1;
}

function jest(project) {
  console.log(`\n— ${project} tests`);
  const folder = mkdtempSync(join(tmpdir(), 'kettle-jest-'));
  const report = join(folder, 'report.json');
  const options = [
    '--experimental-vm-modules',
    '--disable-warning=ExperimentalWarning',
    join(root, 'node_modules', 'jest', 'bin', 'jest.js'),
    '--selectProjects',
    project,
    '--json',
    `--outputFile=${report}`,
    // Server and browser fill two cores by themselves; unit tests take one each, where Jest would keep one free.
    project === 'browser' ? '--runInBand' : '--maxWorkers=100%',
  ];
  spawnSync(process.execPath, options, {
    cwd: root,
    stdio: ['ignore', 'ignore', 'inherit'],
    env: { ...process.env, NEXT_TELEMETRY_DISABLED: '1' },
  });
  const result = existsSync(report)
    ? JSON.parse(readFileSync(report, 'utf8'))
    : { numPassedTests: 0, numFailedTests: 0, numFailedTestSuites: 1 };
  rmSync(folder, { recursive: true });
  sums.passed += result.numPassedTests;
  sums.failed += Math.max(result.numFailedTests, result.numFailedTestSuites);
}

ensurePackages();
ensureChromium();
check('types', process.execPath, [bin('tsc'), '--noEmit']);
check('lint', process.execPath, [bin('eslint'), '.', '--max-warnings', '0']);
check('format', process.execPath, [
  join(root, 'node_modules', 'prettier', 'bin', 'prettier.cjs'),
  '--check',
  'src',
  'tests',
  'scripts',
]);
check('layers', process.execPath, [bin('depcruise'), '--config', '.dependency-cruiser.cjs', 'src']);
check('unused code', process.execPath, [bin('knip')]);
jest('unit');
await ensureBuild();
jest('browser');
console.log(`\n${sums.passed} passed, ${sums.failed} failed`);
process.exit(sums.failed === 0 ? 0 : 1);
