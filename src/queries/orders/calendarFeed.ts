import { rowsOf } from '@/store/rows';
import { measured } from '@/core/quantity/units';
import type { Day } from '@/core/calendar/workdays';
import { groupBy } from '@/core/group';
import { AWAITED } from '@/core/orders/states';
import { may } from '@/core/people/rights';
import { quantity, type Quantity } from '@/core/quantity/quantity';
import { counted } from '@/core/words';
import type { Expected } from '@/formats/ical';
import type { Db } from '@/store/db';
import { findFeed } from '@/store/sessions';
import { BRINGS_GOODS, COMES_ON, GOODS_DUE } from '@/store/comes';

type Due = {
  readonly number: string;
  readonly supplier: string;
  readonly description: string;
  readonly left: number;
  readonly unit: string;
  readonly jobs: string | null;
  readonly place: string;
  readonly day: Day;
};

/**
 * What is expected from suppliers, an event for each order and day, for whoever has a feed's token; no price stands in it.
 * @returns undefined where the token is none, or its person may not look at orders any more
 */
export async function loadDeliveries(db: Db, token: string): Promise<readonly Expected[] | undefined> {
  const person = await findFeed(db, token);
  if (person === undefined || !may(person, 'see orders')) return undefined;
  const due = await rowsOf<Due>(
    db('orderLine as l')
      .join('purchaseOrder as o', 'o.id', 'l.orderId')
      .join('supplier as s', 's.id', 'o.supplierId')
      .joinRaw('join delivery_place p on p.id = coalesce(l.place_id, o.place_id)')
      .whereIn('o.state', AWAITED)
      .whereRaw(`${BRINGS_GOODS} and ${COMES_ON} is not null`)
      .orderByRaw(`${COMES_ON}, o.id, l.place`)
      .select('o.number', 'l.description', 'l.unit', {
        supplier: 's.name',
        place: 'p.name',
        left: db.raw(GOODS_DUE),
        day: db.raw(COMES_ON),
        jobs: db.raw(
          '(select group_concat(distinct j.number) from split x join job j on j.id = x.job_id where x.line_id = l.id)',
        ),
      } as never),
  );
  const said = (l: Due) => {
    const what = measured(quantity(l.left) as Quantity, l.unit);
    return `${what} ${l.description}${l.jobs === null ? ' for stores' : ` for ${l.jobs.replaceAll(',', ', ')}`}`;
  };
  return [...groupBy(due, (l) => `${l.number}/${l.day}/${l.place}`).values()].flatMap((lines) => {
    const [first] = lines;
    return first === undefined
      ? []
      : [
          {
            id: `${encodeURIComponent(first.number)}-${first.day}-${encodeURIComponent(first.place)}`,
            day: first.day,
            title: `${first.supplier}: ${counted(lines.length, 'line')} of ${first.number}`,
            words: lines.map(said).join('\n'),
            place: first.place,
          },
        ];
  });
}
