import type { Knex } from 'knex';
import { formatDay, plusDays, type Day } from '@/core/calendar/workdays';
import { formatMoney, type Minor } from '@/core/money/money';
import { DAYS_TO_CONFIRM, UNCONFIRMED } from '@/core/orders/chasing';
import { SENDABLE } from '@/core/orders/states';
import type { Db } from '@/store/db';
import { BRINGS_SOMETHING } from '@/store/comes';
import { FIRST_DUE, LATE } from '@/store/dueDays';
import { listed, rowsOf } from '@/store/rows';
import { SHOWN, type Group, type Waiting } from '../frame/waiting';
import { countOf, latestMail, type Mailed } from '../sql';
import { PROMISED } from './orders';

const MAILED = {
  none: ['Draft', '', 'Review and send'],
  failed: ['Failed', ', email not sent', 'Send again'],
  unknown: ['Not known', ', email may have arrived', 'Check with supplier'],
} as const;

/** Who declined to sign an order `o` last, and why; null where nobody did, or it was asked again since. */
const DECLINED = `(select p.name || ', “' || f.reason || '”' from sign_round r join sign_off f on f.round_id = r.id and f.state = 'refused'
  join person p on p.id = f.decided_by where r.state = 'refused' and r.id = (select max(l.id) from sign_round l where l.order_id = o.id))`;

type Draft = Mailed & {
  readonly number: string;
  readonly net: Minor;
  readonly currency: string;
  readonly name: string;
  readonly declined: string | null;
};

/** Orders that wait to be sent: first those that were declined, then with those whose email did not arrive. */
export async function drafts(db: Db): Promise<Group> {
  const unsent = () => db('purchaseOrder as o').whereIn('o.state', SENDABLE);
  const found = await rowsOf<Draft>(
    unsent()
      .join('supplier as s', 's.id', 'o.supplierId')
      .orderByRaw(`${DECLINED} is null, o.id`)
      .limit(SHOWN)
      .select('o.number', 'o.net', 'o.currency', 's.name', latestMail(db), db.raw(`${DECLINED} as declined`)),
  );
  const rows = found.map((o): Waiting => {
    const [word, why, step] =
      o.declined === null
        ? MAILED[o.mail === 'failed' || o.mail === 'unknown' ? o.mail : 'none']
        : (['Declined', ` by ${o.declined}`, 'Change it, or ask again'] as const);
    return {
      word,
      weight: word === 'Draft' ? 'care' : 'over',
      text: `${o.number} to ${o.name}, ${formatMoney(o.net, o.currency)} net${why}`,
      step,
      href: `/orders/${o.number}`,
    };
  });
  return { title: 'To send', href: '/orders?show=unsent', count: await countOf(unsent()), rows };
}

type Chased = {
  readonly number: string;
  readonly name: string;
  readonly sentOn: Day | null;
  readonly wantedOn: Day | null;
  readonly missedOn: Day | null;
  readonly promisedOn: Day | null;
  readonly item: string | null;
};

/** What of an order `o` is needed first of all that is promised too late. */
const MISSED_ITEM = `(select n.description from order_line l join split s on s.line_id = l.id join need n on n.id = s.need_id
  where l.order_id = o.id and l.promised_on > n.needed_on and ${BRINGS_SOMETHING} order by n.needed_on limit 1)`;

/** Orders that are late at their suppliers, those promised too late, and those that nobody confirmed; each once. */
export async function toChase(db: Db, today: Day): Promise<Group> {
  const on = (day: Day | null) => formatDay(day ?? today, today);
  const late = () => db('purchaseOrder as o').whereRaw(LATE, [today, today]);
  const others = () => db('purchaseOrder as o').whereRaw(`${LATE} is not true`, [today, today]);
  const missed = () => others().whereNotNull('o.missedOn');
  const silent = () =>
    others()
      .whereNull('o.missedOn')
      .whereRaw(`o.state = ${listed([UNCONFIRMED])}`)
      .where('o.sentOn', '<=', plusDays(today, -DAYS_TO_CONFIRM));
  const soonest = async (
    of: () => Knex.QueryBuilder,
    by: string,
    told: (o: Chased) => Pick<Waiting, 'word' | 'text'>,
  ) => {
    const found = await rowsOf<Chased>(
      of()
        .join('supplier as s', 's.id', 'o.supplierId')
        .orderByRaw(`${by}, o.id`)
        .limit(SHOWN)
        .select(
          'o.number',
          's.name',
          'o.sentOn',
          'o.wantedOn',
          'o.missedOn',
          db.raw(`${PROMISED} as promised_on, ${MISSED_ITEM} as item`),
        ),
    );
    return found.map((o): Waiting => {
      const { word, text } = told(o);
      const weight = word === 'Late' ? 'over' : 'care';
      return { word, weight, text: `${o.number}${text}`, step: 'Chase', href: `/orders/${o.number}` };
    });
  };
  const rows = [
    ...(await soonest(late, FIRST_DUE, (o) => ({
      word: 'Late',
      text: ` from ${o.name}, ${o.promisedOn === null ? `required ${on(o.wantedOn)}` : `promised ${on(o.promisedOn)}`}`,
    }))),
    ...(await soonest(missed, 'o.missed_on', (o) => ({
      word: 'Late',
      text: ` from ${o.name}: ${o.item ?? 'something'} promised later than needed by ${on(o.missedOn)}`,
    }))),
    ...(await soonest(silent, 'o.sent_on', (o) => ({
      word: 'Unconfirmed',
      text: `, sent to ${o.name} ${on(o.sentOn)}: no confirmation`,
    }))),
  ];
  const count = (await countOf(late())) + (await countOf(missed())) + (await countOf(silent()));
  return { title: 'To chase', href: '/orders?show=sent', count, rows: rows.slice(0, SHOWN) };
}
