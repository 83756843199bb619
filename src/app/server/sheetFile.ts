import 'server-only';
import type { Outcome, Perform } from '@/actions/action';
import { asDay, type Day } from '@/core/calendar/workdays';
import { LIMITS } from '@/core/limits';
import type { Right } from '@/core/people/rights';
import type { Result } from '@/core/result';
import { clock } from '@/server/setting';
import type { Person } from '@/store/people';
import { Answer, idIn, readBody, route } from './answer';
import { performAs } from './serverActions';

/** A sheet that was handed over: by whom, for which thing (0 for none), and from which day what it says is to hold. */
type Handed = { readonly person: Person; readonly id: number; readonly bytes: Uint8Array; readonly on: Day };

/**
 * Reads a sheet, as the body of the request, and tells what it holds; with a key in the address what it holds is taken.
 * It is kept nowhere, and never run.
 */
export const sheetFile = <T extends { readonly taken: unknown }>(
  right: Right,
  read: (handed: Handed) => Promise<Result<T>>,
  take: (
    perform: Perform,
    taken: T['taken'],
    handed: { once: string; id: number; on: Day },
  ) => Promise<Outcome<unknown>>,
) =>
  route(right, async ({ request, person, params }) => {
    const { searchParams } = new URL(request.url);
    const on = asDay(searchParams.get('from') ?? '') ?? clock.today();
    const id = params.id === undefined ? 0 : idIn(params.id);
    const found = await read({ person, id, bytes: new Uint8Array(await readBody(request, LIMITS.file)), on });
    if (!found.ok) throw new Answer(422, found.refusals[0]?.message ?? '');
    const { taken, ...told } = found.value;
    const once = searchParams.get('once');
    if (once === null) return Response.json(told);
    const outcome = await take(performAs(person), taken, { once, id, on });
    if (outcome.status === 'done') return Response.json(told);
    throw new Answer(422, outcome.status === 'refused' ? (outcome.refusals[0]?.message ?? '') : outcome.message);
  });
