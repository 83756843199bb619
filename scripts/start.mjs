import { ensureBuild, ensurePackages, program, run } from './prepare.mjs';

ensurePackages();
await ensureBuild();
run(process.execPath, [program('serve'), ...process.argv.slice(2)]);
