import { loadDocument } from '@/queries/outbox';
import { fileFor } from '../../../server/file';

/** A document as it was kept. */
export async function GET(_: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  const { id } = await params;
  return fileFor((db, person) => loadDocument(db, person, Number(id)));
}
