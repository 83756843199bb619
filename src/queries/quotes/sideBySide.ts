import type { Day } from '@/core/calendar/workdays';
import { piecesKept, pricedFor, type Priced, type PricedLine } from '@/core/quotes/pieces';
import { loadCompany } from '@/store/company';
import type { Db } from '@/store/db';
import type { Person } from '@/store/people';
import { loadListed } from '@/store/quotes';
import { permit } from '../permit';

/** The lines of a page of a quote as they are typed, over those that are saved from one place to another. */
export type TypedPage = { readonly after: number; readonly upTo: number; readonly lines: readonly PricedLine[] };

/**
 * What a quote comes to for each number of pieces that it is priced for, its own among them, the smallest first; those
 * lines that are left open to the customer do not count.
 * @returns undefined for a quote that is not by the piece
 */
export async function loadSideBySide(
  db: Db,
  person: Person,
  quoteId: number,
  today: Day,
  typed?: TypedPage,
): Promise<Priced[] | undefined> {
  permit(person, 'see money');
  const quote = await db('quote').where({ id: quoteId }).first('pieces', 'alsoPieces');
  if (quote === undefined || quote.pieces === null) return undefined;
  const { currency } = await loadCompany(db);
  const query = db('quoteLine').where({ quoteId }).whereRaw('coalesce(agreed, 1 - optional) = 1');
  if (typed !== undefined) void query.whereNotBetween('place', [typed.after + 1, typed.upTo]);
  const lines = [...(await query), ...(typed?.lines ?? [])];
  const numbers = [...piecesKept(quote.alsoPieces), quote.pieces].sort((a, b) => a - b);
  return pricedFor(lines, quote.pieces, numbers, await loadListed(db, lines, today), currency);
}
