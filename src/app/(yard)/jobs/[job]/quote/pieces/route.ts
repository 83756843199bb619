import { z } from 'zod';
import { PER } from '@/core/boms/bom';
import { LIMITS } from '@/core/limits';
import { unitPriceSchema } from '@/core/money/schema';
import { quantitySchema } from '@/core/quantity/schema';
import { isUnit } from '@/core/quantity/units';
import { loadSideBySide } from '@/queries/quotes/sideBySide';
import { readers } from '@/server/readers';
import { clock } from '@/server/setting';
import { snapshot } from '@/store/db';
import { readAsked, route } from '../../../../../server/answer';

const place = z.number().int().min(0);

const asked = z.object({
  quoteId: z.number().int(),
  after: place,
  upTo: place,
  lines: z
    .array(
      z.object({
        per: z.enum(PER),
        itemId: z.number().int().nullable(),
        supplierId: z.number().int().nullable(),
        quantity: quantitySchema.refine((q) => q >= 0),
        unit: z.string().refine(isUnit),
        cost: unitPriceSchema,
        price: unitPriceSchema.nullable(),
        markup: z.number().int().nullable(),
      }),
    )
    .max(LIMITS.sheetLines * 2),
});

/** What a quote comes to for other numbers of pieces, with lines of it as they are typed. */
export const POST = route('see money', async ({ request, person }) => {
  const { quoteId, ...typed } = await readAsked(request, asked);
  const found = await snapshot(await readers(), (db) => loadSideBySide(db, person, quoteId, clock.today(), typed));
  return Response.json(found ?? []);
});
