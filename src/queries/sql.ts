import type { Db } from '@/store/connection';
import type { MessageState } from '@/store/tables';

/** A list of core's own words as SQL text, for the places where Knex cannot bind one. */
export const listed = (words: readonly string[]): string => words.map((w) => `'${w.replaceAll("'", "''")}'`).join(', ');

/** What became of the latest mail about the order `o`; null when there was none. */
export const latestMail = (db: Db) =>
  db.raw(
    "(select m.state from message m where m.about = 'order' and m.about_id = o.id order by m.id desc limit 1) as mail",
  );

export type Mailed = { readonly mail: MessageState | null };
