import { ensureBuild, ensurePackages, runTs } from './prepare.mjs';

ensurePackages();
ensureBuild();
runTs('scripts/serve.ts', process.argv.slice(2));
