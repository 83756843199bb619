import { bringInBills } from '@/actions/boms';
import { asDay } from '@/core/calendar/workdays';
import { LIMITS } from '@/core/limits';
import { clock } from '@/server/setting';
import { inHelper } from '@/server/threads';
import { performAs } from '../../../../../server/offer';
import { Answer, idIn, readBody, route } from '../../../../../server/answer';

/**
 * Reads a file of bills, as the body of the request, and tells what it holds; with a key in the address it is brought in.
 * It is kept nowhere, and never run.
 */
export const POST = route('keep bills', async ({ request, person, params }) => {
  const { searchParams } = new URL(request.url);
  const on = asDay(searchParams.get('from') ?? '') ?? clock.today();
  const bytes = new Uint8Array(await readBody(request, LIMITS.file));
  const read = await inHelper('readBillFile', { person, itemId: idIn(params.id), bytes, on });
  if (!read.ok) throw new Answer(422, read.refusals[0]?.message ?? '');
  const { taken, ...told } = read.value;
  const once = searchParams.get('once');
  if (once === null) return Response.json(told);
  const bills = taken.map((b) => ({ ...b, lines: [...b.lines] }));
  const outcome = await performAs(person)(bringInBills, { once, fromDay: on, bills });
  if (outcome.status === 'done') return Response.json({ ...told, ...outcome.value });
  throw new Answer(422, outcome.status === 'refused' ? (outcome.refusals[0]?.message ?? '') : outcome.message);
});
