import { LABEL_CODES, LABEL_SHEETS } from '@/core/receiving/labels';
import { loadLabels } from '@/queries/dock/papers';
import { readers } from '@/server/readers';
import { inPapers } from '@/server/threads';
import { idIn, route } from '../../../../../server/answer';
import { fileAnswer } from '../../../../../server/file';

/** Labels for what a receipt brought, on a roll or on a sheet, with bars or a square. */
export const GET = route('see dock', async ({ request, person, params }) => {
  const { searchParams } = new URL(request.url);
  const labels = await loadLabels(await readers(), person, idIn(params.id));
  const way = {
    code: LABEL_CODES.find((c) => c === searchParams.get('code')) ?? 'bars',
    sheet: LABEL_SHEETS.find((s) => s === searchParams.get('sheet')) ?? 'roll',
  };
  const bytes = labels.length === 0 ? undefined : await inPapers('setLabels', { labels, way });
  return fileAnswer(bytes && { name: 'labels.pdf', type: 'application/pdf', bytes });
});
