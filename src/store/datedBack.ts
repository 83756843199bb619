import { formatDay, type Day } from '@/core/calendar/workdays';
import { groupBy } from '@/core/group';
import { coverage, plannedOf } from '@/core/needs/coverage';
import { subtractQ } from '@/core/quantity/quantity';
import { refusal } from '@/core/result';
import { datedBack, hadCome, inForce, type More } from '@/core/tab/days';
import { moving } from '@/core/tab/effect';
import type { Account, Balance, Movement } from '@/core/tab/postings';
import { stagesOf, type Amounts } from '@/core/tab/stages';
import { loadCompany } from './company';
import type { Db } from './db';
import { NotPostable } from './notPostable';
import { among, rowsOf, whereIn } from './rows';
import type { Piece } from './stock/follow';
import { keepSplits } from './tab/days';
import type { Since } from './tab/kind';
import type { NeedDay, SplitDay } from './tables';

type OnDay = { readonly day: Day };
export type DatedBack = Movement & OnDay & { readonly tabLineId: number };

/**
 * What came of parts of orders, or went away, on an earlier day than it is written: works out of how they stood on each day
 * since then what is posted on it, for their needs too, and keeps how they would have stood. What today shows beyond that is
 * today's.
 *
 * @param ids lines of the tab; those that are no parts of orders, or that nothing came of, post nothing here
 */
export async function postingsSince(trx: Db, since: Since, ids: readonly number[]): Promise<DatedBack[]> {
  const came = await cameOf(trx, ids);
  if (came.size === 0) return [];
  const known = await keptSince<SplitDay>(trx, 'splitDay', [...came.keys()], since);
  const posted: DatedBack[] = [];
  const anew: SplitDay[] = [];
  for (const [id, own] of known) {
    const had = (was: SplitDay) => hadCome(was, came.get(id) as More);
    posted.push(
      ...differing(id, own, since, (_, was) =>
        more(was, stagesOf(was, was.stored === 1), stagesOf(had(was), was.stored === 1)),
      ),
    );
    anew.push(...own.map((was) => ({ ...had(was), day: later(was.day, since.from) })));
  }
  posted.push(...(await ofNeeds(trx, since, came, [...known.values()].flat())));
  await keepSplits(trx, anew);
  return posted;
}

const later = (a: Day, b: Day): Day => (a > b ? a : b);

const more = ({ jobId, costCodeId }: Account, from: Amounts, to: Amounts): readonly Balance[] => [
  { account: { jobId, costCodeId }, amounts: moving(0, 0, from, to).amounts },
];

/** What one line is posted on each day on which something of it moved. */
function differing<T extends OnDay>(
  tabLineId: number,
  own: readonly T[],
  { from }: Since,
  differs: (day: Day, was: T) => readonly Balance[],
  moved: readonly OnDay[] = own,
): DatedBack[] {
  const days = [...new Set(moved.map((m) => later(m.day, from)))].sort();
  const on = (day: Day) => {
    const was = inForce(own, day);
    return was === undefined ? [] : differs(day, was);
  };
  return datedBack(days, on).map((m) => ({ ...m, tabLineId }));
}

/** What parts of orders had and gave up beyond what is kept of them. */
async function cameOf(trx: Db, ids: readonly number[]): Promise<Map<number, More>> {
  const rows = await rowsOf<More & { id: number }>(
    trx.raw(
      `select s.id, s.received - d.received as received, s.given_up - d.given_up as given_up from split s
       join split_day d on d.id = s.id and d.day = (select max(l.day) from split_day l where l.id = s.id)
       where s.id in (select value from json_each(?)) and (s.received <> d.received or s.given_up <> d.given_up)`,
      JSON.stringify(ids),
    ),
  );
  return new Map(rows.map(({ id, ...of }) => [id, of]));
}

/** What is kept of lines of the days before today, beginning with what held on the first. */
async function keptSince<T extends OnDay & { readonly id: number }>(
  trx: Db,
  table: 'splitDay' | 'needDay',
  ids: readonly number[],
  { from, today }: Since,
): Promise<Map<number, T[]>> {
  const rows = await rowsOf<T>(
    trx(`${table} as d`)
      .whereIn('d.id', among(trx, ids))
      .where('d.day', '<', today)
      .whereRaw('d.day >= coalesce((select max(l.day) from ?? l where l.id = d.id and l.day <= ?), ?)', [
        table,
        from,
        from,
      ])
      .orderBy('d.day')
      .select('d.*'),
  );
  return groupBy(rows, (r) => r.id);
}

/** What the needs that these parts covered would have planned on each day since then. */
async function ofNeeds(
  trx: Db,
  since: Since,
  came: ReadonlyMap<number, More>,
  parts: readonly SplitDay[],
): Promise<DatedBack[]> {
  const ids = [...new Set(parts.flatMap((p) => p.needId ?? []))];
  const covering = [...new Set((await whereIn(trx, 'splitDay', 'needId', ids)).map((s) => s.id))];
  const splits = [...(await keptSince<SplitDay>(trx, 'splitDay', covering, since)).values()];
  const { currency } = await loadCompany(trx);
  return [...(await keptSince<NeedDay>(trx, 'needDay', ids, since))].flatMap(([id, own]) => {
    const differs = (day: Day, was: NeedDay) => {
      const then = splits
        .flatMap((kept) => inForce(kept, day) ?? [])
        .filter((s) => s.needId === id && s.commitment !== 'drafted');
      const known = plannedThen(was, then, currency);
      return more(
        was,
        known,
        plannedThen(
          was,
          then.map((s) => hadCome(s, came.get(s.id) ?? NOTHING_CAME)),
          currency,
        ),
      );
    };
    return differing(id, own, since, differs, [...own, ...splits.flat()]);
  });
}

const NOTHING_CAME = { received: 0, givenUp: 0 } as More;

/** What a need planned: a draft covered its part of it whatever came. */
function plannedThen(need: NeedDay, splits: readonly SplitDay[], currency: string): Amounts {
  const { taxRate: rate, recoverable } = need;
  const tax = rate === null || recoverable === null ? null : { rate, recoverable };
  return plannedOf(coverage(subtractQ(need.quantity, need.drafted), splits, need), { ...need, tax }, currency, need);
}

const notYet = (message: string): never => {
  throw new NotPostable(refusal('receive.day', message, 'day'));
};

/**
 * Nothing is dated before what it rests on: parts of orders before their lines were on order, what goes before it came, or
 * before it lay in stores; on its own day and on each since. Looked at when all of an act is written.
 * @param lines of the tab, those that are no parts of orders rest on nothing; and where goods of them came in or went
 * @throws NotPostable
 */
export async function checkDatedBack(
  trx: Db,
  { from, lines, pieces }: { readonly from: Day; readonly lines: readonly number[]; readonly pieces: readonly Piece[] },
): Promise<void> {
  const those = JSON.stringify(lines);
  const [early] = await rowsOf<{ description: string; day: Day }>(
    trx.raw(
      `select l.description, min(d.day) as day from order_line l join split o on o.line_id = l.id join split_day d on d.id = o.id
         where l.id in (select s.line_id from split s where s.id in (select value from json_each(?))) and d.commitment not in ('drafted', 'cancelled')
         group by l.id having min(d.day) > ? limit 1`,
      [those, from],
    ),
  );
  if (early !== undefined)
    notYet(`${early.description} was only ordered on ${formatDay(early.day, from)}. Choose that date or a later one.`);
  const [gone] = await rowsOf<{ what: string; day: Day }>(
    trx.raw(
      `with own as (select distinct s.line_id as id from split s where s.id in (select value from json_each(:those))),
         by_line as (select r.line_id, p.day, sum(r.accepted) as accepted, sum(r.held) as held, sum(r.rejected) as rejected
           from receipt_line r join receipt p on p.id = r.receipt_id where r.line_id in (select id from own) group by r.line_id, p.day),
         by_part as (select r.split_id, p.day, sum(r.quantity) as quantity from receipt_split r join receipt p on p.id = r.receipt_id
           where r.split_id in (select value from json_each(:those)) group by r.split_id, p.day)
       select l.description as what, t.day from (
         select line_id, day, min(sum(accepted) over w, sum(held) over w, sum(rejected) over w) as there from by_line window w as (partition by line_id order by day)
         union all select s.line_id, b.day, sum(b.quantity) over (partition by b.split_id order by b.day) from by_part b join split s on s.id = b.split_id) t
       join order_line l on l.id = t.line_id where t.there < 0 and t.day >= :from order by t.day limit 1`,
      { those, from } as never,
    ),
  );
  if (gone !== undefined) notYet(tooMuchGone(gone.what, gone.day, from));
  if (pieces.every((p) => p.quantity >= 0)) return;
  const [short] = await rowsOf<{ what: string; day: Day }>(
    trx.raw(
      `select i.name as what, t.day from (select item_id, day, sum(sum(quantity)) over (partition by item_id, place_id, job_id order by day) as there
         from stock_move where item_id in (select m.item_id from stock_move m where m.split_id in (select value from json_each(?))) group by item_id, place_id, job_id, day) t
       join item i on i.id = t.item_id where t.there < 0 and t.day >= ? order by t.day limit 1`,
      [those, from],
    ),
  );
  if (short !== undefined) notYet(tooMuchGone(short.what, short.day, from));
}

const tooMuchGone = (what: string, day: Day, today: Day): string =>
  `On ${formatDay(day, today)} more ${what} would have gone than had come. Choose a later date, or reverse what took it first.`;
