import { JOB_KINDS } from '../jobs/states';
import { z } from 'zod';
import { isCurrency } from '../money/currencies';
import { minorSchema } from '../money/schema';
import { ROLES } from '../people/rights';
import { hasShare, RULE_ANSWERS, RULE_KINDS } from '../signoff/rules';
import { requiredDay } from './fields';
import { picked, pickedOrNone, typedMoney, typedShare, type Named } from './typed';

const notBelowZero = minorSchema.refine((m) => m >= 0, 'Enter 0 or more.');

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
  jobKind: z.enum(JOB_KINDS).nullable(),
  currency: z.string().refine(isCurrency, 'Use a currency code such as EUR or USD.').nullable(),
  onRule: z.boolean(),
  signers: z
    .array(signer)
    .min(1, 'Choose who signs.')
    .max(MOST_SIGNERS, `No more than ${MOST_SIGNERS} people or roles per step.`)
    .refine(
      (all) => new Set(all.map((s) => JSON.stringify(s))).size === all.length,
      'The same person or role appears twice.',
    ),
});
export type StepFields = z.output<typeof stepFields>;

export const ladderFields = z.object({
  steps: z.array(stepFields).max(MOST_STEPS, `No more than ${MOST_STEPS} steps.`),
  /** Hundredths of a percent. */
  signToleranceShare: z.number().int().min(0, 'Enter 0 or more.').max(10_000, 'No more than 100 %.'),
  signToleranceMost: notBelowZero,
});

const MOST_SHARE = 100_000;

export const ruleFields = z.object({
  rules: z
    .array(
      z
        .object({
          kind: z.enum(RULE_KINDS),
          share: z.number().int().min(0, 'Enter 0 or more.').max(MOST_SHARE, 'No more than 1,000 %.'),
          answer: z.enum(RULE_ANSWERS),
        })
        .transform((rule) => (hasShare(rule.kind) ? rule : { ...rule, share: 0 })),
    )
    .length(RULE_KINDS.length, 'Choose what each rule does.')
    .refine((all) => new Set(all.map((r) => r.kind)).size === all.length, 'A rule appears twice.'),
});

export const deputyFields = z.object({
  personId: z.number().int(),
  deputyId: z.number().int().positive('Choose who signs.'),
  fromDay: requiredDay('Enter the first date.'),
  toDay: requiredDay('Enter the last date.'),
});

/** Who signs a step, as it is picked. */
export type SignerText = Exclude<z.output<typeof signer>, { kind: 'person' }> | { kind: 'person'; person: Named };

const signersText = z
  .custom<readonly SignerText[]>(Array.isArray)
  .transform((all) => all.map((s) => (s.kind === 'person' ? { kind: s.kind, personId: s.person.id } : s)))
  .pipe(stepFields.shape.signers);

const orNothing = <S extends z.ZodType>(schema: S) =>
  z
    .string()
    .transform((t) => (t === '' ? null : t))
    .pipe(schema as z.ZodType<z.output<S>, string | null>);

/** The ladder as it is typed. @param own - the company's currency */
export function ladderForm(own: string) {
  const { shape } = stepFields;
  const step = z.object({
    id: shape.id,
    valueAbove: typedMoney(shape.valueAbove, own, null),
    overAbove: typedMoney(shape.overAbove, own, null),
    costCodeId: pickedOrNone,
    supplierId: pickedOrNone,
    jobKind: orNothing(shape.jobKind),
    currency: orNothing(shape.currency),
    onRule: shape.onRule,
    signers: signersText,
  });
  return z.object({
    steps: z.array(step).max(MOST_STEPS, `No more than ${MOST_STEPS} steps.`),
    signToleranceShare: typedShare(ladderFields.shape.signToleranceShare),
    signToleranceMost: typedMoney(ladderFields.shape.signToleranceMost, own),
  });
}
export type LadderText = z.input<ReturnType<typeof ladderForm>>;

const typedRule = z.object({
  kind: z.enum(RULE_KINDS),
  share: typedShare(z.number().int().min(0, 'Enter 0 or more.').max(MOST_SHARE, 'No more than 1,000 %.'), 1000),
  answer: z.enum(RULE_ANSWERS),
});

/** The rules as they are typed. */
export const rulesForm = z.object({ rules: z.array(typedRule) });

/** A deputy as they are named. */
export const deputyForm = z.object({
  ...deputyFields.shape,
  personId: picked('Choose who is away.'),
  deputyId: picked('Choose who signs.'),
});
