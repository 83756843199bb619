import { rowsOf } from '@/store/rows';
import { lateWords } from '../buying/needLine';
import { formatDay, type Day } from '@/core/calendar/workdays';
import { formatMoney, minor } from '@/core/money/money';
import { FIRST_DUE, LATE } from '@/store/dueDays';
import { headroomOf } from '@/core/tab/sums';
import { loadCompany } from '@/store/company';
import type { Db } from '@/store/db';
import type { Person } from '@/store/people';
import type { Invoice } from '@/store/tables';
import type { Waiting } from '../frame/waiting';
import { differenceOf } from '../invoices/difference';
import type { Tab } from './job';
import { listSoonestOf } from '../buying/buyList';
import { permit } from '../permit';

const EACH = 3;

/**
 * What on one job wants somebody's decision: budgets passed, dates missed, invoices that differ. Of an earlier day only the
 * budgets are told: what was late or held then is not kept.
 */
export async function loadDecisions(
  db: Db,
  person: Person,
  job: { id: number; number: string },
  tab: Tab,
  today: Day,
  on?: Day,
): Promise<Waiting[]> {
  permit(person, 'see money');
  const { currency } = await loadCompany(db);
  const letBe = await loadLetBe(db, job.id, on);
  const over = tab.rows
    .filter((r) => headroomOf(r) < -(letBe.get(r.code.id) ?? 0))
    .map((r): Waiting => {
      const why = r.amounts.drafted > 0 ? ' once drafts are sent' : '';
      return {
        word: 'Over',
        weight: 'over',
        text: `${r.code.code} ${r.code.name} ${on === undefined ? 'goes' : 'went'} ${formatMoney(minor(-headroomOf(r)), currency)} over budget${why}`,
        step: on === undefined ? 'Decide' : 'Review',
        href: `/jobs/${job.number}?${on === undefined ? `decide=${r.code.code}` : `on=${on}&figure=${r.code.code}`}`,
      };
    });
  if (on !== undefined) return over;
  const late = (await listSoonestOf(db, person, job.id, today))
    .filter((n) => n.late)
    .slice(0, EACH)
    .map((n): Waiting => ({
      word: 'Late',
      weight: 'care',
      text: `${n.description}, needed by ${n.neededOn === null ? '' : formatDay(n.neededOn, today)}: ${lateWords(n)}`,
      step: 'Gather',
      href: `/gather?job=${job.number}`,
    }));
  return [...over, ...late, ...(await lateOrders(db, job.id, today)), ...(await heldInvoices(db, job.id))];
}

/** By how much cost codes of a job may pass their budgets, as it was decided last up to a day. */
async function loadLetBe(db: Db, jobId: number, on?: Day): Promise<ReadonlyMap<number, number>> {
  const rows = await db('letBe')
    .where({ jobId })
    .where('day', '<=', on ?? '9999-12-31')
    .orderBy('id');
  return new Map(rows.map((r) => [r.costCodeId, r.over]));
}

const ordersOf = (db: Db, jobId: number) =>
  db('orderLine as l').join('split as x', 'x.lineId', 'l.id').where('x.jobId', jobId).select('l.orderId');

async function lateOrders(db: Db, jobId: number, today: Day): Promise<Waiting[]> {
  const late = await rowsOf<{ number: string; dueOn: Day; name: string }>(
    db('purchaseOrder as o')
      .join('supplier as s', 's.id', 'o.supplierId')
      .whereRaw(LATE, [today, today])
      .whereIn('o.id', ordersOf(db, jobId))
      .orderByRaw(FIRST_DUE)
      .limit(EACH)
      .select('o.number', 's.name', db.raw(`${FIRST_DUE} as due_on`)),
  );
  return late.map((o) => ({
    word: 'Due',
    weight: 'care',
    text: `${o.number} from ${o.name} was due ${formatDay(o.dueOn, today)}: not fully received`,
    step: 'Open order',
    href: `/orders/${o.number}`,
  }));
}

async function heldInvoices(db: Db, jobId: number): Promise<Waiting[]> {
  const differing = await rowsOf<Invoice & { name: string }>(
    db('invoice as i')
      .join('supplier as s', 's.id', 'i.supplierId')
      .where('i.state', 'held')
      .whereIn('i.orderId', ordersOf(db, jobId))
      .orderBy('i.id')
      .limit(EACH)
      .select('i.*', 's.name'),
  );
  const rows: Waiting[] = [];
  for (const i of differing) {
    rows.push({
      word: 'Invoice',
      weight: 'care',
      text: `${i.name} invoice ${i.number} is ${await differenceOf(db, i, 'words')}`,
      step: 'Match',
      href: `/invoices/${i.id}`,
    });
  }
  return rows;
}
