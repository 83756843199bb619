import { z } from 'zod';
import { isCurrency, minorSchema, PAR, unitPriceSchema, type Rate } from '@/core/money/money';
import { quantitySchema } from '@/core/quantity/quantity';
import { isUnit } from '@/core/quantity/units';
import { insertOne } from '@/store/rows';
import { defineAction, found, once, refuse, sameVersion } from './action';
import { text } from './jobs';

const days = (most: number) =>
  z.coerce
    .number('Write a number of days.')
    .int('Whole days only.')
    .min(0, 'Days cannot be below zero.')
    .max(most, `At most ${most} days.`);

export const saveSupplier = defineAction({
  name: 'saveSupplier',
  right: 'keep suppliers',
  input: z.object({
    once,
    id: z.number().int().nullable(),
    version: z.number().int(),
    name: text(120, 'Give the supplier’s name.'),
    contact: z.string().trim().max(120),
    email: z.union([z.literal(''), z.email('This is no e-mail address.')]),
    address: z.string().trim().max(500),
    currency: z.string().refine(isCurrency, 'Use a currency code such as GBP or EUR.'),
    rate: z
      .number()
      .int()
      .positive('The rate must be above zero.')
      .transform((r) => r as Rate),
    paymentDays: days(365),
    leadDays: days(400),
    carriage: minorSchema.refine((c) => c >= 0, 'Carriage cannot be below zero.'),
    carriageFreeFrom: minorSchema.nullable(),
    taxCodeId: z.number().int(),
    carrier: z.string().trim().max(120),
  }),
  run: async ({ trx, company, audit }, { once: _, id, version, ...input }) => {
    const row = { ...input, email: input.email || null, rate: input.currency === company.currency ? PAR : input.rate };
    const twin = (await trx('supplier').where({ name: input.name }).first('id')) as { id: number } | undefined;
    if (twin !== undefined && twin.id !== id) refuse('supplier.name', `${input.name} is there already.`, 'name');
    if (id === null) {
      const made = await insertOne(trx, 'supplier', row);
      await audit({ words: `Added supplier ${input.name}`, subjects: [['supplier', made]], after: row });
      return { id: made };
    }
    const before = sameVersion(
      found((await trx('supplier').where({ id }).first()) as { version: number } | undefined, 'This supplier'),
      version,
      'This supplier',
    );
    await trx('supplier')
      .where({ id })
      .update({ ...row, version: version + 1 });
    await audit({ words: `Changed supplier ${input.name}`, subjects: [['supplier', id]], before, after: row });
    return { id };
  },
});

const breakInput = z.object({
  fromQuantity: quantitySchema,
  price: unitPriceSchema.refine((p) => p >= 0, 'A price cannot be below zero.'),
  priceQuantity: z.number().int().positive(),
});

const partInput = z.object({
  supplierId: z.number().int(),
  theirNumber: z.string().trim().max(60),
  unit: z.string().refine(isUnit, 'Choose a unit.'),
  factorMany: z.number().int().positive(),
  factorOne: z.number().int().positive(),
  minimum: quantitySchema,
  pack: quantitySchema,
  breaks: z.array(breakInput).max(12),
});

/** Saves an item and, where given, how one supplier sells it. */
export const saveItem = defineAction({
  name: 'saveItem',
  right: 'keep suppliers',
  input: z.object({
    once,
    id: z.number().int().nullable(),
    version: z.number().int(),
    number: text(40, 'Give the item a number.'),
    name: text(120, 'Give the item a name.'),
    unit: z.string().refine(isUnit, 'Choose a unit.'),
    stocked: z.boolean(),
    costCodeId: z.number().int().nullable(),
    supplierId: z.number().int().nullable(),
    part: partInput.nullable(),
  }),
  run: async ({ trx, audit }, { once: _, id, version, part, ...input }) => {
    const row = { ...input, stocked: input.stocked ? 1 : 0 };
    const twin = (await trx('item').where({ number: input.number }).first('id')) as { id: number } | undefined;
    if (twin !== undefined && twin.id !== id) refuse('item.number', `Item ${input.number} is there already.`, 'number');
    const before =
      id === null
        ? undefined
        : sameVersion(
            found((await trx('item').where({ id }).first()) as { version: number } | undefined, 'This item'),
            version,
            'This item',
          );
    const itemId = id ?? (await insertOne(trx, 'item', row));
    if (id !== null)
      await trx('item')
        .where({ id })
        .update({ ...row, version: version + 1 });
    if (part !== null) await savePart(trx, itemId, part);
    await audit({
      words: `${id === null ? 'Added' : 'Changed'} item ${input.number}`,
      subjects: [['item', itemId]],
      before,
      after: { ...row, part },
    });
    return { id: itemId };
  },
});

async function savePart(
  trx: Parameters<typeof insertOne>[0],
  itemId: number,
  { breaks, ...part }: z.output<typeof partInput>,
): Promise<void> {
  const known = (await trx('supplierPart').where({ supplierId: part.supplierId, itemId }).first('id')) as
    { id: number } | undefined;
  const partId = known?.id ?? (await insertOne(trx, 'supplierPart', { ...part, itemId }));
  if (known !== undefined) await trx('supplierPart').where({ id: partId }).update(part);
  await trx('priceBreak').where({ partId }).delete();
  for (const b of breaks) await trx('priceBreak').insert({ ...b, partId });
}
