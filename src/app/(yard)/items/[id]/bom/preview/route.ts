import { z } from 'zod';
import { quantitySchema } from '@/core/quantity/schema';
import { requiredDay } from '@/core/records/fields';
import { bomLineFields, MOST_BOM_LINES } from '@/core/records/bom';
import { workOut } from '@/queries/items/boms';
import { readers } from '@/server/readers';
import { clock } from '@/server/setting';
import { snapshot } from '@/store/db';
import { idIn, readAsked, route } from '../../../../../server/answer';

const asked = z.object({
  fromDay: requiredDay('Enter the date it is valid from.'),
  batch: quantitySchema.refine((q) => q > 0),
  lines: z.array(bomLineFields).max(MOST_BOM_LINES),
});

export const POST = route('see jobs', async ({ request, person, params }) => {
  const { fromDay, batch, lines } = await readAsked(request, asked);
  const bom = {
    id: 0,
    itemId: idIn(params.id),
    makingDays: 0,
    lines: lines.map(({ offsetDays: days, offsetFrom: from, ...line }) => ({ ...line, id: 0, offset: { days, from } })),
  };
  const on = { on: fromDay, today: clock.today() };
  return Response.json(await snapshot(await readers(), (db) => workOut(db, person, bom, batch, on)));
});
