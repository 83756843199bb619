import { formatMoney, minor } from '../money/money';
import { committedOf, forecastOf, type Level } from '../tab/sums';
import type { Reckoned, SigningFacts } from './facts';

/** What the company watches when something is bought. */
export const RULE_KINDS = [
  'forecastOfCode',
  'forecastOfJob',
  'committedOfCode',
  'committedOfJob',
  'priceAboveQuote',
  'noBudget',
  'onHold',
] as const;
export type RuleKind = (typeof RULE_KINDS)[number];

/** What a rule does with an order that it finds. */
export const RULE_ANSWERS = ['off', 'warn', 'signOff', 'forbid'] as const;
export type RuleAnswer = (typeof RULE_ANSWERS)[number];

export const RULE_ANSWER_NAMES: Readonly<Record<RuleAnswer, string>> = {
  off: 'allow',
  warn: 'warn',
  signOff: 'need sign-off',
  forbid: 'block',
};

export const RULE_NAMES: Readonly<Record<RuleKind, string>> = {
  forecastOfCode: 'Forecast beyond this share of a cost code’s budget',
  forecastOfJob: 'Forecast beyond this share of a job’s budget',
  committedOfCode: 'Committed beyond this share of a cost code’s budget',
  committedOfJob: 'Committed beyond this share of a job’s budget',
  priceAboveQuote: 'A price above the quote’s cost by more than this share',
  noBudget: 'Buying for a cost code without a budget',
  onHold: 'Buying for a job on hold',
};

/** Whether a rule has a share: so much of the budget, or so much above the quote. */
export const hasShare = (kind: RuleKind): boolean => kind !== 'noBudget' && kind !== 'onHold';

/** @property share - hundredths of a percent; 0 where the kind has none */
export type BuyingRule = { readonly kind: RuleKind; readonly share: number; readonly answer: RuleAnswer };

/** What rules are before the company says otherwise: nothing passes a budget unseen. */
export const USUAL_RULES: readonly BuyingRule[] = [
  { kind: 'forecastOfCode', share: 10_000, answer: 'warn' },
  { kind: 'forecastOfJob', share: 10_000, answer: 'warn' },
  { kind: 'committedOfCode', share: 9_000, answer: 'off' },
  { kind: 'committedOfJob', share: 9_000, answer: 'off' },
  { kind: 'priceAboveQuote', share: 1_000, answer: 'warn' },
  { kind: 'noBudget', share: 0, answer: 'warn' },
  { kind: 'onHold', share: 0, answer: 'warn' },
];

/** Something that a rule found on an order. */
export type Finding = {
  readonly kind: RuleKind;
  readonly answer: Exclude<RuleAnswer, 'off'>;
  readonly words: string;
  /** The accounts it is about. */
  readonly accounts: readonly Reckoned[];
};

const FULL = 10_000;
const beyond = (amount: number, budget: number, share: number) => amount * FULL > budget * share;
const percent = (share: number) => `${share / 100} %`;

/** How an account is called: “412 03 Electrical”. */
export type NameOf = (account: Pick<Reckoned, 'jobId' | 'costCodeId'>) => string;

type Found = { readonly words: string; readonly accounts: readonly Reckoned[] };
type Finder = (facts: SigningFacts, share: number, nameOf: NameOf) => Found[];

const ofCodes =
  (amountOf: (level: Level) => number, word: string): Finder =>
  ({ accounts, companyCurrency }, share, nameOf) =>
    accounts.flatMap((a) =>
      a.level === undefined || a.level.budget <= 0 || !beyond(amountOf(a.level), a.level.budget, share)
        ? []
        : [{ words: passed(nameOf(a), a.level, amountOf, word, share, companyCurrency), accounts: [a] }],
    );

const ofJobs =
  (amountOf: (level: Level) => number, word: string): Finder =>
  ({ accounts, jobs, companyCurrency }, share) =>
    jobs.flatMap((j) =>
      j.level.budget <= 0 || !beyond(amountOf(j.level), j.level.budget, share)
        ? []
        : [
            {
              words: passed(`Job ${j.number}`, j.level, amountOf, word, share, companyCurrency),
              accounts: accounts.filter((a) => a.jobId === j.id),
            },
          ],
    );

function passed(
  name: string,
  { budget, ...level }: Level,
  amountOf: (level: Level) => number,
  word: string,
  share: number,
  currency: string,
): string {
  const amount = amountOf({ budget, ...level });
  return share === FULL
    ? `${name} goes ${formatMoney(minor(amount - budget), currency)} over budget`
    : `${name} has ${formatMoney(minor(amount), currency)} ${word}, more than ${percent(share)} of its budget`;
}

const FINDERS: Readonly<Record<RuleKind, Finder>> = {
  forecastOfCode: ofCodes(forecastOf, 'forecast'),
  forecastOfJob: ofJobs(forecastOf, 'forecast'),
  committedOfCode: ofCodes(committedOf, 'committed'),
  committedOfJob: ofJobs(committedOf, 'committed'),
  priceAboveQuote: ({ lines, accounts, companyCurrency }, share) =>
    lines
      .filter((l) => l.quoted > 0 && beyond(l.pays - l.quoted, l.quoted, share))
      .map((l) => ({
        words: `${l.description} costs ${formatMoney(minor(l.pays - l.quoted), companyCurrency)} more than quoted`,
        accounts: accounts.filter((a) => a.jobId === l.jobId && a.costCodeId === l.costCodeId),
      })),
  noBudget: ({ accounts }, _, nameOf) =>
    accounts
      .filter((a) => a.level !== undefined && a.level.budget <= 0 && a.value > 0)
      .map((a) => ({ words: `${nameOf(a)} has no budget`, accounts: [a] })),
  onHold: ({ jobs, accounts }) =>
    jobs
      .filter((j) => j.onHold !== null)
      .map((j) => ({
        words: `Job ${j.number} is on hold: ${j.onHold}`,
        accounts: accounts.filter((a) => a.jobId === j.id),
      })),
};

/**
 * What the company's rules find on an order, the gravest first.
 *
 * @example a code with a budget of 1,000.00 and a forecast of 1,010.00 is found by `forecastOfCode` at 100 %
 */
export function findByRules(facts: SigningFacts, rules: readonly BuyingRule[], nameOf: NameOf): Finding[] {
  const found = rules.flatMap(({ kind, share, answer }) =>
    answer === 'off' ? [] : FINDERS[kind](facts, share, nameOf).map((f): Finding => ({ kind, answer, ...f })),
  );
  return found.sort((a, b) => RULE_ANSWERS.indexOf(b.answer) - RULE_ANSWERS.indexOf(a.answer));
}
