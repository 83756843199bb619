// The one command that checks everything, on a fresh clone too. Ends with a line "N passed, N failed".
import { build, end, ensureChromium, shortBench, staticChecks, tests } from './checks.mjs';
import { ensurePackages } from './prepare.mjs';

ensurePackages();
ensureChromium();
await Promise.all([staticChecks().then(build).then(shortBench), tests('unit')]);
await tests('browser');
end();
