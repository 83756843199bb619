import { type JobKind } from '../jobs/states';
import type { Role } from '../people/rights';
import type { Minor } from '../money/money';
import type { Charged, Reckoned, SigningFacts } from './facts';
import type { Finding } from './rules';

/** Who signs a step: one person, anybody with a role, or the lead of each job that it is about. */
export type Signer =
  | { readonly kind: 'person'; readonly personId: number }
  | { readonly kind: 'role'; readonly role: Role }
  | { readonly kind: 'lead' };

/** When a step is asked for: all that is said has to hold; a step that says nothing is always asked for. */
export type Conditions = {
  /** The order comes to more than this, in minor units of the company's currency. */
  readonly valueAbove: Minor | null;
  /** A budget ends over by more than this. */
  readonly overAbove: Minor | null;
  readonly costCodeId: number | null;
  readonly supplierId: number | null;
  readonly jobKind: JobKind | null;
  readonly currency: string | null;
  /** A rule asks for sign-off. */
  readonly onRule: boolean;
};

export type LadderStep = Conditions & { readonly id: number; readonly signers: readonly Signer[] };

/** Somebody named, or anybody with a role: a lead is a person by now. */
export type SignedBy = Exclude<Signer, { kind: 'lead' }>;

/** A signature that an order needs. */
export type Needed = {
  readonly stepId: number;
  /** Where its step stands among those that are asked for, from 1; those of one step are given in any order. */
  readonly place: number;
  readonly by: SignedBy;
  /** The jobs that it signs for as their lead. */
  readonly leads: readonly number[];
  /** What it is about. */
  readonly about: readonly Charged[];
  /** Whether each account of it counts, because its step looks at single budgets; else only what they come to. */
  readonly each: boolean;
};

const looksAtBudgets = (step: Conditions) => step.overAbove !== null || step.costCodeId !== null;

function aboutOf(step: LadderStep, facts: SigningFacts, findings: readonly Finding[]): readonly Reckoned[] {
  const asked = new Set(findings.filter((f) => f.answer === 'signOff').flatMap((f) => f.accounts));
  const kinds = new Map(facts.jobs.map((j) => [j.id, j.kind]));
  return facts.accounts.filter(
    (a) =>
      (step.overAbove === null || a.over > step.overAbove) &&
      (step.costCodeId === null || a.costCodeId === step.costCodeId) &&
      (step.jobKind === null || kinds.get(a.jobId ?? 0) === step.jobKind) &&
      (!step.onRule || asked.has(a)),
  );
}

const isAsked = (step: LadderStep, { value, supplierId, currency }: SigningFacts): boolean =>
  (step.valueAbove === null || value > step.valueAbove) &&
  (step.supplierId === null || supplierId === step.supplierId) &&
  (step.currency === null || currency === step.currency);

const keyOf = (by: SignedBy) => (by.kind === 'person' ? `p${by.personId}` : `r${by.role}`);

/** What is bought for no job has no lead: a manager signs for it. */
const FOR_STORES: SignedBy = { kind: 'role', role: 'manager' };

function signersOf(
  signer: Signer,
  about: readonly Reckoned[],
  { jobs }: SigningFacts,
): Pick<Needed, 'by' | 'leads' | 'about'>[] {
  if (signer.kind !== 'lead') return [{ by: signer, leads: [], about }];
  const leads = new Map(jobs.map((j) => [j.id, j.leadId]));
  const found = new Map<string, { by: SignedBy; leads: number[]; about: Reckoned[] }>();
  for (const account of about) {
    const personId = leads.get(account.jobId ?? 0);
    const by: SignedBy = personId === undefined ? FOR_STORES : { kind: 'person', personId };
    const known = found.get(keyOf(by)) ?? { by, leads: [], about: [] };
    if (account.jobId !== null && !known.leads.includes(account.jobId)) known.leads.push(account.jobId);
    known.about.push(account);
    found.set(keyOf(by), known);
  }
  return [...found.values()];
}

/** Two signatures of one step by the same person are one, about all that both are about. */
function merged(needed: readonly Needed[]): Needed[] {
  const found = new Map<string, Needed>();
  for (const n of needed) {
    const known = found.get(keyOf(n.by));
    if (known === undefined) found.set(keyOf(n.by), n);
    else
      found.set(keyOf(n.by), {
        ...known,
        leads: [...new Set([...known.leads, ...n.leads])],
        about: [...new Set([...known.about, ...n.about])],
      });
  }
  return [...found.values()];
}

/**
 * The signatures that an order needs, in the order of the ladder's steps.
 *
 * @param findings - what the company's rules found on it
 * @returns none when no step is asked for, so that it may be sent at once
 */
export function neededFor(ladder: readonly LadderStep[], facts: SigningFacts, findings: readonly Finding[]): Needed[] {
  const asked = ladder
    .filter((step) => isAsked(step, facts))
    .map((step) => ({ step, about: aboutOf(step, facts, findings) }))
    .filter(({ about }) => about.length > 0);
  return asked.flatMap(({ step, about }, k) => {
    const common = { stepId: step.id, place: k + 1, each: looksAtBudgets(step) };
    return merged(step.signers.flatMap((s) => signersOf(s, about, facts).map((n): Needed => ({ ...common, ...n }))));
  });
}

/** A signature that was given, with what it was given on. */
export type Given = {
  readonly stepId: number;
  readonly by: SignedBy;
  readonly supplierId: number;
  readonly about: readonly Charged[];
};

/** How much an order may come to more than what was signed, both in hundredths of a percent and in minor units. */
export type Tolerance = { readonly share: number; readonly most: Minor };

const sum = (about: readonly Charged[]) => about.reduce((all, a) => all + a.value, 0);

const within = (now: number, signed: number, { share, most }: Tolerance) =>
  now <= signed + Math.min(Math.floor((Math.max(signed, 0) * share) / 10_000), most);

const accountKey = (a: Charged) => `${a.jobId}/${a.costCodeId}`;

function sums(about: readonly Charged[]): Map<string, number> {
  const found = new Map<string, number>();
  for (const a of about) found.set(accountKey(a), (found.get(accountKey(a)) ?? 0) + a.value);
  return found;
}

/**
 * Whether what was agreed to still covers what a signature is needed for: the same supplier, no other job, and no more
 * money than the tolerance allows, account by account where its step looks at single budgets.
 */
export function covers(
  agreed: Pick<Given, 'supplierId' | 'about'>,
  needed: Needed,
  supplierId: number,
  tolerance: Tolerance,
): boolean {
  if (agreed.supplierId !== supplierId) return false;
  const jobs = new Set(agreed.about.map((a) => a.jobId));
  if (needed.about.some((a) => !jobs.has(a.jobId))) return false;
  if (!needed.each) {
    const signedFor = new Set(needed.about.map((a) => a.jobId));
    return within(sum(needed.about), sum(agreed.about.filter((a) => signedFor.has(a.jobId))), tolerance);
  }
  const signed = sums(agreed.about);
  return [...sums(needed.about)].every(
    ([key, value]) => signed.has(key) && within(value, signed.get(key) ?? 0, tolerance),
  );
}

export const sameSigner = (a: SignedBy, b: SignedBy): boolean => keyOf(a) === keyOf(b);

/** Where an order stands with its ladder. */
export type Signatures<G extends Given = Given> = {
  readonly signed: readonly { readonly needed: Needed; readonly given: G }[];
  /** What is still needed, in the order in which it is signed. */
  readonly missing: readonly Needed[];
};

/**
 * Which of the needed signatures are there. What was sent already counts as agreed to by everybody, so that a revision
 * asks only for what it adds.
 *
 * @param given - the latest first
 * @param sent - the order as its supplier has it; undefined before it is sent
 */
export function signaturesOf<G extends Given>(
  needed: readonly Needed[],
  given: readonly G[],
  supplierId: number,
  tolerance: Tolerance,
  sent?: Pick<Given, 'supplierId' | 'about'>,
): Signatures<G> {
  const open = needed.filter((n) => sent === undefined || !covers(sent, n, supplierId, tolerance));
  const found = open.map((n) => ({
    needed: n,
    given: given.find((g) => g.stepId === n.stepId && sameSigner(g.by, n.by) && covers(g, n, supplierId, tolerance)),
  }));
  return {
    signed: found.flatMap((f) => (f.given === undefined ? [] : [{ needed: f.needed, given: f.given }])),
    missing: found.flatMap((f) => (f.given === undefined ? [f.needed] : [])),
  };
}
