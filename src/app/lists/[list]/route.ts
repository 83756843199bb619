import { LISTS, openList, type ListName } from '@/queries/lists/lists';
import { permit } from '@/queries/permit';
import { readers } from '@/server/readers';
import { clock } from '@/server/setting';
import { inFiles } from '@/server/threads';
import { writeCsv } from '@/formats/sheet/csv';
import { Answer, route } from '../../server/answer';

const XLSX = 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet';

/** A list as a file, whole and as it is filtered: CSV as a stream, or a workbook. */
export const GET = route('see jobs', async ({ request, person, params }) => {
  const name = params.list as ListName;
  if (!Object.hasOwn(LISTS, name))
    throw new Answer(404, 'Not found: it may have been removed. Go back and refresh the list.');
  permit(person, LISTS[name].right);
  const { as, ...query } = Object.fromEntries(new URL(request.url).searchParams);
  const today = clock.today();
  const headers = (type: string, ending: string) => ({
    'content-type': type,
    'content-disposition': `attachment; filename="${name}-${today}.${ending}"`,
  });
  if (as === 'xlsx') {
    const bytes = await inFiles('writeList', { person, name, query });
    return new Response(new Uint8Array(bytes), { headers: headers(XLSX, 'xlsx') });
  }
  const { columns, pages } = await openList(await readers(), person, name, query, today);
  const lines = writeCsv(columns, pages);
  const encoder = new TextEncoder();
  const body = new ReadableStream<Uint8Array>({
    pull: async (to) => {
      const { value, done } = await lines.next();
      if (done === true) to.close();
      else to.enqueue(encoder.encode(value));
    },
    cancel: async () => void (await lines.return(undefined)),
  });
  return new Response(body, { headers: headers('text/csv; charset=utf-8', 'csv') });
});
