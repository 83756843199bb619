import { LISTS, type ListName } from '@/queries/lists/lists';
import { permit } from '@/queries/permit';
import { clock } from '@/server/setting';
import { inFiles } from '@/server/threads';
import { Answer, route } from '../../server/answer';

const TYPES = {
  csv: 'text/csv; charset=utf-8',
  xlsx: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
} as const;

/** A list as a file, whole and as it is filtered: CSV or a workbook. */
export const GET = route('see jobs', async ({ request, person, params }) => {
  const name = params.list as ListName;
  if (!Object.hasOwn(LISTS, name))
    throw new Answer(404, 'Not found: it may have been removed. Go back and refresh the list.');
  permit(person, LISTS[name].right);
  const { as: asked, ...query } = Object.fromEntries(new URL(request.url).searchParams);
  const as = asked === 'xlsx' ? asked : 'csv';
  const bytes = await inFiles('writeList', { person, name, query, as });
  const headers = {
    'content-type': TYPES[as],
    'content-disposition': `attachment; filename="${name}-${clock.today()}.${as}"`,
  };
  return new Response(new Uint8Array(bytes), { headers });
});
