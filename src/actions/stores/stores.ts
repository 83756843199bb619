import { z } from 'zod';
import { isGoods } from '@/core/items/kinds';
import { ONE, formatQuantity, type Quantity } from '@/core/quantity/quantity';
import { unitOf } from '@/core/quantity/units';
import { wholeFault } from '@/core/quantity/whole';
import { keptQuantity } from '@/core/records/stock';
import type { Bin, DeliveryPlace, Item } from '@/store/tables';
import { defineAction, found, Refused, refuse, type Work } from '../action';

/** Which pile is meant: an item at a place, the company's own or a job's. */
export const pileFields = {
  itemId: z.number().int(),
  placeId: z.number().int(),
  /** Whose it is; null for the company's own. */
  jobId: z.number().int().nullable(),
};

export const saidOf = (q: Quantity, item: Pick<Item, 'name' | 'unit'>): string =>
  [formatQuantity(q), unitOf(item.unit).short, item.name].filter(Boolean).join(' ');

export const isOrAre = (q: Quantity): string => (q === ONE ? 'is' : 'are');

export async function goodsItem(trx: Work['trx'], itemId: number): Promise<Item> {
  const item = found(await trx('item').where({ id: itemId }).first(), 'This item');
  if (!isGoods(item.kind)) refuse('stores.kind', `${item.number} isn’t a material or part, so it isn’t stocked.`);
  return item;
}

export const placeOf = async (trx: Work['trx'], id: number): Promise<DeliveryPlace> =>
  found(await trx('deliveryPlace').where({ id }).first(), 'This location');

/** A bin of a place that is in use; null for none. */
export async function binOf(trx: Work['trx'], placeId: number, binId: number | null): Promise<Bin | null> {
  if (binId === null) return null;
  const bin = found(await trx('bin').where({ id: binId, placeId }).first(), 'This bin');
  return bin.closed === 0 ? bin : refuse('bin.closed', `Bin ${bin.name} is retired. Choose another bin.`, 'binId');
}

export function checkWhole(q: Quantity, item: Item): void {
  const whole = wholeFault(q, item.unit, item.name, 'quantity');
  if (whole !== undefined) throw new Refused([whole]);
}

/** The moment and the person of a move of stock. */
export const movedNow = ({ actor, today, now }: Work) => ({ personId: actor.id, day: today, at: now });

export async function writeLevel(trx: Work['trx'], item: Item, placeId: number, keep: Quantity): Promise<void> {
  const whole = wholeFault(keep, item.unit, item.name, 'keep');
  if (whole !== undefined) throw new Refused([whole]);
  await trx('stockLevel').where({ itemId: item.id, placeId }).delete();
  if (keep > 0) await trx('stockLevel').insert({ itemId: item.id, placeId, keep });
}

/** Says how much of an item is to be kept at a place; none takes the level away. */
export const keepLevel = defineAction({
  name: 'keepLevel',
  right: 'keep stores',
  input: z.object({
    itemId: z.number().int(),
    placeId: z.number().int(),
    keep: keptQuantity,
  }),
  run: async ({ trx, audit }, { itemId, placeId, keep }) => {
    const item = await goodsItem(trx, itemId);
    const place = await placeOf(trx, placeId);
    const before = await trx('stockLevel').where({ itemId, placeId }).first('keep');
    await writeLevel(trx, item, placeId, keep);
    await audit({
      words:
        keep > 0
          ? `Set minimum stock of ${item.name} at ${place.name} to ${saidOf(keep, item)}`
          : `Cleared minimum stock of ${item.name} at ${place.name}`,
      subjects: [['item', itemId]],
      before: before ?? {},
      after: { keep },
    });
  },
});
