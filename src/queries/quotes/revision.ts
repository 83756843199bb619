import type { Quantity } from '@/core/quantity/quantity';
import { whyNotBought } from '@/core/quotes/winning';
import type { BoughtLine, RevisedLine } from '@/core/quotes/revision';
import type { Db } from '@/store/db';
import { loadItems } from '@/store/gathering';
import { boughtOf } from '@/store/needs';
import type { Person } from '@/store/people';
import { permit } from '../permit';

/** The won quote that a revision is to take the place of. */
export type Revised = {
  readonly number: string;
  /** Its lines that are bought, and how much of each is drafted or ordered already. */
  readonly lines: readonly (BoughtLine & { readonly ordered: Quantity })[];
  /** The bought lines of the revision, those left open to the customer among them. */
  readonly now: readonly (RevisedLine & { readonly optional: number })[];
};

/** What was won before a quote that revises it; undefined where nothing was. */
export async function loadRevised(db: Db, person: Person, quoteId: number): Promise<Revised | undefined> {
  permit(person, 'see money');
  const won = await db('quote').where({ revisedAs: quoteId, state: 'won' }).first('id', 'number');
  if (won === undefined) return undefined;
  const lines = await db('quoteLine').where({ quoteId: won.id, agreed: 1 }).orderBy('place');
  const now = await db('quoteLine').where({ quoteId }).orderBy('place');
  const items = await loadItems(
    db,
    [...lines, ...now].flatMap((l) => l.itemId ?? []),
  );
  const bought = lines.filter((l) => whyNotBought(l, items.get(l.itemId ?? 0)) === undefined);
  const ordered = await boughtOf(
    db,
    'quoteLineId',
    bought.map((l) => l.id),
  );
  return {
    number: won.number,
    lines: bought.map(({ id, description, unit, quantity, neededOn }) => ({
      ...{ id, description, unit, quantity, neededOn },
      ordered: ordered.get(id) ?? (0 as Quantity),
    })),
    now: now
      .filter((l) => whyNotBought({ ...l, agreed: 1 }, items.get(l.itemId ?? 0)) === undefined)
      .map(({ id, fromLineId, description, unit, quantity, neededOn, optional }) => ({
        ...{ id, fromLineId, description, unit, quantity, neededOn, optional },
      })),
  };
}
