import { join } from 'node:path';

/** Where that stands which the build made to be run by Node.js itself (`scripts/prepare.mjs`). */
export const program = (name: 'main' | 'writer' | 'papers' | 'files' | 'serve'): string =>
  join(process.cwd(), '.next', 'programs', `${name}.mjs`);
