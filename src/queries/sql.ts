import type { Db } from '@/store/db';
import type { MessageState } from '@/store/tables';

/** A list of core's own words as SQL text, for the places where Knex cannot bind one. */
export const listed = (words: readonly string[]): string => words.map((w) => `'${w.replaceAll("'", "''")}'`).join(', ');

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

/** A line `l` of which nothing more can come: it was closed short, or its last bill was. */
const GOES_ON = 'l.closed_short is null and l.bills_ended is null';

/** Goods of a line `l` that are still to come from the supplier, in its unit, as the core's `dueOf` has it; below zero where more came. */
export const GOODS_DUE = 'l.quantity - l.given_up - l.received - l.held';
/** Whether a line `l` brings goods still. */
export const BRINGS_GOODS = `l.kind = 'goods' and ${GOES_ON} and ${GOODS_DUE} > 0`;
/** Whether something of a line `l` is still to come: goods, or hours that are not billed. */
export const BRINGS_SOMETHING = `${GOES_ON} and case l.kind when 'goods' then ${GOODS_DUE} else l.quantity - l.given_up - l.billed end > 0`;

/** What of a split `s` of a line `l` is not available yet, in the need's unit, as the core's `awaitedOf` has it. */
export const SPLIT_AWAITED = 's.quantity - s.given_up - s.received';
export const AWAITS_SPLIT = `${GOES_ON} and ${SPLIT_AWAITED} > 0`;

/** The day a line `l` of an order `o` is to come: as its supplier promised, else as it is wanted. */
export const COMES_ON = 'coalesce(l.promised_on, l.wanted_on, o.wanted_on)';
