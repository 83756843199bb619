import { z } from 'zod';
import type { Db } from '@/store/db';
import { findOrderNumbered } from '@/store/orders';
import type { Person } from '@/store/people';
import { endingEffects, type NamedEffect } from '@/workings/orders/effects';
import { permit } from '../permit';

export const endingSchema = z.object({
  what: z.enum(['cancel', 'closeShort', 'openAgain']),
  /** Of the order's lines; all of them where none is named. */
  lineId: z.number().int().nullable(),
});
export type Ending = z.output<typeof endingSchema>;

const BECOMES = { cancel: 'cancelled', closeShort: 'closedShort', openAgain: 'sent' } as const;

/** What ending an order or a line of it, or opening it again, does to every budget, before it is done. */
export async function previewEnding(
  db: Db,
  person: Person,
  number: string,
  { what, lineId }: Ending,
): Promise<readonly NamedEffect[] | undefined> {
  permit(person, 'see money');
  const order = await findOrderNumbered(db, number);
  if (order === undefined) return undefined;
  const lines = order.lines.filter((l) => lineId === null || l.id === lineId).map((l) => l.id);
  return endingEffects(db, order, lines, BECOMES[what]);
}
