import { z } from 'zod';
import { isUnit } from '../quantity/units';
import { FULL_SHARE, TAX_CATEGORIES } from '../money/tax';
import { text } from './fields';
import { typedShare } from './typed';

/** A heading of the budgets: a short number and a name. */
export const costCodeFields = z.object({
  code: text(8, 'Enter a number.').refine((c) => !/\s/.test(c), 'The number can’t have spaces.'),
  name: text(80, 'Enter a name.'),
});

/** Why a delivery was not as ordered, in a few words. */
export const reasonFields = z.object({ name: text(60, 'Enter the reason.') });

/** What a category of tax is called: UNCL 5305 as EN 16931-1 lists it for BT-118. */
export const TAX_CATEGORY_NAMES = {
  S: 'standard or reduced rate',
  Z: 'zero rate',
  E: 'exempt',
  AE: 'reverse charge',
  K: 'from another country of the EU',
  G: 'export',
  O: 'outside the tax',
} as const satisfies Record<(typeof TAX_CATEGORIES)[number], string>;

const taxShape = {
  name: text(60, 'Enter a name.'),
  category: z.enum(TAX_CATEGORIES),
  /** Hundredths of a percent. */
  rate: z.number().int().min(0, 'Enter 0 or more.').max(FULL_SHARE, 'No more than 100 %.'),
  /** The share that the company gets back, in hundredths of a percent. */
  recoverable: z.number().int().min(0, 'Enter 0 or more.').max(FULL_SHARE, 'No more than 100 %.'),
};

const onlyTaxed = [
  (t: { readonly category: string; readonly rate: number }) => (t.category === 'S') === t.rate > 0,
  { message: 'Only a standard or reduced rate has a percentage, and it must be above zero.', path: ['rate'] },
] as [(t: { readonly category: string; readonly rate: number }) => boolean, { message: string; path: string[] }];

/** A tax that purchases carry. By EN 16931 (BR-S-05 to BR-O-05) only category S has a rate above zero. */
export const taxFields = z.object(taxShape).refine(...onlyTaxed);

/** The same as it is typed. */
export const taxForm = z
  .object({ ...taxShape, rate: typedShare(taxShape.rate), recoverable: typedShare(taxShape.recoverable) })
  .refine(...onlyTaxed);

export const unitCodes = z
  .array(z.string().refine(isUnit, 'That isn’t a unit in use. Choose one.'))
  .transform((codes) => [...new Set(codes)].sort());

/** The cost codes of a text, one for each line that is not empty: a number, a space, and a name. */
export const codesIn = (lines: string): { code: string; name: string }[] =>
  lines
    .split('\n')
    .map((l) => l.trim())
    .filter(Boolean)
    .map((line) => {
      const [, code = line, name = ''] = /^(\S+)\s+(\S.*)$/.exec(line) ?? [];
      return { code, name };
    });

/** A text that `codesIn` reads. */
export const codeLines = z
  .string()
  .max(8000, 'No more than 8000 characters.')
  .superRefine((lines, ctx) => {
    const fault = (message: string) => ctx.addIssue({ code: 'custom', message });
    const codes = codesIn(lines);
    for (const { code, name } of codes)
      if (!costCodeFields.safeParse({ code, name }).success)
        fault(
          `“${code} ${name}`.trim() + '” isn’t a cost code. Type a number and a name, like “01 Hull and structure”.',
        );
    if (codes.length === 0) fault('Enter at least one cost code.');
    const twice = codes.find((c, k) => codes.findIndex((o) => o.code === c.code) !== k);
    if (twice !== undefined) fault(`Cost code ${twice.code} appears twice.`);
  });
