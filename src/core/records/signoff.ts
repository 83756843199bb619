import { z } from 'zod';
import { isCurrency } from '../money/currencies';
import { minorSchema } from '../money/schema';
import { ROLES } from '../people/rights';
import { hasShare, RULE_ANSWERS, RULE_KINDS } from '../signoff/rules';
import { requiredDay } from './fields';

const notBelowZero = minorSchema.refine((m) => m >= 0, 'This cannot be below zero.');

/** Up to what a person may sign for an order that they wrote on. */
export const ownLimitField = notBelowZero;

const signer = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('person'), personId: z.number().int() }),
  z.object({ kind: z.literal('role'), role: z.enum(ROLES) }),
  z.object({ kind: z.literal('lead') }),
]);

const MOST_STEPS = 20;
const MOST_SIGNERS = 10;

/** A step of the ladder: who signs, and when. */
export const stepFields = z.object({
  id: z.number().int().optional(),
  valueAbove: notBelowZero.nullable(),
  overAbove: notBelowZero.nullable(),
  costCodeId: z.number().int().nullable(),
  supplierId: z.number().int().nullable(),
  jobKind: z.enum(['contract', 'repair', 'make']).nullable(),
  currency: z.string().refine(isCurrency, 'Use a currency code such as EUR or USD.').nullable(),
  onRule: z.boolean(),
  signers: z
    .array(signer)
    .min(1, 'Say who signs.')
    .max(MOST_SIGNERS, `At most ${MOST_SIGNERS} sign one step.`)
    .refine((all) => new Set(all.map((s) => JSON.stringify(s))).size === all.length, 'Somebody stands there twice.'),
});
export type StepFields = z.output<typeof stepFields>;

export const ladderFields = z.object({
  steps: z.array(stepFields).max(MOST_STEPS, `At most ${MOST_STEPS} steps.`),
  /** Hundredths of a percent. */
  signToleranceShare: z.number().int().min(0, 'This cannot be below zero.').max(10_000, 'At most 100 %.'),
  signToleranceMost: notBelowZero,
});

const MOST_SHARE = 100_000;

export const ruleFields = z.object({
  rules: z
    .array(
      z
        .object({
          kind: z.enum(RULE_KINDS),
          share: z.number().int().min(0, 'This cannot be below zero.').max(MOST_SHARE, 'At most 1,000 %.'),
          answer: z.enum(RULE_ANSWERS),
        })
        .transform((rule) => (hasShare(rule.kind) ? rule : { ...rule, share: 0 })),
    )
    .length(RULE_KINDS.length, 'Say what each rule does.')
    .refine((all) => new Set(all.map((r) => r.kind)).size === all.length, 'A rule stands there twice.'),
});

export const deputyFields = z.object({
  personId: z.number().int(),
  deputyId: z.number().int().positive('Say who signs.'),
  fromDay: requiredDay('Say from which day.'),
  toDay: requiredDay('Say until which day.'),
});
