import { z } from 'zod';
import { supplierFields } from '@/core/records/supplier';
import { keepPlacesOf } from '@/store/places';
import { insertMany, insertOne } from '@/store/rows';
import { defineAction, found, once, refuse, sameVersion, type Work } from '../action';

export const saveSupplier = defineAction({
  name: 'saveSupplier',
  right: 'keep suppliers',
  input: z.object({
    once,
    id: z.number().int().nullable(),
    version: z.number().int(),
    ...supplierFields.shape,
  }),
  run: async ({ trx, audit, touch }, { once: _, id, version, contacts, addresses, closed, ...input }) => {
    const taxCodeId =
      input.taxCodeId ?? found(await trx('taxCode').where({ gone: 0 }).orderBy('id').first('id'), 'A tax code').id;
    const row = {
      ...input,
      taxCodeId,
      email: input.email || null,
      week: input.week?.join(',') ?? null,
      dataFiles: input.dataFiles.join(','),
    };
    const twin = await trx('supplier').where({ name: input.name }).first('id');
    if (twin !== undefined && twin.id !== id)
      refuse('supplier.name', `Supplier ${input.name} already exists. Choose another name.`, 'name');
    const lists = { contacts, addresses, closed };
    const places = { name: input.name, address: input.address, addresses };
    if (id === null) {
      const made = await insertOne(trx, 'supplier', row);
      await saveLists(trx, made, lists);
      await keepPlacesOf(trx, made, places);
      await audit({
        words: `Added supplier ${input.name}`,
        subjects: [['supplier', made]],
        after: { ...row, ...lists },
      });
      return { id: made };
    }
    const before = sameVersion(
      found(await trx('supplier').where({ id }).first(), 'This supplier'),
      version,
      'This supplier',
    );
    const listsBefore = await loadLists(trx, id);
    await trx('supplier')
      .where({ id })
      .update({ ...row, version: version + 1 });
    await saveLists(trx, id, lists);
    await keepPlacesOf(trx, id, places);
    // What its needs are planned at bears the supplier's tax, and the last day to order them follows its working time.
    const needs = await trx('need').where({ supplierId: id }).whereRaw('open > 0').select('id');
    touch(
      'Supplier changed',
      'supplier',
      id,
      needs.map((n) => n.id),
    );
    await audit({
      words: `Changed supplier ${input.name}`,
      subjects: [['supplier', id]],
      before: { ...before, ...listsBefore },
      after: { ...before, ...row, ...lists },
    });
    return { id };
  },
});

type Lists = Pick<z.output<z.ZodObject<typeof supplierFields.shape>>, 'contacts' | 'addresses' | 'closed'>;

const loadLists = async (trx: Work['trx'], supplierId: number): Promise<Lists> => ({
  contacts: await trx('supplierContact')
    .where({ supplierId })
    .orderBy('place')
    .select('name', 'whatFor', 'email', 'phone', 'getsOrders')
    .then((rows) => rows.map((c) => ({ ...c, getsOrders: c.getsOrders === 1 }))),
  addresses: await trx('supplierAddress').where({ supplierId }).orderBy('place').select('whatFor', 'address'),
  closed: await trx('supplierClosed').where({ supplierId }).orderBy('fromDay').select('fromDay', 'untilDay', 'words'),
});

async function saveLists(trx: Work['trx'], supplierId: number, { contacts, addresses, closed }: Lists): Promise<void> {
  const placed = <R>(rows: readonly R[]) => rows.map((row, k) => ({ ...row, supplierId, place: k + 1 }));
  for (const table of ['supplierContact', 'supplierAddress', 'supplierClosed'] as const)
    await trx(table).where({ supplierId }).delete();
  await insertMany(
    trx,
    'supplierContact',
    placed(contacts).map((c) => ({ ...c, getsOrders: c.getsOrders ? 1 : 0 })),
  );
  await insertMany(trx, 'supplierAddress', placed(addresses));
  await insertMany(
    trx,
    'supplierClosed',
    closed.map((c) => ({ ...c, supplierId })),
  );
}
