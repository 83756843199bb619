import type { Db } from '@/store/db';
import type { MessageState } from '@/store/tables';

/** What became of the latest mail about the order `o`; null when there was none. */
export const latestMail = (db: Db) =>
  db.raw(
    "(select m.state from message m where m.about = 'order' and m.about_id = o.id and m.kind <> 'chase' order by m.id desc limit 1) as mail",
  );

export type Mailed = { readonly mail: MessageState | null };

/** How many lines of a buy list or a plan a page shows, and how many of a quote; nobody reads on after that many. */
export const LINES_PAGE = 250;
export const QUOTE_PAGE = 1000;

/** How many rows a query finds. */
export const countOf = async (query: { count: (of: { n: '*' }) => unknown }): Promise<number> =>
  ((await query.count({ n: '*' })) as { n: number }[])[0]?.n ?? 0;
