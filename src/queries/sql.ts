import type { Db } from '@/store/connection';
import type { MessageState } from '@/store/tables';

/** A list of core's own words as SQL text, for the places where Knex cannot bind one. */
export const listed = (words: readonly string[]): string => words.map((w) => `'${w.replaceAll("'", "''")}'`).join(', ');

const FAILED: MessageState = 'failed';

/** Whether mail about the order \`o\` failed. */
export const mailFailed = (db: Db) =>
  db.raw(
    "exists (select 1 from message m where m.about = 'order' and m.about_id = o.id and m.state = ?) as failed",
    FAILED,
  );
