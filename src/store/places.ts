import type { Db } from './db';
import { insertOne } from './rows';

/** A supplier as goods can be delivered to it: where it is, and its other addresses by what they are for. */
type Sited = {
  readonly name: string;
  readonly address: string;
  readonly addresses: readonly { readonly whatFor: string; readonly address: string }[];
};

/** Keeps the places of delivery that a supplier's addresses are in step with them; one that is gone is closed. */
export async function keepPlacesOf(trx: Db, supplierId: number, { name, address, addresses }: Sited): Promise<void> {
  const wanted = [
    ...(address === '' ? [] : [{ whatFor: '', name, address }]),
    ...addresses.map((a) => ({ whatFor: a.whatFor, name: `${name}, ${a.whatFor}`, address: a.address })),
  ];
  const known = await trx('deliveryPlace').where({ supplierId });
  for (const place of wanted) {
    const row = { ...place, closed: 0 };
    const own = known.find((k) => k.whatFor === place.whatFor);
    if (own === undefined) await insertOne(trx, 'deliveryPlace', { ...row, kind: 'supplier', supplierId });
    else await trx('deliveryPlace').where({ id: own.id }).update(row);
  }
  const kept = wanted.map((w) => w.whatFor);
  await trx('deliveryPlace').where({ supplierId }).whereNotIn('whatFor', kept).update({ closed: 1 });
}
