import { z } from 'zod';
import { LIMITS } from '../limits';
import { grouped } from '../words';
import { MOST, type Quantity } from './quantity';

/** A quantity in ten-thousandths of its unit, within what can be kept. */
export const quantitySchema = z.codec(
  z
    .number()
    .int()
    .min(-LIMITS.quantity, 'This quantity is too far below zero.')
    .max(LIMITS.quantity, { error: () => `No more than ${grouped(MOST)}.` }),
  z.custom<Quantity>(),
  { decode: (n) => n as Quantity, encode: Number },
);
