import { howFar } from '@/server/progress';
import { route } from '../../../server/answer';

/** How far something that this person started has come. */
export const GET = route('see jobs', async ({ person, params }) =>
  Response.json(howFar(`${person.id}/${params.key}`) ?? null),
);
