// Brings a fresh clone to where the application can run. Plain Node.js: nothing is installed when this starts.
import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

export const root = dirname(dirname(fileURLToPath(import.meta.url)));
const at = (...parts) => join(root, ...parts);

/** Runs a command to its end; stops the whole script when it fails, unless told otherwise. */
export function run(command, args, options = {}) {
  const { mayFail = false, ...rest } = options;
  const result = spawnSync(command, args, { cwd: root, stdio: 'inherit', ...rest });
  if (result.status !== 0 && !mayFail) process.exit(result.status ?? 1);
  return result.status === 0;
}

export const hasCommand = (name) => spawnSync('sh', ['-c', `command -v ${name}`], { stdio: 'ignore' }).status === 0;

const digest = (text) => createHash('sha256').update(text).digest('hex');

/** Installs the packages when there are none, or when the lock file is another one than they were installed from. */
export function ensurePackages() {
  const [major] = process.versions.node.split('.').map(Number);
  if (major < 20) {
    console.error(`Kettle Tab needs Node.js 20 or newer; this is ${process.version}.`);
    process.exit(1);
  }
  const mark = at('node_modules', '.kettle-lock');
  const lock = digest(readFileSync(at('package-lock.json'), 'utf8'));
  if (existsSync(mark) && readFileSync(mark, 'utf8') === lock) return;
  console.log('Installing packages; the database driver may be compiled, which takes some minutes…');
  const installed = run('npm', ['ci', '--no-fund', '--no-audit'], { mayFail: true });
  if (!installed || !run(process.execPath, ['-e', "require('better-sqlite3')"], { mayFail: true })) {
    console.error(
      '\nThe packages could not be installed. When the database driver failed to compile, it needs a C++ compiler, make and Python 3:\n  sudo apt-get install build-essential python3\nthen run the same command again.',
    );
    process.exit(1);
  }
  writeFileSync(mark, lock);
}

const SOURCES = [
  'src',
  'scripts/serve.ts',
  'server-packages.json',
  'next.config.ts',
  'postcss.config.mjs',
  'package-lock.json',
  'tsconfig.json',
];

function newest(path) {
  const stat = statSync(path);
  if (!stat.isDirectory()) return stat.mtimeMs;
  return Math.max(stat.mtimeMs, ...readdirSync(path).map((name) => newest(join(path, name))));
}

/** What was built to be run by Node.js itself. */
export const program = (name) => at('.next', 'programs', `${name}.mjs`);

/** Builds the application when its sources are newer than the last build: the pages, then what serves them. */
export async function ensureBuild() {
  const built = program('main');
  if (existsSync(built) && statSync(built).mtimeMs > Math.max(...SOURCES.map((s) => newest(at(s))))) return;
  console.log('Building the application…');
  run(process.execPath, [at('node_modules', 'next', 'dist', 'bin', 'next'), 'build'], {
    env: { ...process.env, NEXT_TELEMETRY_DISABLED: '1', KETTLE_FILE: at('data', 'build.sqlite') },
  });
  const { build } = await import('esbuild');
  await build({
    entryPoints: [
      at('scripts', 'serve.ts'),
      ...['main', 'writer', 'papers', 'files'].map((name) => at('src', 'server', `${name}.ts`)),
    ],
    entryNames: '[name]',
    outdir: dirname(built),
    outExtension: { '.js': '.mjs' },
    bundle: true,
    splitting: true,
    platform: 'node',
    format: 'esm',
    target: 'node20',
    external: ['next', ...JSON.parse(readFileSync(at('server-packages.json'), 'utf8'))],
    // Packages of the older kind ask for others by require.
    banner: {
      js: "import { createRequire as requirer } from 'node:module'; const require = requirer(import.meta.url);",
    },
  });
}

/** Runs a TypeScript file of this project with its packages. */
export const runTs = (file, args = [], options = {}) =>
  run(process.execPath, ['--import', 'tsx', at(file), ...args], options);
