import { rowsOf, rowOf } from '@/store/rows';
import type { Db } from '@/store/db';
import type { Person } from '@/store/people';
import type { MessageState } from '@/store/tables';
import type { Page } from '../page';
import { permit } from '../permit';

export type MessageRow = {
  readonly id: number;
  readonly at: string;
  readonly order: string;
  readonly recipient: string;
  readonly subject: string;
  readonly state: MessageState;
  readonly answer: string;
  readonly who: string;
};
export type MessageView = MessageRow & {
  readonly body: string;
  readonly documentId: number | null;
  readonly documentName: string | null;
  readonly size: number;
};

const columns = [
  'm.id',
  'm.at',
  'm.recipient',
  'm.subject',
  'm.state',
  'm.answer',
  { order: 'o.number', who: 'p.name' },
] as const;
const joined = (db: Db) =>
  db('message as m').join('purchaseOrder as o', 'o.id', 'm.aboutId').join('person as p', 'p.id', 'm.personId');

const OUTBOX_PAGE = 60;

/** Everything that was mailed to suppliers, newest first, and what the mail server said. */
export async function listMessages(
  db: Db,
  person: Person,
  before?: string,
): Promise<Pick<Page<MessageRow>, 'rows' | 'next'>> {
  permit(person, 'see orders');
  permit(person, 'see money');
  const query = joined(db);
  if (before !== undefined) void query.where('m.id', '<', Number(before));
  const rows = await rowsOf<MessageRow>(
    query
      .orderBy('m.id', 'desc')
      .limit(OUTBOX_PAGE + 1)
      .select(...columns),
  );
  const shown = rows.slice(0, OUTBOX_PAGE);
  return { rows: shown, next: rows.length > OUTBOX_PAGE ? String(shown.at(-1)?.id) : undefined };
}

export async function loadMessage(db: Db, person: Person, id: number): Promise<MessageView | undefined> {
  permit(person, 'see money');
  return await rowOf<MessageView>(
    joined(db)
      .leftJoin('document as d', 'd.id', 'm.documentId')
      .where('m.id', id)
      .first(...columns, 'm.body', 'm.documentId', { documentName: 'd.name' }, db.raw('length(m.raw) as size')),
  );
}

/** The message as it went over the wire. */
export async function loadRaw(db: Db, person: Person, id: number): Promise<Buffer | undefined> {
  permit(person, 'see money');
  return (await db('message').where({ id }).first('raw'))?.raw;
}

export async function loadDocument(
  db: Db,
  person: Person,
  id: number,
): Promise<{ name: string; type: string; bytes: Buffer } | undefined> {
  permit(person, 'see money');
  return db('document').where({ id }).first('name', 'type', 'bytes');
}
