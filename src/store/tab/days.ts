import type { Day } from '@/core/calendar/workdays';
import type { Db } from '../db';
import type { NeedDay, SplitDay } from '../tables';

export type SplitStood = Omit<SplitDay, 'day'>;
export type NeedStood = Omit<NeedDay, 'day'>;

const SPLIT: readonly (keyof SplitStood)[] = [
  ...(['id', 'jobId', 'costCodeId', 'needId', 'stored', 'commitment', 'ordered', 'value', 'received'] as const),
  ...(['givenUp', 'invoiced', 'claimed', 'invoicedAmount'] as const),
];
const NEED: readonly (keyof NeedStood)[] = [
  ...([
    'id',
    'jobId',
    'costCodeId',
    'quantity',
    'drafted',
    'price',
    'priceQuantity',
    'taxRate',
    'recoverable',
  ] as const),
  ...(['inStores', 'coming', 'issued', 'ownIssued', 'transferred', 'cost'] as const),
];

/** Writes how lines stood at the end of a day, over what was kept of that day; of those only that it is wanted of. */
async function keep<T extends object>(
  trx: Db,
  table: 'splitDay' | 'needDay',
  columns: readonly (keyof T & string)[],
  rows: readonly (T & { readonly day: Day })[],
  wanted: string,
): Promise<void> {
  const all = ['day', ...columns] as const;
  const values = rows.map((r) => all.map((c) => (r as Readonly<Record<string, unknown>>)[c]));
  const taken = all.map((_, k) => `value ->> ${k}`).join(', ');
  const anew = columns.filter((c) => c !== 'id');
  await trx.raw(
    `insert into ?? (${all.map(() => '??').join(', ')}) select ${taken} from json_each(?) n where ${wanted}
     on conflict(id, day) do update set ${anew.map(() => '?? = excluded.??').join(', ')}`,
    [table, ...all, JSON.stringify(values), ...anew.flatMap((c) => [c, c])],
  );
}

/** Keeps parts of orders that were sent; of one that is a draft again, that it is. */
export const keepSplits = (trx: Db, rows: readonly (SplitStood & { readonly day: Day })[]): Promise<void> =>
  keep<SplitStood>(
    trx,
    'splitDay',
    SPLIT,
    rows,
    `n.value ->> ${SPLIT.indexOf('commitment') + 1} <> 'drafted' or exists (select 1 from split_day d where d.id = n.value ->> 1)`,
  );

/** A part that is gone is none from that day on. */
export const keepGone = (trx: Db, ids: readonly number[], day: Day): Promise<unknown> =>
  trx.raw(
    `insert into split_day select id, ?, job_id, cost_code_id, null, stored, 'cancelled', ordered, value, 0, 0, 0, 0, 0 from split_day d
     where id in (select value from json_each(?)) and day = (select max(day) from split_day l where l.id = d.id)
     on conflict(id, day) do update set commitment = 'cancelled', need_id = null`,
    [day, JSON.stringify(ids)],
  );

/** Keeps lines of buy lists that something sent covers, or did. */
export const keepNeeds = (trx: Db, rows: readonly (NeedStood & { readonly day: Day })[]): Promise<void> =>
  keep<NeedStood>(trx, 'needDay', NEED, rows, 'exists (select 1 from split_day d where d.need_id = n.value ->> 1)');
