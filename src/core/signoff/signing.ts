import type { Day } from '../calendar/workdays';
import { formatMoney, type Minor } from '../money/money';
import type { Role } from '../people/rights';
import { done, refusal, refused, type Result } from '../result';
import { deputiesOf, type Deputy } from './deputies';
import type { SignedBy } from './ladder';

export type Signatory = { readonly id: number; readonly name: string; readonly roles: readonly Role[] };

/** A signature that somebody is asked for. */
export type AskedSignature = {
  readonly place: number;
  readonly by: SignedBy;
  /** To whom it was handed on; null while it was not. */
  readonly handedTo: number | null;
  readonly state: 'waiting' | 'signed' | 'refused' | 'gone';
  /** Who decided, and for whom where they did so as a deputy. */
  readonly decidedBy: number | null;
  readonly forId: number | null;
};

/** What decides who may sign. `value` is what the order comes to in the company's currency. */
export type Matter = {
  readonly number: string;
  readonly value: Minor;
  readonly currency: string;
  /** Everybody who wrote on the order, with how far each may sign for what they wrote themselves. */
  readonly writers: ReadonlyMap<number, Minor>;
  readonly asked: readonly AskedSignature[];
  /** Everybody who may sign orders. */
  readonly people: readonly Signatory[];
  readonly deputies: readonly Deputy[];
  readonly today: Day;
};

/** The step that is to be signed now: the first with a signature that is waited for. */
export function stepNow(asked: readonly AskedSignature[]): number | undefined {
  const waiting = asked.filter((a) => a.state === 'waiting').map((a) => a.place);
  return waiting.length === 0 ? undefined : Math.min(...waiting);
}

/** The people whose signature it is, without their deputies. */
export function holdersOf(
  { by, handedTo }: Pick<AskedSignature, 'by' | 'handedTo'>,
  people: readonly Signatory[],
): number[] {
  if (handedTo !== null) return [handedTo];
  return by.kind === 'person' ? [by.personId] : people.filter((p) => p.roles.includes(by.role)).map((p) => p.id);
}

/** For whom a person would sign: null for themselves, undefined when it is not theirs. */
function standsFor(
  personId: number,
  asked: AskedSignature,
  { people, deputies, today }: Matter,
): number | null | undefined {
  const holders = holdersOf(asked, people);
  if (holders.includes(personId)) return null;
  return holders.find((h) => deputiesOf(h, deputies, today).has(personId));
}

/**
 * Whether a person may sign what is asked, and for whom. Nobody signs beyond their own limit for an order that they
 * wrote on, and nobody signs twice: for another, and for themselves or somebody else as well.
 *
 * @returns the person they sign for, null for themselves; or why not
 */
export function maySign(personId: number, asked: AskedSignature, matter: Matter): Result<number | null> {
  const { number, value, currency, writers, people } = matter;
  if (!people.some((p) => p.id === personId))
    return refused(
      refusal('signOff.right', 'You don’t have permission to sign orders. Reassign it, or ask a manager.'),
    );
  const forId = standsFor(personId, asked, matter);
  if (forId === undefined) return refused(refusal('signOff.notYours', `${number} isn’t waiting for your signature.`));
  const limit = writers.get(personId);
  if (limit !== undefined && value > limit)
    return refused(
      refusal(
        'signOff.own',
        `You worked on ${number}, and it is over your ${formatMoney(limit, currency)} limit for own orders. Reassign it.`,
      ),
    );
  const before = matter.asked.filter((a) => a.state === 'signed' && a.decidedBy === personId);
  if (before.length > 0 && (forId !== null || before.some((a) => a.forId !== null)))
    return refused(refusal('signOff.twice', `You’ve already signed ${number}; you can’t sign again for someone else.`));
  return done(forId);
}

/** Everybody who may sign what is asked, as it stands: those whose it is, or their deputies. */
export const signatories = (asked: AskedSignature, matter: Matter): Signatory[] =>
  matter.people.filter((p) => maySign(p.id, asked, matter).ok);
