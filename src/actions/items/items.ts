import { LIVE } from '@/core/jobs/states';
import { z } from 'zod';
import { isGoods } from '@/core/items/kinds';
import { exactFactor, unitOf } from '@/core/quantity/units';
import { itemFields } from '@/core/records/item';
import { asDated, MOST_PRICES, partFields } from '@/core/records/part';
import { requiredDay } from '@/core/records/fields';
import { takeOver, type DatedPrice } from '@/core/sourcing/prices';
import { counted } from '@/core/words';
import { loadItems } from '@/store/gathering';
import { insertMany, insertOne, whereIn } from '@/store/rows';
import type { Item } from '@/store/tables';
import { defineAction, found, once, refuse, sameVersion, type Work } from '../action';

export const saveItem = defineAction({
  name: 'saveItem',
  right: 'keep suppliers',
  input: z.object({
    once,
    id: z.number().int().nullable(),
    version: z.number().int(),
    ...itemFields.shape,
  }),
  run: async ({ trx, audit, touch }, { once: _, id, version, ...input }) => {
    const { stocked, bought, certificate, inspected } = input;
    const ticks = { stocked: Number(stocked), bought: Number(bought), certificate: Number(certificate) };
    const row = { ...input, ...ticks, inspected: Number(inspected) };
    const twin = await trx('item').where({ number: input.number }).first('id');
    if (twin !== undefined && twin.id !== id)
      refuse('item.number', `Item ${input.number} already exists. Choose another number.`, 'number');
    const before =
      id === null
        ? undefined
        : sameVersion(found(await trx('item').where({ id }).first(), 'This item'), version, 'This item');
    if (before !== undefined) await checkStock(trx, before, input);
    const itemId = id ?? (await insertOne(trx, 'item', row));
    if (id !== null)
      await trx('item')
        .where({ id })
        .update({ ...row, version: version + 1 });
    // Whether what stands on order for stores is goods that will lie there follows the item, and so does what is in.
    if (before !== undefined && (before.kind !== row.kind || before.unit !== row.unit))
      touch('Item changed', 'item', itemId, await splitsOf(trx, itemId, 'stores'));
    if (before !== undefined && before.certificate !== row.certificate)
      touch('Item changed', 'item', itemId, await splitsOf(trx, itemId, 'liveJobs'));
    await audit({
      words: `${id === null ? 'Added' : 'Changed'} item ${input.number}`,
      subjects: [['item', itemId]],
      before,
      after: { ...before, ...row },
    });
    return { id: itemId };
  },
});

/** The parts of orders that an item stands on. */
async function splitsOf(trx: Work['trx'], itemId: number, owner: 'stores' | 'liveJobs'): Promise<number[]> {
  const all = trx('split as s').join('orderLine as l', 'l.id', 's.lineId').where({ 'l.itemId': itemId }).select('s.id');
  const own =
    owner === 'stores' ? all.whereNull('s.jobId') : all.join('job as j', 'j.id', 's.jobId').where({ 'j.state': LIVE });
  return ((await own) as { id: number }[]).map((s) => s.id);
}

/** What lies in stores stays what it is, counted in its unit and followed by its numbers. */
async function checkStock(
  trx: Work['trx'],
  before: Item,
  after: Pick<z.output<z.ZodObject<typeof itemFields.shape>>, 'unit' | 'kind' | 'tracking'>,
): Promise<void> {
  const moved = await trx('stockMove').where({ itemId: before.id }).first('id');
  if (moved !== undefined && after.unit !== before.unit)
    refuse(
      'item.unit',
      `${before.number} has stock history in ${unitOf(before.unit).name}, so its unit can’t change.`,
      'unit',
    );
  if (moved !== undefined && !isGoods(after.kind))
    refuse('item.kind', `${before.number} has stock history, so its type stays material or part.`, 'kind');
  if (after.tracking === before.tracking) return;
  const [there] = await trx('stockSum').where({ itemId: before.id }).where('quantity', '>', 0).limit(1);
  const [held] = await trx('orderLine').where({ itemId: before.id }).where('held', '>', 0).limit(1);
  if (there !== undefined || held !== undefined)
    refuse(
      'item.tracking',
      `${before.number} is in stock. Count it to zero first, then count it in again with its numbers.`,
      'tracking',
    );
}

/** Saves how a supplier sells an item. */
export const savePart = defineAction({
  name: 'savePart',
  right: 'keep suppliers',
  input: z.object({
    once,
    itemId: z.number().int(),
    /** 0 for a supplier that has not sold it so far. */
    version: z.number().int(),
    ...partFields.shape,
  }),
  run: async ({ trx, audit, touch }, { once: _, version, usual, breaks, ...part }) => {
    const { itemId, supplierId } = part;
    const item = found(await trx('item').where({ id: itemId }).first(), 'This item');
    const { name } = found(await trx('supplier').where({ id: supplierId }).first('name'), 'This supplier');
    checkFactor(item, part);
    const known = await trx('supplierPart').where({ supplierId, itemId }).first();
    if (known !== undefined && version === 0)
      refuse('part.twice', `${name} already sells ${item.number}: edit those terms.`, 'supplierId');
    const before = known && sameVersion(known, version, 'These supplier terms');
    const pricesBefore = before && (await knownPrices(trx, [before.id])).get(before.id);
    const partId = before?.id ?? (await insertOne(trx, 'supplierPart', part));
    if (before !== undefined)
      await trx('supplierPart')
        .where({ id: partId })
        .update({ ...part, version: version + 1 });
    const prices = breaks.map(asDated);
    await writePrices(trx, new Map([[partId, prices]]));
    if (usual !== (item.supplierId === supplierId) && (usual || item.supplierId === supplierId))
      await trx('item')
        .where({ id: itemId })
        .update({ supplierId: usual ? supplierId : null, version: item.version + 1 });
    await touchSold({ trx, touch }, supplierId, [itemId]);
    await audit({
      words: `Set ${name}’s terms for ${item.number}`,
      subjects: [
        ['item', itemId],
        ['supplier', supplierId],
      ],
      before: before && { ...before, usual: item.supplierId === supplierId, prices: pricesBefore },
      after: { ...before, ...part, usual, prices },
    });
    return { id: itemId };
  },
});

/** The last day to order what is needed of parts follows how they are sold. */
async function touchSold(
  { trx, touch }: Pick<Work, 'trx' | 'touch'>,
  supplierId: number,
  itemIds: readonly number[],
): Promise<void> {
  const needs = (await whereIn(trx, 'need', 'itemId', itemIds)).filter(
    (n) => n.open > 0 && n.supplierId === supplierId,
  );
  touch(
    'Supplier terms changed',
    'supplier',
    supplierId,
    needs.map((n) => n.id),
  );
}

type Sold = Pick<z.output<typeof partFields>, 'unit' | 'factorMany' | 'factorOne'>;

/** Between two units of the same measure there is one conversion only; a pack of one's own may hold anything. */
function checkFactor(item: Pick<Item, 'unit'>, part: Sold): void {
  const exact = exactFactor(item.unit, part.unit);
  if (exact === undefined || part.factorMany * exact.many === part.factorOne * exact.one) return;
  refuse(
    'part.factor',
    `A ${unitOf(part.unit).name} holds a fixed number of ${unitOf(item.unit).name}s. Correct the conversion.`,
    'factorMany',
  );
}

async function knownPrices(trx: Work['trx'], partIds: readonly number[]): Promise<Map<number, DatedPrice[]>> {
  const known = new Map<number, DatedPrice[]>(partIds.map((id) => [id, []]));
  for (const { partId, fromQuantity: from, ...price } of await whereIn(trx, 'priceBreak', 'partId', partIds))
    known.get(partId)?.push({ from, ...price });
  return known;
}

async function writePrices(trx: Work['trx'], prices: ReadonlyMap<number, readonly DatedPrice[]>): Promise<void> {
  for (const partId of prices.keys()) await trx('priceBreak').where({ partId }).delete();
  await insertMany(
    trx,
    'priceBreak',
    [...prices].flatMap(([partId, own]) =>
      own.map(({ from: fromQuantity, ...price }) => ({ partId, fromQuantity, ...price })),
    ),
  );
}

/** The most parts and prices that a price list may bring at once. */
const MOST_LISTED = 50_000;

/** Takes a supplier's price list, from a day on: all of it or none. What was to begin later is replaced. */
export const takePriceList = defineAction({
  name: 'takePriceList',
  internal: true,
  right: 'keep suppliers',
  input: z.object({
    once,
    supplierId: z.number().int(),
    fromDay: requiredDay('Enter the date the prices are valid from.'),
    parts: z
      .array(
        partFields
          .omit({ supplierId: true, usual: true })
          .extend({ itemId: z.number().int() })
          // What a list does not say stays as it is.
          .partial({ minimum: true, pack: true, leadDays: true }),
      )
      .max(MOST_LISTED),
  }),
  run: async ({ trx, audit, touch }, { supplierId, fromDay, parts }) => {
    const { name } = found(await trx('supplier').where({ id: supplierId }).first('name'), 'This supplier');
    // Sent again with its key, a list that was taken changes nothing any more and is answered as before.
    if (parts.length === 0) refuse('list.same', 'The price list changes nothing.');
    const items = new Map(
      (
        await loadItems(
          trx,
          parts.map((p) => p.itemId),
        )
      ).entries(),
    );
    const known = new Map((await trx('supplierPart').where({ supplierId })).map((p) => [p.itemId, p]));
    const held = await knownPrices(
      trx,
      [...known.values()].map((p) => p.id),
    );
    const prices = new Map<number, DatedPrice[]>();
    for (const { breaks, itemId, leadDays, ...part } of parts) {
      checkFactor(found(items.get(itemId), 'An item of this list'), part);
      const before = known.get(itemId);
      const row = { ...part, ...(leadDays == null ? {} : { leadDays }), supplierId, itemId };
      if (before !== undefined)
        await trx('supplierPart')
          .where({ id: before.id })
          .update({ ...row, version: before.version + 1 });
      const partId = before?.id ?? (await insertOne(trx, 'supplierPart', { minimum: 0, pack: 0, ...row }));
      const next = takeOver(held.get(partId) ?? [], breaks.map(asDated), fromDay);
      if (next.length > MOST_PRICES)
        refuse('part.prices', `${items.get(itemId)?.number} would have more than ${MOST_PRICES} prices.`);
      prices.set(partId, next);
    }
    await writePrices(trx, prices);
    await touchSold(
      { trx, touch },
      supplierId,
      parts.map((p) => p.itemId),
    );
    await audit({
      words: `Imported ${name}’s price list from ${fromDay}, ${counted(parts.length, 'item')}`,
      subjects: [['supplier', supplierId], ...parts.map((p) => ['item', p.itemId] as const)],
      after: { fromDay, parts: parts.map(({ itemId, breaks }) => ({ itemId, breaks })) },
    });
    return { parts: parts.length };
  },
});
