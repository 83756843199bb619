import { z } from 'zod';
import { anyText, text } from './fields';

/** Which of a customer's addresses a place is. */
export const CUSTOMER_PLACES = {
  main: 'Main address',
  invoicing: 'Invoicing address',
  delivery: 'Delivery address',
} as const;
export type CustomerPlace = keyof typeof CUSTOMER_PLACES;

/** What a place of delivery is kept as: typed for one order, a job's site, one of a customer's, or one of our own. */
export const placeKept = z.discriminatedUnion('as', [
  z.object({ as: z.literal('once') }),
  z.object({ as: z.literal('own') }),
  z.object({ as: z.literal('site'), jobId: z.number().int() }),
  z.object({
    as: z.literal('customer'),
    customerId: z.number().int(),
    which: z.enum(Object.keys(CUSTOMER_PLACES) as [CustomerPlace, ...CustomerPlace[]]),
  }),
]);
export type PlaceKept = z.output<typeof placeKept>;

/** A place of delivery as it is typed. */
export const placeFields = z.object({
  name: text(120, 'Enter a name.'),
  address: text(500, 'Enter the address.'),
  instructions: anyText(300),
});
