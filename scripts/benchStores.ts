import type { Day } from '@/core/calendar/workdays';
import { PAR } from '@/core/money/rate';
import type { Db } from '@/store/db';
import { postOne } from '@/store/ledger';
import { chunks, insertMany } from '@/store/rows';
import type { Served } from './benchProbes';
import { SIZE, upTo } from './sizes';

/** What lies in stores and is awaited there: 20,000 items, 40,000 lines of orders, 500,000 moves. */
export const STORES = {
  ...{ items: upTo(20_000), orders: upTo(10_000), linesEach: 4, movesEach: 25, bins: upTo(400), picked: upTo(200) },
};

const JOB = 2;
const range = (n: number) => Array.from({ length: n }, (_, k) => k);

/** Each item is counted in once, and then goes from bin to bin; its orders for stores are sent and awaited. */
async function fill(db: Db, today: Day): Promise<void> {
  const first = SIZE.items + 1;
  await db('item')
    .whereBetween('id', [first, first + STORES.items - 1])
    .update({ stocked: 1 });
  await insertMany(
    db,
    'bin',
    range(STORES.bins).map((k) => ({ id: k + 1, placeId: 1, name: `B-${k + 1}` })),
  );
  const [{ last }] = (await db('tabLine').max({ last: 'id' })) as unknown as [{ last: number }];
  const counts = range(STORES.items).map((k) => ({ id: last + 1 + k, itemId: first + k }));
  const happening = (event: string) => ({
    ...{ event, document: 'item' as const, documentId: 1, personId: 2, day: today, at: `${today}T08:00:00.000Z` },
  });
  await insertMany(
    db,
    'tabLine',
    counts.map((c) => ({ id: c.id, kind: 'stockChange', words: 'count' })),
  );
  await insertMany(
    db,
    'stockChange',
    counts.map((c) => ({ ...c, kind: 'counted', placeId: 1, quantity: 1_000_000, value: 50_000, day: today })),
  );
  for (const part of chunks(counts))
    await insertMany(
      db,
      'stockMove',
      part.flatMap(({ id, itemId }) =>
        range(STORES.movesEach).map((m) => {
          const bin = (k: number) => 1 + ((itemId + k) % STORES.bins);
          const row = { itemId, placeId: 1, personId: 2, day: today, at: happening('').at, reason: '' };
          const moved = { ...row, kind: 'moved' as const, value: 0 };
          if (m === 0)
            return {
              ...row,
              kind: 'counted' as const,
              binId: bin(0),
              quantity: 1_000_000,
              value: 50_000,
              changeId: id,
            };
          return m % 2 === 1
            ? { ...moved, binId: bin((m - 1) / 2), quantity: -1_000_000, changeId: null }
            : { ...moved, binId: bin(m / 2), quantity: 1_000_000, changeId: null };
        }),
      ),
    );
  await postOne(
    db,
    happening('Counted'),
    counts.map((c) => c.id),
  );
  await order(db, today, first, last + STORES.items);
  await put(db, today, first);
  await db.raw('ANALYZE');
}

async function order(db: Db, today: Day, first: number, last: number): Promise<void> {
  const [{ orders, lines }] = (await db('purchaseOrder')
    .max({ orders: 'id' })
    .select({ lines: db('orderLine').max('id') } as never)) as unknown as [{ orders: number; lines: number }];
  await insertMany(
    db,
    'purchaseOrder',
    range(STORES.orders).map((k) => ({
      ...{ id: orders + 1 + k, number: `S26-${k + 1}`, supplierId: 1 + (k % SIZE.suppliers), state: 'sent' },
      ...{ currency: 'GBP', rate: PAR, placeId: 1, wantedOn: today, sentOn: today, madeBy: 2, madeOn: today },
      ...{ madeAt: today, net: 40_000, gross: 48_000 },
    })),
  );
  const rows = range(STORES.orders * STORES.linesEach).map((k) => {
    const item = first + (k % STORES.items);
    return {
      ...{
        id: lines + 1 + k,
        orderId: orders + 1 + Math.floor(k / STORES.linesEach),
        place: 1 + (k % STORES.linesEach),
      },
      ...{
        kind: 'goods' as const,
        itemId: item,
        description: `Part ${item}`,
        ourNumber: `SP-${String(item - SIZE.items).padStart(5, '0')}`,
      },
      ...{
        quantity: 100_000,
        unit: 'C62',
        shareUnit: 'C62',
        price: 100_000,
        taxCodeId: 1,
        net: 10_000,
        wantedOn: today,
      },
    };
  });
  await insertMany(db, 'orderLine', rows);
  const splits = rows.map((l, k) => ({ id: last + 1 + k, lineId: l.id, place: 1, quantity: l.quantity, value: l.net }));
  await insertMany(
    db,
    'tabLine',
    splits.map((s) => ({ id: s.id, kind: 'split', words: 'for stores' })),
  );
  await insertMany(db, 'split', splits);
  await postOne(
    db,
    { event: 'Order sent', document: 'order', documentId: orders + 1, personId: 2, day: today, at: today },
    splits.map((s) => s.id),
  );
}

/** A job wants many of them, and has them reserved. */
async function put(db: Db, today: Day, first: number): Promise<void> {
  const [{ last }] = (await db('tabLine').max({ last: 'id' })) as unknown as [{ last: number }];
  const needs = range(STORES.picked).map((k) => ({
    ...{ id: last + 1 + k, jobId: JOB, itemId: first + k * 7, description: `Part ${k}`, quantity: 20_000, unit: 'C62' },
    ...{ costCodeId: 1, price: 10_000, neededOn: today, addedOn: today },
  }));
  await insertMany(
    db,
    'tabLine',
    needs.map((n) => ({ id: n.id, kind: 'need', words: n.description })),
  );
  await insertMany(db, 'need', needs);
  await insertMany(
    db,
    'reservation',
    needs.map((n) => ({ needId: n.id, itemId: n.itemId, placeId: 1, quantity: 20_000, share: 20_000, firm: 1 })),
  );
  await postOne(
    db,
    { event: 'Reserved', document: 'job', documentId: JOB, personId: 2, day: today, at: today },
    needs.map((n) => n.id),
  );
}

type Row = (name: string, times: readonly number[]) => void;
type Timed = (rounds: number, work: (k: number) => Promise<void>) => Promise<number[]>;

const ROUNDS = 60;

/** The dock and the stores of the large company: scans, pages, a long picking list, a count. */
export async function stores(db: Db, { get, act }: Served, row: Row, timed: Timed, today: Day): Promise<void> {
  await fill(db, today);
  // The connection was idle for so long that the server closed it.
  await get('/').catch(() => undefined);
  const moves = ((await db('stockMove').count({ n: '*' })) as { n: number }[])[0]?.n;
  console.log(
    `\nDock and stores: ${STORES.items} items, ${STORES.orders * STORES.linesEach} more lines awaited, ${moves} moves`,
  );
  const words = (k: number) => JSON.stringify({ words: [`SP-${String(1 + k * 37).padStart(5, '0')}`] });
  for (let k = 0; k < 5; k += 1) await get('/dock/scan/find', words(k));
  row('A scan', await timed(200, async (k) => void (await get('/dock/scan/find', words(k)))));
  const number = 1000 + JOB;
  for (const [name, path] of [
    ['Dock', () => '/dock'],
    ['Dock, this week', () => '/dock?show=week'],
    ['Dock, one supplier', (k: number) => `/dock?supplier=${1 + k}`],
    ['Dock, an order', (k: number) => `/dock/S26-${1 + k}`],
    ['Stores', () => '/stores'],
    ['Stores, below minimum', () => '/stores?show=low'],
    ['Stores, by words', (k: number) => `/stores?words=${100 + k}`],
    ['Stores, the most first', () => '/stores?sort=-onHand'],
    ['An item in stores', (k: number) => `/stores/${SIZE.items + 1 + k}`],
    ['What is to pick', () => '/stores/pick'],
    ['Picking list of 200 lines', () => `/stores/pick/${number}`],
    ['Stock counts', () => '/stores/count'],
  ] as [string, (k: number) => string][]) {
    for (let k = 0; k < 3; k += 1) await get(path(k));
    row(name, await timed(ROUNDS, async (k) => void (await get(path(k)))));
  }
  const once = `bench-${Date.now()}`;
  const needs = await db('need')
    .where({ jobId: JOB })
    .whereIn('id', db('reservation').select('needId'))
    .limit(STORES.picked);
  const lines = needs.map((n) => ({
    ...{ needId: n.id, itemId: n.itemId, placeId: 1, ownerId: null, quantity: 20_000, numbers: [] },
  }));
  row(
    `Issue of a picking list of ${lines.length} lines`,
    await timed(1, async () => void (await act('issuePicked', `/stores/pick/${number}`, { once, jobId: JOB, lines }))),
  );
  row(
    'New count of a bin',
    await timed(20, async (k) => {
      const input = { once: `${once}-${k}`, placeId: 1, binId: 1 + k, blind: false };
      await act('beginCount', '/stores/count', input);
    }),
  );
}
