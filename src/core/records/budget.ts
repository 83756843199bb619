import { z } from 'zod';
import { HELD_NAME } from '../budgets/rows';
import { minorSchema } from '../money/schema';
import { anyText, requiredDay, text } from './fields';
import { rowsOf, typedMoney, typedShareOrNone, type Named } from './typed';

const MOST_LINES = 200;

const line = z.object({
  /** Without a cost code it is what is held back. */
  costCodeId: z.number().int().nullable(),
  amount: minorSchema.refine((a) => a !== 0, 'Enter an amount.'),
});

/** A change of a job's budget. */
export const budgetChangeFields = z.object({
  day: requiredDay('Enter a date.'),
  reason: text(300, 'Give a reason for the budget change.'),
  customerReference: anyText(80),
  agreedBy: anyText(120),
  /** What the customer pays more or less for it. */
  quoteChange: minorSchema.nullable(),
  lines: z.array(line).max(MOST_LINES, `No more than ${MOST_LINES} lines.`),
});

/** What is said of how a cost code ends. */
export const completionFields = z.object({
  costCodeId: z.number().int(),
  amount: minorSchema.refine((a) => a >= 0, 'Enter 0 or more.').nullable(),
  /** Hundredths of a percent. */
  done: z.number().int().min(0, 'Enter 0 or more.').max(10_000, 'No more than 100 %.').nullable(),
  reason: text(300, 'Give a reason.'),
});

/** The same as it is typed. @param own - the company's currency */
export const completionForm = (own: string) => {
  const { shape } = completionFields;
  return z.object({
    amount: typedMoney(shape.amount, own, null),
    done: typedShareOrNone(shape.done),
    reason: shape.reason,
  });
};

export const budgetNoteField = anyText(300);

/** The one that stands for what is held back, where a cost code is picked. */
export const HELD: Named = { id: 0, number: '', name: HELD_NAME };

export type ChangeLineText = { readonly code: Named | null; readonly amount: string };

/** A change as it is typed. @param own - the company's currency */
export function budgetChangeForm(own: string) {
  const { shape } = budgetChangeFields;
  const row = z.object({
    code: z.custom<Named | null>().transform((named, ctx) => {
      if (named !== null) return named.id === HELD.id ? null : named.id;
      ctx.addIssue({ code: 'custom', message: 'Choose a cost code, or the contingency.' });
      return z.NEVER;
    }),
    amount: typedMoney(line.shape.amount, own),
  });
  return z.object({
    ...shape,
    quoteChange: typedMoney(shape.quoteChange, own, null),
    lines: rowsOf<ChangeLineText, typeof row>(row, (l) => l.code === null && l.amount.trim() === '').transform((rows) =>
      rows.map(({ code, amount }) => ({ costCodeId: code, amount })),
    ),
  });
}
export type BudgetChangeText = z.input<ReturnType<typeof budgetChangeForm>>;
