import { z } from 'zod';
import { text } from './fields';

/** What is said when the customer has said yes. */
export const winningFields = z.object({ wonBy: text(120, 'Say who of the customer said yes.') });
