import type { Day } from '@/core/calendar/workdays';
import { AWAITED, type OrderState } from '@/core/orders/states';
import type { Quantity } from '@/core/quantity/quantity';
import type { Db } from '@/store/connection';
import { findOrder } from '@/store/orders';
import { whereIn } from '@/store/rows';
import type { Person } from '@/store/people';
import type { Page } from './page';
import { permit } from './permit';

export type DueRow = {
  readonly id: number;
  readonly number: string;
  readonly supplier: string;
  readonly state: OrderState;
  readonly wantedOn: Day | null;
  readonly carrier: string;
  readonly lines: number;
  readonly linesDue: number;
  readonly jobs: string;
};

const DOCK_SHOWN = 100;
/** After every day that there is. */
const NEVER = '~';
const PLACE = `coalesce(o.wanted_on, '${NEVER}'), o.id`;

/** Orders with something still to arrive, the earliest wanted first. No prices: the dock needs none. */
export async function listDue(
  db: Db,
  person: Person,
  words?: string,
  after?: string,
): Promise<Pick<Page<DueRow>, 'rows' | 'next'>> {
  permit(person, 'see dock');
  const query = db('purchaseOrder as o')
    .join('supplier as s', 's.id', 'o.supplierId')
    .whereIn('o.state', AWAITED)
    .whereExists(
      db('orderLine as g').whereRaw('g.order_id = o.id').where('g.kind', 'goods').whereNull('g.closedShort'),
    );
  if (words) {
    void query.where((w) =>
      w
        .whereLike('o.number', `%${words}%`)
        .orWhereLike('s.name', `%${words}%`)
        .orWhereIn(
          'o.id',
          db('orderLine as f')
            .where((x) =>
              x
                .whereLike('f.description', `%${words}%`)
                .orWhereLike('f.ourNumber', `%${words}%`)
                .orWhereLike('f.theirNumber', `%${words}%`),
            )
            .select('f.orderId'),
        ),
    );
  }
  if (after !== undefined) {
    const [wantedOn, id] = after.split(' ');
    void query.whereRaw(`(${PLACE}) > (?, ?)`, [wantedOn ?? '', Number(id)]);
  }
  const rows = (await query
    .orderByRaw(PLACE)
    .limit(DOCK_SHOWN + 1)
    .select(
      'o.id',
      'o.number',
      'o.state',
      'o.wantedOn',
      'o.carrier',
      { supplier: 's.name' },
      db.raw("(select count(*) from order_line l where l.order_id = o.id and l.kind = 'goods') as lines"),
      db.raw(
        "(select count(*) from order_line l where l.order_id = o.id and l.kind = 'goods' and l.closed_short is null and l.quantity > l.received) as lines_due",
      ),
      db.raw(
        '(select group_concat(distinct j.number) from order_line l join split x on x.line_id = l.id join job j on j.id = x.job_id where l.order_id = o.id) as jobs',
      ),
    )) as DueRow[];
  const shown = rows.slice(0, DOCK_SHOWN);
  const last = shown.at(-1);
  const more = last !== undefined && rows.length > DOCK_SHOWN;
  return { rows: shown, next: more ? `${last.wantedOn ?? NEVER} ${last.id}` : undefined };
}

export type DockLine = {
  readonly id: number;
  readonly description: string;
  readonly ourNumber: string;
  readonly theirNumber: string;
  readonly unit: string;
  readonly ordered: Quantity;
  readonly received: Quantity;
  /** Nothing more is expected of it. */
  readonly closed: boolean;
  readonly wantedOn: Day | null;
  readonly for: readonly { readonly job: string | null; readonly ordered: Quantity; readonly received: Quantity }[];
};

export type DockOrder = {
  readonly id: number;
  readonly version: number;
  readonly number: string;
  readonly supplier: string;
  readonly state: OrderState;
  readonly wantedOn: Day | null;
  readonly lines: readonly DockLine[];
  readonly receipts: readonly {
    readonly id: number;
    readonly number: string;
    readonly day: Day;
    readonly note: string;
    readonly who: string;
    readonly back: number;
  }[];
};

export async function loadDockOrder(db: Db, person: Person, number: string): Promise<DockOrder | undefined> {
  permit(person, 'see dock');
  const head = (await db('purchaseOrder as o')
    .join('supplier as s', 's.id', 'o.supplierId')
    .where({ number })
    .first('o.id', 'o.version', 'o.state', 'o.wantedOn', { supplier: 's.name' })) as
    Omit<DockOrder, 'number' | 'lines' | 'receipts'> | undefined;
  if (head === undefined) return undefined;
  const order = await findOrder(db, head.id);
  const goods = (order?.lines ?? []).filter((l) => l.kind === 'goods');
  const jobs = new Map(
    (
      await whereIn(
        db,
        'job',
        'id',
        goods.flatMap((l) => l.splits.flatMap((s) => s.jobId ?? [])),
      )
    ).map((j) => [j.id, j.number]),
  );
  const receipts = (await db('receipt as r')
    .join('person as p', 'p.id', 'r.personId')
    .where({ orderId: head.id })
    .orderBy('r.id', 'desc')
    .select(
      'r.id',
      'r.number',
      'r.day',
      'r.note',
      { who: 'p.name' },
      db.raw('r.reverses_id is not null or exists (select 1 from receipt b where b.reverses_id = r.id) as back'),
    )) as DockOrder['receipts'];
  return {
    ...head,
    number,
    receipts,
    lines: goods.map((l) => ({
      id: l.id,
      description: l.description,
      ourNumber: l.ourNumber,
      theirNumber: l.theirNumber,
      unit: l.unit,
      ordered: l.quantity,
      received: l.received,
      closed: l.closedShort !== null || l.billsEnded !== null,
      wantedOn: l.wantedOn,
      for: l.splits.map((s) => ({
        job: s.jobId === null ? null : (jobs.get(s.jobId) ?? ''),
        ordered: s.quantity,
        received: s.received,
      })),
    })),
  };
}
