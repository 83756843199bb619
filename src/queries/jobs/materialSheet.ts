import { rowsOf } from '@/store/rows';
import { isGoodsLine } from '@/core/orders/kinds';
import { measured } from '@/core/quantity/units';
import type { Day } from '@/core/calendar/workdays';
import { leftOf, progressOf, UNSENT, type OrderState } from '@/core/orders/states';
import type { Quantity } from '@/core/quantity/quantity';
import type { FloorPaper } from '@/formats/pdf/floorSlip';
import { loadCompany } from '@/store/company';
import type { Db } from '@/store/db';
import type { Person } from '@/store/people';
import { dayOnPaper } from '@/workings/orders/orderInWords';
import type { OrderLineRow } from '@/store/tables';
import { permit } from '../permit';
import { COMES_ON } from '@/store/comes';

type Bought = Pick<
  OrderLineRow,
  | 'kind'
  | 'description'
  | 'ourNumber'
  | 'received'
  | 'held'
  | 'givenUp'
  | 'invoiced'
  | 'closedShort'
  | 'invoicesEnded'
  | 'wantedOn'
  | 'promisedOn'
> & {
  readonly quantity: Quantity;
  /** This job's part, in its own unit, and what came of it. */
  readonly part: Quantity;
  readonly came: Quantity;
  readonly shareUnit: string;
  readonly order: string;
  readonly state: OrderState;
  readonly orderWanted: Day | null;
  readonly supplier: string;
  readonly place: string;
};

const WHEN = { in: 'in', drafted: 'not sent yet', none: 'no date yet' } as const;

/**
 * What a job has on order, to hang beside the work: from whom, when it comes and where it goes, and what is not ordered
 * yet. No price stands on it.
 */
export async function loadFloorPaper(
  db: Db,
  person: Person,
  number: string,
  today: Day,
): Promise<FloorPaper | undefined> {
  permit(person, 'see jobs');
  const job = await db('job').where({ number }).first();
  if (job === undefined) return undefined;
  const company = await loadCompany(db);
  const bought = await rowsOf<Bought>(
    db('split as s')
      .join('orderLine as l', 'l.id', 's.lineId')
      .join('purchaseOrder as o', 'o.id', 'l.orderId')
      .join('supplier as u', 'u.id', 'o.supplierId')
      .joinRaw('join delivery_place p on p.id = coalesce(l.place_id, o.place_id)')
      .where('s.jobId', job.id)
      .whereNot('l.kind', 'charge')
      .whereNot('o.state', 'cancelled')
      .orderByRaw(`coalesce(${COMES_ON}, '9999'), l.id`)
      .select(
        'l.kind',
        'l.description',
        'l.ourNumber',
        'l.quantity',
        'l.received',
        'l.held',
        'l.givenUp',
        'l.invoiced',
        'l.closedShort',
        'l.invoicesEnded',
        'l.wantedOn',
        'l.promisedOn',
        'l.shareUnit',
        'o.state',
        { part: 's.quantity', came: 's.received', order: 'o.number', orderWanted: 'o.wantedOn', supplier: 'u.name' },
        { place: 'p.name' },
      ),
  );
  const open = await rowsOf<{
    description: string;
    open: Quantity;
    unit: string;
    neededOn: Day | null;
    number: string | null;
    supplier: string | null;
  }>(
    db('need as n')
      .leftJoin('item as i', 'i.id', 'n.itemId')
      .leftJoin('supplier as u', 'u.id', 'n.supplierId')
      .where('n.jobId', job.id)
      .where('n.open', '>', 0)
      .orderByRaw("coalesce(n.needed_on, '9999'), n.id")
      .select('n.description', 'n.open', 'n.unit', 'n.neededOn', {
        number: 'i.number',
        supplier: 'u.name',
      }),
  );
  const day = (d: Day | null) => (d === null ? WHEN.none : dayOnPaper(d, today));
  return {
    number: job.number,
    name: job.name,
    site: job.site,
    company: company.name,
    size: company.paper,
    date: dayOnPaper(today, today),
    starts: dayOnPaper(job.startsOn, today),
    lines: bought.map((l) => ({
      description: l.description,
      number: l.ourNumber,
      quantity: measured(l.part, l.shareUnit),
      from: l.supplier,
      order: l.order,
      comes: whenItComes(l, day),
      goesTo: l.place,
    })),
    open: open.map((n) => ({
      description: n.description,
      number: n.number ?? '',
      quantity: measured(n.open, n.unit),
      from: n.supplier ?? 'no supplier yet',
      order: '',
      comes: n.neededOn === null ? 'no date yet' : `needed by ${day(n.neededOn)}`,
      goesTo: '',
    })),
  };
}

function whenItComes(line: Bought, day: (d: Day | null) => string): string {
  if (UNSENT.includes(line.state)) return WHEN.drafted;
  if (leftOf(progressOf(line)) === 0 || line.came >= line.part) return isGoodsLine(line) ? WHEN.in : 'done';
  const comes = day(line.promisedOn ?? line.wantedOn ?? line.orderWanted);
  const said = line.promisedOn === null ? comes : `${comes}, promised`;
  return line.came === 0 ? said : `${measured(line.came, line.shareUnit)} received, rest ${said}`;
}
