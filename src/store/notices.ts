import type { Db } from './db';
import { insertMany } from './rows';

/** What people are told of by mail. Each leads to a page, behind sign-in. */
export type Notice = {
  readonly to: readonly number[];
  readonly subject: string;
  readonly body: string;
  readonly path: string;
  /** The order that it is about, if any. */
  readonly orderId?: number;
};

/** Writes down what people are to be told, to go once what it tells of is in the file. Nobody is told twice of one thing. */
export async function tell(trx: Db, { to, ...told }: Notice, now: string): Promise<void> {
  const rows = [...new Set(to)].map((personId) => ({ ...told, personId, state: 'waiting' as const, at: now }));
  await insertMany(trx, 'notice', rows);
}
