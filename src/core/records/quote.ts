import { z } from 'zod';
import { anyText, optionalDay, text } from './fields';
import { pickedOrNone, textFor } from './typed';

/** What is said when the customer has said yes. */
export const winningFields = z.object({
  wonBy: text(120, 'Say who of the customer said yes.'),
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
export const sayingFields = z.object({
  takes: anyText(120),
  validUntil: optionalDay,
  words: anyText(2000),
});

export const sayingForm = z.object({ ...sayingFields.shape, validUntil: textFor(optionalDay) });
