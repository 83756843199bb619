import { LIVE } from '@/core/jobs/states';
import type { Day } from '@/core/calendar/workdays';
import { may } from '@/core/people/rights';
import { fulfilmentOf, type Fulfilment } from '@/core/needs/fulfilment';
import { ZERO } from '@/core/money/money';
import { addQ, NONE, type Quantity } from '@/core/quantity/quantity';
import type { Db } from '@/store/db';
import type { Person } from '@/store/people';
import { rowOf, rowsOf, whereIn } from '@/store/rows';
import { loadNeedStates } from '@/store/tab/needs';
import { loadComing } from '../dock/coming';
import { permit } from '../permit';
import { countOf, LINES_PAGE } from '../sql';

import { contextFor, joined, NEED_COLUMNS, tagged, type NeedLine, type RawNeed } from './needLine';

export type BuyListLine = NeedLine & {
  /** Reserved or counted on, of stock that is there and of what comes to stores. */
  readonly inStores: Quantity;
  readonly coming: Quantity;
  /** Whether any of that was reserved by a person. */
  readonly reserved: boolean;
  readonly issued: Quantity;
  readonly drafted: Quantity;
  readonly ordered: Quantity;
  /** Of the ordered, what is in, in the need's unit. */
  readonly received: Quantity;
  /** How far it is, and the day the rest of it is promised or wanted. */
  readonly standing: Fulfilment;
  readonly promisedOn: Day | null;
};

export type BuyListPage = {
  readonly rows: readonly BuyListLine[];
  /** How many lines stand before those, how many there are, and how many are left to buy. */
  readonly before: number;
  readonly lines: number;
  readonly open: number;
};

/** How many lines of live jobs are left to buy. */
export async function countToBuy(db: Db): Promise<number> {
  const live = db('jobSum as m').join('job as j', 'j.id', 'm.jobId').where('j.state', LIVE);
  return (await rowOf<{ n: number }>(live.select(db.raw('coalesce(sum(m.to_buy), 0) as n')).first()))?.n ?? 0;
}

/** Lines of a job by the day they are needed, those without one last. */
const byNeed = (db: Db, jobId: number) =>
  joined(db).where('n.jobId', jobId).orderByRaw("coalesce(n.needed_on, '~'), n.id");

/** A job's open lines that are needed soonest, a page at most. */
export async function listSoonestOf(db: Db, person: Person, jobId: number, today: Day): Promise<NeedLine[]> {
  permit(person, 'see jobs');
  const rows = await rowsOf<RawNeed>(
    byNeed(db, jobId)
      .whereRaw('n.open > 0')
      .limit(LINES_PAGE)
      .select(...NEED_COLUMNS),
  );
  const context = await contextFor(db, rows, today);
  return rows.map((r) => tagged(r, context));
}

/** Where a page of a buy list begins: after a line, or at one, if not all stand on one page. */
export type BeginsAt = { readonly after?: number; readonly at?: number };

/** What of a line those do not see who may not see money. */
const hidden = ({ tags }: NeedLine) => ({
  price: null,
  buying: null,
  more: ZERO,
  tags: tags.filter((t) => t.of !== 'aboveQuote'),
});

/** Lines of a buy list with how far each has come; without the right to see money there are no prices. */
export async function withProgress(
  db: Db,
  person: Person,
  rows: readonly RawNeed[],
  today: Day,
): Promise<BuyListLine[]> {
  const context = await contextFor(db, rows, today);
  const ids = rows.map((r) => r.id);
  const states = new Map((await loadNeedStates(db, ids)).map((s) => [s.id, s]));
  const firm = new Set(
    (await whereIn(db, 'reservation', 'needId', ids)).filter((r) => r.firm === 1).map((r) => r.needId),
  );
  const way = await loadComing(db, ids);
  return rows.map((raw) => {
    const state = states.get(raw.id);
    const { drafted = NONE, ordered = NONE } = state?.coverage ?? {};
    const { inStores = NONE, coming = NONE, issued = NONE } = state?.fromStock ?? {};
    const line = tagged(raw, context);
    return {
      ...line,
      ...(may(person, 'see money') ? {} : hidden(line)),
      ...{ drafted, ordered, inStores, coming, issued, reserved: firm.has(raw.id) },
      received: addQ(NONE, ...(state?.splits ?? []).map((s) => s.received)),
      standing: state === undefined ? 'nothing' : fulfilmentOf({ ...state, atDoor: way(raw.id).atDoor }),
      promisedOn: way(raw.id).promisedOn,
    };
  });
}

/**
 * A page of a job's buy list, with how far each line has come. Without the right to see money there are no prices.
 */
export async function loadBuyList(
  db: Db,
  person: Person,
  jobId: number,
  today: Day,
  { after, at }: BeginsAt = {},
): Promise<BuyListPage> {
  permit(person, 'see jobs');
  const all = () => db('need as n').where('n.jobId', jobId);
  const count = await countOf(all());
  const [shown, passed, line] = at !== undefined && count > LINES_PAGE ? ['>=', '<', at] : ['>', '<=', after];
  const place = (sign: string) =>
    [
      `(coalesce(n.needed_on, '~'), n.id) ${sign} (select coalesce(x.needed_on, '~'), x.id from need x where x.id = ?)`,
      [line ?? 0],
    ] as const;
  const query = byNeed(db, jobId).limit(LINES_PAGE);
  if (line !== undefined) void query.whereRaw(...place(shown));
  const rows = await rowsOf<RawNeed>(query.select(...NEED_COLUMNS));
  const lines = await withProgress(db, person, rows, today);
  return {
    rows: lines,
    before: line === undefined ? 0 : await countOf(all().whereRaw(...place(passed))),
    lines: count,
    open: await countOf(all().whereRaw('n.open > 0')),
  };
}
