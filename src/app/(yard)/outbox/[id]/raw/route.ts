import { loadRaw } from '@/queries/orders/outbox';
import { fileAnswer } from '../../../../server/file';
import { idIn, route } from '../../../../server/answer';
import { readers } from '@/server/readers';

/** A message as it went over the wire. */
export const GET = route('see money', async ({ person, params }) => {
  const id = idIn(params.id);
  const bytes = await loadRaw(await readers(), person, id);
  return fileAnswer(bytes && { name: `message-${id}.eml`, type: 'message/rfc822', bytes });
});
