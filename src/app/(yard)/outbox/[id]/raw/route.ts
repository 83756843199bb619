import { loadRaw } from '@/queries/outbox';
import { fileFor } from '../../../../server/file';

/** A message as it went over the wire. */
export async function GET(_: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  const { id } = await params;
  return fileFor(async (db, person) => {
    const bytes = await loadRaw(db, person, Number(id));
    return bytes === undefined ? undefined : { name: `message-${Number(id)}.eml`, type: 'message/rfc822', bytes };
  });
}
