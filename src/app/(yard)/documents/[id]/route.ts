import { loadDocument } from '@/queries/orders/outbox';
import { fileAnswer } from '../../../server/file';
import { idIn, route } from '../../../server/answer';
import { readers } from '@/server/readers';

/** A document as it was kept. */
export const GET = route('see money', async ({ person, params }) =>
  fileAnswer(await loadDocument(await readers(), person, idIn(params.id))),
);
