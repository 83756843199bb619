import 'server-only';

export type File = { readonly name: string; readonly type: string; readonly bytes: Uint8Array };

/** Answers with a file; it is shown in the browser only where its type is safe to show. */
export function fileAnswer(file: File | undefined): Response {
  if (file === undefined)
    return new Response('Not found: it may have been removed. Go back and refresh the list.', { status: 404 });
  const shown = file.type === 'application/pdf' ? 'inline' : 'attachment';
  return new Response(new Uint8Array(file.bytes), {
    headers: {
      'content-type': file.type,
      'content-disposition': `${shown}; filename="${encodeURIComponent(file.name)}"`,
    },
  });
}
