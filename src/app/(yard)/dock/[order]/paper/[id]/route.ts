import { loadDockPaper } from '@/queries/dock/papers';
import { readers } from '@/server/readers';
import { idIn, route } from '../../../../../server/answer';
import { fileAnswer } from '../../../../../server/file';

/** A photo, a delivery note or a certificate of a delivery. */
export const GET = route('see dock', async ({ person, params }) =>
  fileAnswer(await loadDockPaper(await readers(), person, idIn(params.id))),
);
