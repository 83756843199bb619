import { LIMITS } from '@/core/limits';
import { inFiles } from '@/server/threads';
import { Answer, readBody, route } from '../../../../../server/answer';

/** A file of a budget, read beside what the budget is now; a budget change begins with what it says. */
export const POST = route('write budget changes', async ({ request, person, params }) => {
  const bytes = new Uint8Array(await readBody(request, LIMITS.file));
  const read = await inFiles('readBudgetFile', { person, job: params.job ?? '', bytes });
  if (!read.ok) throw new Answer(422, read.refusals[0]?.message ?? '');
  return Response.json(read.value);
});
