import { loadGatherPreview, askSchema } from '@/queries/gather';
import { NotPermitted } from '@/queries/permit';
import { snapshot } from '@/store/connection';
import { whoIsHere } from '../../../server/session';
import { clock } from '@/server/setting';
import { readers } from '../../../server/yard';

export async function POST(request: Request): Promise<Response> {
  const person = await whoIsHere();
  if (person === undefined) return new Response(null, { status: 401 });
  const asked = askSchema.safeParse(await request.json().catch(() => undefined));
  if (!asked.success) return new Response(null, { status: 400 });
  try {
    return Response.json(
      await snapshot(await readers(), (db) => loadGatherPreview(db, person, clock.today(), asked.data)),
    );
  } catch (error) {
    if (error instanceof NotPermitted) return new Response(null, { status: 403 });
    throw error;
  }
}
