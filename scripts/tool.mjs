// Runs a script of this project on a fresh clone too: installs and builds first. Usage: node scripts/tool.mjs bench|shots
import { ensureBuild, ensurePackages, runTs } from './prepare.mjs';

const [name, ...args] = process.argv.slice(2);
ensurePackages();
await ensureBuild();
runTs(`scripts/${name}.ts`, args);
