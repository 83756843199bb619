// The slow proofs in their long form: random histories beside the witnesses, previews, whatever is sent, kills and attacks.
import { build, end, ensureChromium, tests } from './checks.mjs';
import { ensurePackages } from './prepare.mjs';

const long = { KETTLE_PROOF: '1' };
ensurePackages();
ensureChromium();
await build();
await tests('unit', ['witness.test', 'previews.test', 'effects.test', 'fuzz.test', 'threads.test'], long);
await tests('browser', ['attack.test', 'Attack.test', 'killed.test'], long);
end();
