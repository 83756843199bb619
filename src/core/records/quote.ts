import { z } from 'zod';
import { anyText, optionalDay, text } from './fields';
import { MOST_PIECES, MOST_PRICED, piecesTyped } from '../quotes/pieces';
import { pickedOrNone, textFor, typedCount } from './typed';

/** What is said when the customer has said yes. */
export const winningFields = z.object({
  wonBy: text(120, 'Enter who accepted for the customer.'),
  customerOrder: anyText(60).default(''),
  customerOrderOn: optionalDay.default(null),
  deliveryAddress: anyText(400).default(''),
  plannerId: z.number().int().nullable().default(null),
});

/** The same as it is typed. */
export const winningForm = z.object({
  wonBy: winningFields.shape.wonBy,
  customerOrder: anyText(60),
  customerOrderOn: textFor(optionalDay),
  deliveryAddress: anyText(400),
  plannerId: pickedOrNone,
});

/** What a quote says to the customer beside its lines. */
const pieces = z.number().int().min(1, 'Enter 1 or more.').max(MOST_PIECES, `No more than ${MOST_PIECES} pieces.`);

export const sayingFields = z
  .object({
    takes: anyText(120),
    validUntil: optionalDay,
    words: anyText(2000),
    /** For how many pieces its lines are written; null for a quote that is not by the piece. */
    pieces: pieces.nullable(),
    /** For which numbers it is priced beside that. */
    alsoPieces: z.array(pieces).max(MOST_PRICED),
  })
  .refine(({ pieces: own, alsoPieces }) => own !== null || alsoPieces.length === 0, {
    message: 'Enter the quantity the lines are priced for.',
    path: ['pieces'],
  });

export const sayingForm = z
  .object({
    ...sayingFields.shape,
    validUntil: textFor(optionalDay),
    pieces: typedCount(pieces.nullable(), 'Enter a number of pieces.', null),
    alsoPieces: z.string().transform((typed, ctx) => {
      const read = piecesTyped(typed);
      if (read !== undefined) return read;
      ctx.addIssue({ code: 'custom', message: `Enter up to ${MOST_PRICED} quantities, like 25, 50, 100.` });
      return z.NEVER;
    }),
  })
  .transform(({ pieces: own, alsoPieces, ...saying }, ctx) => {
    if (own === null && alsoPieces.length > 0)
      ctx.addIssue({ code: 'custom', message: 'Enter the quantity the lines are priced for.', path: ['pieces'] });
    return { ...saying, pieces: own, alsoPieces: alsoPieces.filter((n) => n !== own) };
  });
