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
  if (signers.length === 0) return 'no one is named.';
  const may = new Set(people.map((p) => p.id));
  for (const signer of signers) {
    if (signer.kind === 'person' && !may.has(signer.personId))
      return 'the person named has no access or no right to sign.';
    if (signer.kind === 'role' && !people.some((p) => p.roles.includes(signer.role)))
      return `no one with access has the role ${ROLE_NAMES[signer.role].toLowerCase()} and can sign orders.`;
    if (signer.kind === 'lead') {
      const cannot = leads.filter((l) => !may.has(l.id)).map((l) => l.name);
      if (cannot.length > 0)
        return `${together(cannot)} ${cannot.length === 1 ? 'leads a live job and can’t' : 'lead live jobs and can’t'} sign orders.`;
    }
  }
  return undefined;
}
