import { type JobKind } from '../jobs/states';
import { formatMoney } from '../money/money';
import { ROLE_NAMES } from '../people/rights';
import { together } from '../words';
import type { Conditions, Needed, SignedBy } from './ladder';

/** What things are called that a ladder speaks of. */
export type Names = {
  readonly currency: string;
  readonly person: (id: number) => string;
  readonly job: (id: number) => string;
  readonly code: (id: number) => string;
  readonly supplier: (id: number) => string;
};

const KINDS: Readonly<Record<JobKind, string>> = { contract: 'a contract', repair: 'a repair', make: 'a make job' };

/** @example 'Asha Penrose', or 'a manager' for anybody with a role */
export const whoSigns = (by: SignedBy, names: Pick<Names, 'person'>): string => {
  if (by.kind === 'person') return names.person(by.personId);
  const role = ROLE_NAMES[by.role].toLowerCase();
  if (by.role === 'accounts') return 'accounts';
  return /^[aeiou]/.test(role) ? `an ${role}` : `a ${role}`;
};

/** When a step is asked for, in words. @example 'above £ 4,000.00 and from Aldersey Galvanising' */
export function whenAsked(when: Conditions, names: Omit<Names, 'person' | 'job'>): string {
  const { valueAbove, overAbove, costCodeId, supplierId, jobKind, currency, onRule } = when;
  const said = [
    valueAbove === null ? '' : `above ${formatMoney(valueAbove, names.currency)}`,
    overAbove === null
      ? ''
      : overAbove === 0
        ? 'over budget'
        : `over budget by more than ${formatMoney(overAbove, names.currency)}`,
    costCodeId === null ? '' : `for ${names.code(costCodeId)}`,
    supplierId === null ? '' : `from ${names.supplier(supplierId)}`,
    jobKind === null ? '' : `for ${KINDS[jobKind]}`,
    currency === null ? '' : `in ${currency}`,
    onRule ? 'a rule needs it' : '',
  ].filter(Boolean);
  return together(said);
}

/** Why a signature is needed. @example 'leads 422, over budget by more than £ 50.00' */
export function whyNeeded(needed: Needed, when: Conditions, names: Names): string {
  const leads = needed.leads.length === 0 ? '' : `leads ${together(needed.leads.map(names.job))}`;
  return [leads, whenAsked(when, names)].filter(Boolean).join(', ') || 'signs every order';
}
