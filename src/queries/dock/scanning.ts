import { rowsOf } from '@/store/rows';
import type { AwaitedLine } from '@/core/receiving/tally';
import { AWAITED } from '@/core/orders/states';
import type { Quantity } from '@/core/quantity/quantity';
import { lineToItem } from '@/core/receiving/itemUnit';
import { idsCalled } from '@/store/find';
import type { Db } from '@/store/db';
import type { Person } from '@/store/people';
import { permit } from '../permit';
import { BRINGS_GOODS, COMES_ON, GOODS_DUE } from '@/store/comes';

/** What a code stands for: the part that goes by it, if one does, and the lines that await it, the oldest first. */
export type Found = {
  readonly part: { readonly id: number; readonly number: string; readonly name: string } | null;
  readonly lines: readonly AwaitedLine[];
};

export type ScannedOrder = { readonly id: number; readonly number: string };

/** The order that is in hand while its delivery is scanned; null where none of that number is awaited. */
export async function loadScannedOrder(db: Db, person: Person, number: string): Promise<ScannedOrder | null> {
  permit(person, 'receive');
  const order = await db('purchaseOrder').where({ number }).whereIn('state', AWAITED).first('id', 'number');
  return order ?? null;
}

const MOST_LINES = 60;

type Row = Omit<AwaitedLine, 'jobs' | 'toItem' | 'due'> & {
  readonly due: Quantity;
  readonly shareUnit: string;
  readonly itemUnit: string | null;
  readonly factorMany: number;
  readonly factorOne: number;
  readonly jobs: string | null;
};

/** What is awaited here of a part, by any of the words that a code calls it. No prices: the dock needs none. */
export async function findScanned(db: Db, person: Person, words: readonly string[]): Promise<Found> {
  permit(person, 'receive');
  const place = (word: string) => words.findIndex((w) => w.toLowerCase() === word.toLowerCase());
  const called = (await idsCalled(db, 'item', words)).sort((a, b) => a.rank - b.rank || place(a.word) - place(b.word));
  const itemId = called[0]?.id;
  const item = itemId === undefined ? undefined : await db('item').where({ id: itemId }).first('id', 'number', 'name');
  const asked = JSON.stringify(words);
  const rows = await rowsOf<Row>(
    db.raw(
      `select l.id as line_id, o.id as order_id, o.number as "order", o.version, o.supplier_id, s.name as supplier, l.item_id, l.description,
       l.our_number as number, l.unit, l.quantity as ordered, ${GOODS_DUE} as due, l.share_unit, l.factor_many, l.factor_one,
       i.unit as item_unit, coalesce(i.tracking, 'none') as tracking, coalesce(i.number_pattern, '') as number_pattern,
       (select group_concat(distinct j.number) from split x join job j on j.id = x.job_id where x.line_id = l.id) as jobs
     from order_line l join purchase_order o on o.id = l.order_id join supplier s on s.id = o.supplier_id left join item i on i.id = l.item_id
     where l.id in (
         select id from order_line where item_id = ?
         union select id from order_line where our_number <> '' and our_number collate nocase in (select value from json_each(?))
         union select id from order_line where their_number <> '' and their_number collate nocase in (select value from json_each(?)))
       and ${BRINGS_GOODS}
       and o.state in (${AWAITED.map(() => '?').join(', ')})
     order by coalesce(${COMES_ON}, '~'), o.id, l.place limit ${MOST_LINES}`,
      [itemId ?? 0, asked, asked, ...AWAITED],
    ),
  );
  return {
    part: item ?? null,
    lines: rows.map(({ shareUnit, itemUnit, factorMany, factorOne, jobs, ...line }) => ({
      ...line,
      toItem: lineToItem({ many: factorMany, one: factorOne }, shareUnit, itemUnit ?? undefined),
      jobs: jobs?.split(',') ?? [],
    })),
  };
}
