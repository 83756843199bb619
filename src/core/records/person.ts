import { z } from 'zod';
import { ROLES } from '../people/rights';
import { emailText, text } from './fields';

export const passwordField = z.string().min(10, 'Enter at least 10 characters.').max(200);

const name = text(120, 'Enter a name.');
const roles = z
  .array(z.enum(ROLES))
  .min(1, 'Choose at least one role.')
  .transform((r) => [...new Set(r)]);

/** What is changed of a person; the e-mail address is what they sign in with, and stays. */
export const personFields = z.object({ name, roles });
/** The same as it is typed, with the version that it changes. */
export const personForm = z.object({ ...personFields.shape, version: z.number() });

export const newPersonFields = z.object({ name, email: emailText, roles, password: passwordField });
export const passwordFields = z.object({ old: z.string().max(200), password: passwordField });
