import { z } from 'zod';
import { choicesSchema, mappingSchema } from '@/actions/quotes';
import { NotPermitted } from '@/queries/permit';
import { checkQuoteFile } from '@/queries/quoteImport';
import { whoIsHere } from '../../../../../server/session';
import { clock, yard } from '../../../../../server/yard';

const asked = z.object({ fileId: z.number().int(), mapping: mappingSchema, choices: choicesSchema });

export async function POST(request: Request): Promise<Response> {
  const person = await whoIsHere();
  if (person === undefined) return new Response(null, { status: 401 });
  const read = asked.safeParse(await request.json().catch(() => undefined));
  if (!read.success) return new Response(null, { status: 400 });
  try {
    const check = await checkQuoteFile(await yard(), person, clock.today(), read.data.fileId, read.data);
    return check === undefined ? new Response(null, { status: 404 }) : Response.json(check);
  } catch (error) {
    if (error instanceof NotPermitted) return new Response(null, { status: 403 });
    throw error;
  }
}
