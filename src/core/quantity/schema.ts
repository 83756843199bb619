import { z } from 'zod';
import { LIMITS } from '../limits';
import { grouped } from '../words';
import { MOST, type Quantity } from './quantity';

/** A quantity in ten-thousandths of its unit, within what can be kept. */
export const quantitySchema = z.codec(
  z
    .number()
    .int()
    .min(-LIMITS.quantity, 'A quantity this far below zero cannot be kept.')
    .max(LIMITS.quantity, { error: () => `The most is ${grouped(MOST)}.` }),
  z.custom<Quantity>(),
  { decode: (n) => n as Quantity, encode: Number },
);
