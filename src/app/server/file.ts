import 'server-only';
import { NotPermitted } from '@/queries/permit';
import type { Db } from '@/store/connection';
import type { Person } from '@/store/people';
import { whoIsHere } from './session';
import { readers } from './yard';

type File = { readonly name: string; readonly type: string; readonly bytes: Buffer };

/** Answers with a file for the signed-in person; shown in the browser only where its type is safe to show. */
export async function fileFor(load: (db: Db, person: Person) => Promise<File | undefined>): Promise<Response> {
  const person = await whoIsHere();
  if (person === undefined) return new Response('Sign in first.', { status: 401 });
  try {
    const file = await load(await readers(), person);
    if (file === undefined) return new Response('There is no such file.', { status: 404 });
    const shown = file.type === 'application/pdf' ? 'inline' : 'attachment';
    return new Response(new Uint8Array(file.bytes), {
      headers: {
        'content-type': file.type,
        'content-disposition': `${shown}; filename="${encodeURIComponent(file.name)}"`,
        'cache-control': 'private, no-store',
      },
    });
  } catch (error) {
    if (error instanceof NotPermitted) return new Response(error.message, { status: 403 });
    throw error;
  }
}
