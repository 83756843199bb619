import { z } from 'zod';
import { exactFactor, unitOf } from '@/core/quantity/units';
import { insertOne } from '@/store/rows';
import { defineAction, found, once, refuse, sameVersion, type Work } from './action';
import { itemFields, type partFields } from '@/core/records/item';
import { supplierFields } from '@/core/records/supplier';

export const saveSupplier = defineAction({
  name: 'saveSupplier',
  right: 'keep suppliers',
  input: z.object({
    once,
    id: z.number().int().nullable(),
    version: z.number().int(),
    ...supplierFields.shape,
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

/** Saves an item and, where given, how one supplier sells it. */
export const saveItem = defineAction({
  name: 'saveItem',
  right: 'keep suppliers',
  input: z.object({
    once,
    id: z.number().int().nullable(),
    version: z.number().int(),
    ...itemFields.shape,
  }),
  run: async ({ trx, audit }, { once: _, id, version, part, ...input }) => {
    const { stocked, bought, certificate } = input;
    const row = { ...input, stocked: Number(stocked), bought: Number(bought), certificate: Number(certificate) };
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

type PartInput = z.output<typeof partFields>;

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
