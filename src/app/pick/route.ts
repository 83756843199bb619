import { z } from 'zod';
import { LIMITS } from '@/core/limits';
import { listChoices, nameChoices, CHOICE_KINDS, type ChoiceKind } from '@/queries/frame/choices';
import { readers } from '@/server/readers';
import { clock } from '@/server/setting';
import { Answer, readAsked, route } from '../server/answer';

const MOST = 80;

/** Things of the company for what is typed. */
export const GET = route('see jobs', async ({ request, person }) => {
  const { searchParams } = new URL(request.url);
  const kind = searchParams.get('kind') as ChoiceKind;
  if (!CHOICE_KINDS.includes(kind))
    throw new Answer(400, 'Not found: it may have been removed. Go back and refresh the list.');
  return Response.json(
    await listChoices(await readers(), person, kind, searchParams.get('words')?.slice(0, MOST) ?? '', clock.today()),
  );
});

const asked = z.object({
  kind: z.enum(CHOICE_KINDS as [ChoiceKind, ...ChoiceKind[]]),
  words: z.array(z.string().max(200)).max(LIMITS.sheetLines),
});

/** What pasted words stand for, each for itself; null for one that is not known. */
export const POST = route('see jobs', async ({ request, person }) => {
  const { kind, words } = await readAsked(request, asked);
  return Response.json(await nameChoices(await readers(), person, kind, words, clock.today()));
});
