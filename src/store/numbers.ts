import type { Day } from '@/core/calendar/workdays';
import { around, numberBy } from '@/core/orders/number';
import { done, refusal, refused, type Result } from '@/core/result';
import type { Db } from './db';
import { nextCount, whereIn, rowsOf } from './rows';
import type { Company, OrderHead } from './tables';

const seriesOf = (day: Day): string => `order ${day.slice(0, 4)}`;

/** The lowest count that was given up, which is then taken; undefined when none was. */
async function takeFree(trx: Db, series: string): Promise<number | undefined> {
  const free = await trx('freeNumber').where({ series }).orderBy('count').first('count');
  if (free !== undefined) await trx('freeNumber').where({ series, count: free.count }).delete();
  return free?.count;
}

const taken = async (trx: Db, number: string): Promise<{ id: number } | undefined> =>
  trx('purchaseOrder').whereRaw('number = ? collate nocase', [number]).first('id');

/** The next number by the company's pattern; one that was given to an order by hand is passed over. */
export async function nextNumber(
  trx: Db,
  company: Pick<Company, 'orderPattern'>,
  today: Day,
  lines: readonly { readonly splits: readonly { readonly jobId: number | null }[] }[],
): Promise<{ number: string; counted: number }> {
  const ids = [...new Set(lines.flatMap((l) => l.splits.flatMap((s) => s.jobId ?? [])))];
  const jobs = (await whereIn(trx, 'job', 'id', ids)).map((j) => j.number);
  const series = seriesOf(today);
  for (;;) {
    const counted = (await takeFree(trx, series)) ?? (await nextCount(trx, series));
    const number = numberBy(company.orderPattern, { year: Number(today.slice(0, 4)), count: counted, jobs });
    if ((await taken(trx, number)) === undefined) return { number, counted };
  }
}

/** The number that a new job is offered: it counts on from the highest that fits the company's pattern this year. */
export async function offeredJobNumber(
  db: Db,
  { jobPattern }: Pick<Company, 'jobPattern'>,
  today: Day,
): Promise<string> {
  const { before, after, digits } = around(jobPattern, Number(today.slice(0, 4)));
  const count = 'substr(number, ?, length(number) - ?)';
  const [last] = await rowsOf<{
    n: number | null;
  }>(
    db('job')
      .whereRaw('substr(number, 1, ?) = ? and substr(number, length(number) - ? + 1) = ?', [
        before.length,
        before,
        after.length,
        after,
      ])
      .whereRaw(`${count} glob '[0-9]*' and ${count} not glob '*[^0-9]*'`, [
        ...[before.length + 1, before.length + after.length],
        ...[before.length + 1, before.length + after.length],
      ])
      .max({ n: db.raw(`cast(${count} as integer)`, [before.length + 1, before.length + after.length]) }),
  );
  return `${before}${String((last?.n ?? 0) + 1).padStart(digits, '0')}${after}`;
}

/**
 * Gives an order a number by hand. Its count is free for the next order, where the company wants no gaps.
 * @returns the columns to write; refused when another order has the number
 */
export async function renumbered(
  trx: Db,
  company: Pick<Company, 'orderGaps'>,
  order: OrderHead,
  number: string,
): Promise<Result<Partial<Pick<OrderHead, 'number' | 'counted'>>>> {
  if (number === order.number) return done({});
  const other = await taken(trx, number);
  if (other !== undefined && other.id !== order.id)
    return refused(
      refusal(
        'order.number',
        `Order number ${number} is already used. Enter another, or clear the field for the next number.`,
        'number',
      ),
    );
  if (order.counted !== null && company.orderGaps === 'fill')
    await trx('freeNumber').insert({ series: seriesOf(order.madeOn), count: order.counted });
  return done({ number, counted: null });
}
