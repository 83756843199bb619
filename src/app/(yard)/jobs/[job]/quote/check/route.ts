import { z } from 'zod';
import { choicesSchema, mappingSchema } from '@/actions/quotes';
import { may } from '@/core/people/rights';
import { whoIsHere } from '../../../../../server/session';
import { inHelper } from '@/server/threads';

const asked = z.object({ fileId: z.number().int(), mapping: mappingSchema, choices: choicesSchema });

export async function POST(request: Request): Promise<Response> {
  const person = await whoIsHere();
  if (person === undefined) return new Response(null, { status: 401 });
  if (!may(person, 'import quotes')) return new Response(null, { status: 403 });
  const read = asked.safeParse(await request.json().catch(() => undefined));
  if (!read.success) return new Response(null, { status: 400 });
  const { fileId, ...given } = read.data;
  const check = await inHelper('checkQuoteFile', { person, fileId, given });
  return check === undefined ? new Response(null, { status: 404 }) : Response.json(check);
}
