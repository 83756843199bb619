import { JOB_KINDS } from '../jobs/states';
import { z } from 'zod';
import { anyText, optionalDay, text } from './fields';
import { picked, textFor } from './typed';

const LEAD = 'Choose the job lead.';

/** A job as it is opened. */
export const jobFields = z.object({
  number: z
    .string()
    .trim()
    .regex(/^[A-Za-z0-9-]{1,12}$/, 'A job number has up to 12 letters, digits or dashes.')
    // The address /jobs/new is that of the form.
    .refine((n) => n.toLowerCase() !== 'new', 'A job can’t be called “new”. Choose another number.'),
  name: text(120, 'Enter a name.'),
  shortName: anyText(28),
  kind: z.enum(JOB_KINDS),
  customer: text(120, 'Enter the customer.'),
  leadId: z.number().int().positive(LEAD),
  site: anyText(120),
  startsOn: optionalDay,
  dueOn: optionalDay,
});

/** The same as it is typed; its days stay text, as the action reads them. */
export const jobForm = z.object({
  ...jobFields.shape,
  leadId: picked(LEAD),
  startsOn: textFor(optionalDay),
  dueOn: textFor(optionalDay),
});
export type JobText = z.input<typeof jobForm>;
