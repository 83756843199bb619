import { find } from '@/queries/find';
import { whoIsHere } from '../server/session';
import { readers } from '../server/yard';

const MOST = 80;

export async function GET(request: Request): Promise<Response> {
  const person = await whoIsHere();
  if (person === undefined) return Response.json([], { status: 401 });
  const words = new URL(request.url).searchParams.get('words')?.slice(0, MOST) ?? '';
  return Response.json(await find(await readers(), person, words));
}
