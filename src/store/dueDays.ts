import { listed } from './rows';
import { AWAITED } from '@/core/orders/states';
import { BRINGS_GOODS, BRINGS_SOMETHING, COMES_HERE, COMES_ON } from './comes';
import type { Db } from './db';

/** After every day that there is: goods are to come, and no day is said. */
export const NO_DAY = '9999';

const firstDay = (lines: string): string =>
  `(select min(coalesce(${COMES_ON}, '${NO_DAY}')) from order_line l where l.order_id = o.id and ${BRINGS_GOODS} and ${lines})`;

/** The first day on which a need wanted what is promised later. */
const MISSED = `(select min(n.needed_on) from order_line l join split s on s.line_id = l.id join need n on n.id = s.need_id
  where l.order_id = o.id and l.promised_on > n.needed_on and ${BRINGS_SOMETHING})`;

const ofAwaited = (day: string): string => `case when o.state in (${listed(AWAITED)}) then ${day} end`;

/** An order `o` of which goods should have come before a day, given twice: as promised, else as required. */
export const LATE = '(o.due_here_on < ? or o.due_away_on < ?)';

/** The first day on which goods of an order `o` are to come, wherever. */
export const FIRST_DUE = `min(coalesce(o.due_here_on, '${NO_DAY}'), coalesce(o.due_away_on, '${NO_DAY}'))`;

/**
 * Works out again when goods are to come of the orders that something moved on, as triggers of the schema noted it
 * (`order_moved`): the first day at a place of ours, elsewhere, and of a need that is missed.
 */
export async function refreshDueDays(trx: Db): Promise<void> {
  await trx.raw(`update purchase_order as o set due_here_on = ${ofAwaited(firstDay(COMES_HERE))},
    due_away_on = ${ofAwaited(firstDay(`not ${COMES_HERE}`))}, missed_on = ${ofAwaited(MISSED)}
    where o.id in (select order_id from order_moved)`);
  await trx.raw('delete from order_moved');
}

/** Works it out for every order of the file. */
export async function beginDueDays(trx: Db): Promise<void> {
  await trx.raw('insert or ignore into order_moved select id from purchase_order');
  await refreshDueDays(trx);
}
