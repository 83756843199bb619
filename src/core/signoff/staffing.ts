import { ROLE_NAMES } from '../people/rights';
import { together } from '../words';
import type { LadderStep } from './ladder';
import type { Signatory } from './signing';

/** Who may sign orders off, and who leads live jobs. */
export type Staff = {
  readonly people: readonly Signatory[];
  readonly leads: readonly { readonly id: number; readonly name: string }[];
};

/** Why a step could not be signed by anybody, with the people that there are; undefined when it can. */
export function nobodyFor({ signers }: Pick<LadderStep, 'signers'>, { people, leads }: Staff): string | undefined {
  if (signers.length === 0) return 'it says nobody who signs.';
  const may = new Set(people.map((p) => p.id));
  for (const signer of signers) {
    if (signer.kind === 'person' && !may.has(signer.personId))
      return 'its person does not sign in, or may not sign orders off.';
    if (signer.kind === 'role' && !people.some((p) => p.roles.includes(signer.role)))
      return `nobody who signs in is ${ROLE_NAMES[signer.role].toLowerCase()} and may sign orders off.`;
    if (signer.kind === 'lead') {
      const cannot = leads.filter((l) => !may.has(l.id)).map((l) => l.name);
      if (cannot.length > 0)
        return `${together(cannot)} ${cannot.length === 1 ? 'leads a live job and does' : 'lead live jobs and do'} not sign orders off.`;
    }
  }
  return undefined;
}
