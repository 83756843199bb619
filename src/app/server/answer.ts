import 'server-only';
import type { z } from 'zod';
import { may, RIGHTS, type Right } from '@/core/people/rights';
import { NotPermitted } from '@/queries/permit';
import { tellFault } from '@/server/faults';
import { Overloaded } from '@/server/threads';
import type { Person } from '@/store/people';
import { whoIsHere } from './session';

/** An answer that ends the request at once. */
export class Answer extends Error {
  constructor(
    readonly status: number,
    message: string,
  ) {
    super(message);
  }
}

type RouteRequest = {
  readonly request: Request;
  readonly person: Person;
  readonly params: Readonly<Record<string, string>>;
};
type Handler = (
  request: Request,
  context: { params: Promise<Record<string, string> | undefined> },
) => Promise<Response>;

/** Whether a request was made by a page of another site. Opening one of our files by a link is not. */
function isForeign(request: Request): boolean {
  const { headers } = request;
  const origin = headers.get('origin');
  if (origin !== null && (!URL.canParse(origin) || new URL(origin).host !== headers.get('host'))) return true;
  const opened = request.method === 'GET' && headers.get('sec-fetch-mode') === 'navigate';
  return headers.get('sec-fetch-site') === 'cross-site' && !opened;
}

/**
 * A route that is no page: for the signed-in person who has the right, asked by our own pages, before anything of the
 * request is read. What it answers is kept nowhere on the way.
 */
export const route =
  (right: Right, answer: (asked: RouteRequest) => Promise<Response>): Handler =>
  async (request, { params }) => {
    const response = await guarded(right, answer, request, params);
    response.headers.set('cache-control', 'private, no-store');
    return response;
  };

async function guarded(
  right: Right,
  answer: (asked: RouteRequest) => Promise<Response>,
  request: Request,
  params: Promise<Record<string, string> | undefined>,
): Promise<Response> {
  const told = (status: number, message: string) => Response.json({ message }, { status });
  if (isForeign(request))
    return told(403, 'This request came from another website and was refused. Open Kettle Tab directly and try again.');
  const person = await whoIsHere();
  if (person === undefined) return told(401, 'You were signed out. Sign in again, then try once more.');
  if (!may(person, right)) return told(403, `You don’t have permission to ${RIGHTS[right]}.`);
  try {
    // An address without a part that is named has none.
    return await answer({ request, person, params: (await params) ?? {} });
  } catch (error) {
    if (error instanceof Answer) return told(error.status, error.message);
    if (error instanceof NotPermitted) return told(403, error.message);
    if (error instanceof Overloaded) return told(503, error.message);
    return told(500, tellFault(error, { act: new URL(request.url).pathname, person: person.id }));
  }
}

/** Reads a request's body, and stops as soon as it is larger than it may be, whatever length it stated. */
export async function readBody(request: Request, most: number): Promise<Uint8Array> {
  const tooLarge = () =>
    new Answer(
      413,
      `This file is over ${Math.round(most / 1024 / 1024)} MB. Split it or reduce it, then upload again.`,
    );
  if (Number(request.headers.get('content-length') ?? 0) > most) throw tooLarge();
  const reader = request.body?.getReader();
  const parts: Uint8Array[] = [];
  let size = 0;
  for (let part = await reader?.read(); part?.value !== undefined; part = await reader?.read()) {
    size += part.value.length;
    if (size > most) {
      await reader?.cancel();
      throw tooLarge();
    }
    parts.push(part.value);
  }
  return Buffer.concat(parts);
}

const MOST_JSON = 2 * 1024 * 1024;

/** Reads what a page asks as JSON; anything else than it may ask is a bad request. */
export async function readAsked<S extends z.ZodType>(request: Request, schema: S): Promise<z.output<S>> {
  const text = Buffer.from(await readBody(request, MOST_JSON)).toString('utf8');
  const read = schema.safeParse(parsed(text));
  if (!read.success)
    throw new Answer(400, 'Kettle Tab didn’t understand that request. Refresh the page and try again.');
  return read.data;
}

function parsed(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return undefined;
  }
}

/** An id in an address. */
export const idIn = (text: string | undefined): number => {
  if (!/^\d{1,15}$/.test(text ?? ''))
    throw new Answer(404, 'Not found: it may have been removed. Go back and refresh the list.');
  return Number(text);
};
