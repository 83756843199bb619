import type { Numbered } from '@/core/stores/numbers';
import type { Db } from '../db';
import { insertMany, rowsOf } from '../rows';
import type { Lot, StockMoveKind } from '../tables';

/** The lots and serial numbers of an item that are known by these numbers. */
export const knownLots = async (db: Db, itemId: number, numbers: readonly string[]): Promise<Lot[]> =>
  numbers.length === 0
    ? []
    : await rowsOf<Lot>(
        db('lot').where({ itemId }).whereRaw('number in (select value from json_each(?))', JSON.stringify(numbers)),
      );

/** The lots that go by these numbers; those that are not known yet are made. @returns their ids, in order */
export async function lotIds(
  trx: Db,
  itemId: number,
  numbers: readonly Omit<Numbered, 'quantity'>[],
): Promise<number[]> {
  const key = (n: string) => n.toUpperCase();
  const names = numbers.map((n) => n.number);
  const known = new Set((await knownLots(trx, itemId, names)).map((l) => key(l.number)));
  const fresh = new Map(numbers.filter((n) => !known.has(key(n.number))).map((n) => [key(n.number), n]));
  await insertMany(
    trx,
    'lot',
    [...fresh.values()].map(({ number, expiresOn }) => ({ itemId, number, expiresOn })),
  );
  const ids = new Map((await knownLots(trx, itemId, names)).map((l) => [key(l.number), l.id]));
  return names.map((n) => ids.get(key(n)) ?? 0);
}

/** Where a piece with a number is. */
export type Whereabouts = {
  readonly lotId: number;
  readonly number: string;
  readonly is: 'here' | 'held' | 'rejected' | 'issued' | 'away';
  /** In words, after the number: “lies in Yard, A-03”. */
  readonly words: string;
};

const AWAY: Partial<Record<StockMoveKind, string>> = {
  sentBack: 'was returned to its supplier',
  counted: 'was missing at a count',
  scrapped: 'was scrapped',
};

/** Where pieces are by their serial numbers: in a place, held at the door, with a job, or gone. */
export async function whereAre(db: Db, ids: readonly number[]): Promise<Map<number, Whereabouts>> {
  const rows = await rowsOf<{
    id: number;
    number: string;
    place: string | null;
    bin: string | null;
    owner: string | null;
    held: number | null;
    rejected: number | null;
    kind: StockMoveKind | null;
    job: string | null;
  }>(
    db.raw(
      `select l.id, l.number, p.name as place, b.name as bin, j.number as owner,
       (select sum(r.held) from receipt_lot r where r.lot_id = l.id) as held,
       (select sum(r.rejected) from receipt_lot r where r.lot_id = l.id) as rejected,
       m.kind, t.number as job
     from lot l
     left join stock_spot s on s.lot_id = l.id and s.quantity > 0
     left join delivery_place p on p.id = s.place_id left join bin b on b.id = s.bin_id left join job j on j.id = s.job_id
     left join stock_move m on m.id = (select max(x.id) from stock_move x where x.lot_id = l.id and x.quantity <> 0)
     left join issue i on i.id = m.issue_id left join job t on t.id = i.job_id
     where l.id in (select value from json_each(?))`,
      [JSON.stringify(ids)],
    ),
  );
  return new Map(
    rows.map((r): [number, Whereabouts] => {
      const of = { lotId: r.id, number: r.number };
      const where = [r.place, r.bin].filter(Boolean).join(', ');
      if (r.place !== null)
        return [
          r.id,
          { ...of, is: 'here', words: `is in stock at ${where}${r.owner === null ? '' : `, for job ${r.owner}`}` },
        ];
      if ((r.held ?? 0) > 0) return [r.id, { ...of, is: 'held', words: 'is awaiting inspection' }];
      if ((r.rejected ?? 0) > 0) return [r.id, { ...of, is: 'rejected', words: 'was rejected and is kept here' }];
      if (r.kind === 'issued') return [r.id, { ...of, is: 'issued', words: `is with job ${r.job}` }];
      return [r.id, { ...of, is: 'away', words: AWAY[r.kind ?? 'received'] ?? 'is not in stock' }];
    }),
  );
}
