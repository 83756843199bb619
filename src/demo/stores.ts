import { beginCount, countLines, endCounting } from '@/actions/stores/countSheets';
import { issueStock } from '@/actions/stores/issuing';
import { insertMany } from '@/store/rows';
import { BINS, TRACKED } from './catalogue';
import { must, q, type DemoYard } from './yard';

/** The bins of the yard, and what is followed by its numbers. */
export async function layOutStores(yard: DemoYard): Promise<void> {
  const place = await yard.db('deliveryPlace').where({ kind: 'own' }).orderBy('id').first('id');
  await insertMany(
    yard.db,
    'bin',
    BINS.map((name) => ({ placeId: place?.id, name })),
  );
  for (const [number, tracking, numberPattern] of TRACKED)
    await yard.db('item').where({ number }).update({ tracking, numberPattern });
}

/** What came for a job is used up in it before it is closed. */
export async function consume(yard: DemoYard, jobNumber: string, on: number): Promise<void> {
  const job = await yard.db('job').where({ number: jobNumber }).first('id');
  const jobId = job?.id ?? 0;
  const piles = await yard.db('stockSum').where({ jobId }).where('quantity', '>', 0).orderBy('itemId');
  for (const { itemId, placeId, quantity } of piles) {
    const need = await yard.db('need').where({ jobId, itemId }).orderBy('id').first('id');
    const lots = (await yard
      .db('stockSpot as s')
      .join('lot as l', 'l.id', 's.lotId')
      .where({ 's.itemId': itemId, 's.jobId': jobId })
      .where('s.quantity', '>', 0)
      .select('l.number', 's.quantity')) as { number: string; quantity: number }[];
    must(
      await issueStock(await yard.as('joss', on, 15), {
        ...{ once: yard.once(), itemId, placeId, jobId, to: { needId: need?.id ?? 0 }, quantity, numbers: lots },
      }),
    );
  }
}

/** A bin is counted, and what differs waits for somebody to look it over. */
export async function countBin(
  yard: DemoYard,
  name: string,
  differing: readonly (readonly [item: string, counted: number])[],
): Promise<void> {
  const bin = await yard.db('bin').where({ name }).first('id', 'placeId');
  const setting = await yard.as('joss', 0, 9);
  const where = { placeId: bin?.placeId ?? 0, binId: bin?.id ?? null, blind: true };
  const { id: countId } = must(await beginCount(setting, { once: yard.once(), ...where }));
  const lines = (await yard
    .db('stockCountLine as l')
    .join('item as i', 'i.id', 'l.itemId')
    .where({ countId })
    .select('l.id', 'l.begun', 'i.number')) as { id: number; begun: number; number: string }[];
  const found = new Map(differing);
  const counted = lines.map((l) => {
    const other = found.get(l.number);
    return { lineId: l.id, was: null, counted: other === undefined ? l.begun : q(other) };
  });
  must(await countLines(setting, { countId, lines: counted }));
  must(await endCounting(setting, { countId, version: 1 }));
}
