import { z } from 'zod';
import { isGtin } from '@/core/find/gtin';
import { LIMITS } from '@/core/limits';
import { isCurrency } from '@/core/money/currencies';
import { minorSchema, unitPriceSchema, type Minor } from '@/core/money/money';
import { quantitySchema } from '@/core/quantity/quantity';
import { exactFactor, isUnit, unitOf } from '@/core/quantity/units';
import { insertOne } from '@/store/rows';
import { defineAction, distinct, found, once, refuse, sameVersion, type Work } from './action';
import { days, text } from './fields';

export const saveSupplier = defineAction({
  name: 'saveSupplier',
  right: 'keep suppliers',
  input: z.object({
    once,
    id: z.number().int().nullable(),
    version: z.number().int(),
    name: text(120, 'Give the supplier’s name.'),
    contact: z.string().trim().max(120).default(''),
    email: z.union([z.literal(''), z.email('This is no e-mail address.')]),
    address: z.string().trim().max(500).default(''),
    currency: z.string().refine(isCurrency, 'Use a currency code such as GBP or EUR.'),
    paymentDays: days(365).default(30),
    leadDays: days(400).default(5),
    carriage: minorSchema.refine((c) => c >= 0, 'Carriage cannot be below zero.').default(0 as Minor),
    carriageFreeFrom: minorSchema
      .refine((c) => c >= 0, 'This cannot be below zero.')
      .nullable()
      .default(null),
    /** The company's first when it is not said. */
    taxCodeId: z.number().int().optional(),
    carrier: z.string().trim().max(120).default(''),
  }),
  run: async ({ trx, audit, touch }, { once: _, id, version, ...input }) => {
    const taxCodeId = input.taxCodeId ?? found(await trx('taxCode').orderBy('id').first('id'), 'A tax code').id;
    const row = { ...input, taxCodeId, email: input.email || null };
    const twin = await trx('supplier').where({ name: input.name }).first('id');
    if (twin !== undefined && twin.id !== id) refuse('supplier.name', `${input.name} is there already.`, 'name');
    if (id === null) {
      const made = await insertOne(trx, 'supplier', row);
      await audit({ words: `Added supplier ${input.name}`, subjects: [['supplier', made]], after: row });
      return { id: made };
    }
    const before = sameVersion(
      found(await trx('supplier').where({ id }).first(), 'This supplier'),
      version,
      'This supplier',
    );
    await trx('supplier')
      .where({ id })
      .update({ ...row, version: version + 1 });
    if (before.taxCodeId !== row.taxCodeId) {
      // What its needs are planned at bears the supplier's tax.
      const needs = await trx('need').where({ supplierId: id }).whereRaw('open > 0').select('id');
      touch(
        'Supplier’s tax changed',
        'supplier',
        id,
        needs.map((n) => n.id),
      );
    }
    await audit({
      words: `Changed supplier ${input.name}`,
      subjects: [['supplier', id]],
      before,
      after: { ...before, ...row },
    });
    return { id };
  },
});

const breakInput = z.object({
  fromQuantity: quantitySchema.refine((q) => q >= 0, 'A price cannot begin below zero.'),
  price: unitPriceSchema.refine((p) => p >= 0, 'A price cannot be below zero.'),
  priceQuantity: z.number().int().positive('A price is for at least one.').max(LIMITS.priceQuantity),
});

const partInput = z.object({
  supplierId: z.number().int(),
  theirNumber: z.string().trim().max(60),
  unit: z.string().refine(isUnit, 'Choose a unit.'),
  factorMany: z.number().int().positive('A conversion is above zero.').max(LIMITS.factor),
  factorOne: z.number().int().positive('A conversion is above zero.').max(LIMITS.factor),
  minimum: quantitySchema.refine((q) => q >= 0, 'The least quantity cannot be below zero.'),
  pack: quantitySchema.refine((q) => q >= 0, 'A pack cannot be below zero.'),
  breaks: z.array(breakInput).max(12).refine(distinct('fromQuantity'), 'Two prices begin at the same quantity.'),
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
    gtin: z
      .string()
      .trim()
      .transform((t) => t || null)
      .refine((t) => t === null || isGtin(t), 'This is no GTIN: its check digit does not fit.')
      .default(null),
    kind: z.enum(['goods', 'service']).default('goods'),
    stocked: z.boolean().default(false),
    costCodeId: z.number().int().nullable().default(null),
    supplierId: z.number().int().nullable().default(null),
    part: partInput.nullable().default(null),
  }),
  run: async ({ trx, audit }, { once: _, id, version, part, ...input }) => {
    const row = { ...input, stocked: input.stocked ? 1 : 0 };
    const twin = await trx('item').where({ number: input.number }).first('id');
    if (twin !== undefined && twin.id !== id) refuse('item.number', `Item ${input.number} is there already.`, 'number');
    const before =
      id === null
        ? undefined
        : sameVersion(found(await trx('item').where({ id }).first(), 'This item'), version, 'This item');
    if (part !== null) checkFactor(input.unit, part);
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
      after: { ...before, ...row, part },
    });
    return { id: itemId };
  },
});

type PartInput = z.output<typeof partInput>;

/** Between two units of the same measure there is one conversion only; a pack of one's own may hold anything. */
function checkFactor(unit: string, part: PartInput): void {
  const exact = exactFactor(unit, part.unit);
  if (exact === undefined || part.factorMany * exact.many === part.factorOne * exact.one) return;
  refuse(
    'part.factor',
    `A ${unitOf(part.unit).name} holds a fixed number of ${unitOf(unit).name}s. Correct the conversion.`,
    'part.factorMany',
  );
}

async function savePart(trx: Work['trx'], itemId: number, { breaks, ...part }: PartInput): Promise<void> {
  const known = await trx('supplierPart').where({ supplierId: part.supplierId, itemId }).first('id');
  const partId = known?.id ?? (await insertOne(trx, 'supplierPart', { ...part, itemId }));
  if (known !== undefined) await trx('supplierPart').where({ id: partId }).update(part);
  await trx('priceBreak').where({ partId }).delete();
  for (const b of breaks) await trx('priceBreak').insert({ ...b, partId });
}
