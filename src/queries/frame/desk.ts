import { rowsOf } from '@/store/rows';
import { lateWords } from '../buying/needLine';
import { OPEN_QUOTE_STATES } from '@/core/quotes/winning';
import { LIVE } from '@/core/jobs/states';
import { formatDay, plusDays, type Day } from '@/core/calendar/workdays';
import { WAITING } from '@/core/invoices/states';
import { DAYS_TO_CONFIRM } from '@/core/orders/chasing';
import { SENDABLE } from '@/core/orders/states';
import { materialInWords } from '@/core/needs/material';
import { may } from '@/core/people/rights';
import { formatMoney, minor, type Minor } from '@/core/money/money';
import { loadCompany } from '@/store/company';
import type { Db } from '@/store/db';
import type { Person } from '@/store/people';
import type { Invoice } from '@/store/tables';
import { listCounted } from '../stores/counts';
import { differenceOf } from '../invoices/difference';
import { loadMaterial } from '../buying/material';
import { countToBuy, listSoonest } from '../buying/buyList';
import { listOrders } from '../orders/orders';
import { listToPick } from '../stores/picking';
import { countOf, latestMail, type Mailed } from '../sql';
import { listToSign } from '../signoff/toSign';
import { counted } from '@/core/words';

/** One thing that waits for a person, in words, with the place where it is settled. */
export type Waiting = {
  readonly word: string;
  readonly weight: 'over' | 'care' | 'good';
  readonly text: string;
  readonly step: string;
  readonly href: string;
};
export type Group = {
  readonly title: string;
  /** Where all of them stand, when the rows may be fewer. */
  readonly href?: string;
  readonly count: number;
  readonly rows: readonly Waiting[];
};

const SHOWN = 5;

/** What waits for this person today, the most pressing first; only what is theirs to settle. */
export async function loadDesk(db: Db, person: Person, today: Day): Promise<Group[]> {
  const groups: Group[] = [];
  if (may(person, 'sign orders')) groups.push(await toSign(db, person, today));
  if (may(person, 'agree budget changes')) groups.push(await toAgree(db));
  if (may(person, 'see money')) groups.push(await overBudget(db));
  if (may(person, 'draft orders')) groups.push(await toBuy(db, person, today), await drafts(db));
  if (may(person, 'send orders')) groups.push(await toChase(db, person, today));
  if (may(person, 'see dock')) groups.push(await toReceive(db, today));
  if (may(person, 'agree counts')) groups.push(await toPost(db, person));
  groups.push(await toStart(db, person, today));
  if (may(person, 'keep stores')) groups.push(await toPick(db, person, today));
  if (may(person, 'match invoices')) groups.push(await toMatch(db));
  if (may(person, 'win quotes')) groups.push(await quotes(db));
  return groups.filter((g) => g.count > 0);
}

async function toSign(db: Db, person: Person, today: Day): Promise<Group> {
  const { currency } = await loadCompany(db);
  const waiting = await listToSign(db, person, today);
  const rows = waiting.slice(0, SHOWN).map((w): Waiting => ({
    word: 'Sign',
    weight: 'care',
    text: `${w.revision > 0 ? `Revision ${w.revision} of ` : ''}${w.number} to ${w.supplier}, ${formatMoney(w.value, currency)}: ${w.why}`,
    step: 'Review and sign',
    href: `/sign/${w.number}`,
  }));
  return { title: 'To sign', href: '/sign', count: waiting.length, rows };
}

/** Budget changes that are written and not agreed, the oldest first. */
async function toAgree(db: Db): Promise<Group> {
  const { currency } = await loadCompany(db);
  const pending = () =>
    db('budgetChange as c').join('job as j', 'j.id', 'c.jobId').where({ 'c.state': 'pending', 'j.state': LIVE });
  const found = await rowsOf<{ number: number; reason: string; job: string; total: Minor }>(
    pending()
      .orderBy('c.id')
      .limit(SHOWN)
      .select(
        'c.number',
        'c.reason',
        { job: 'j.number' },
        db.raw('(select sum(amount) from budget_change_line where change_id = c.id) as total'),
      ),
  );
  const rows = found.map(({ number, reason, job, total }): Waiting => {
    const by = total === 0 ? 'no change in total' : `${total > 0 ? '+' : ''}${formatMoney(total, currency)}`;
    return {
      word: 'Agree',
      weight: 'care',
      text: `Budget change ${number} for ${job}, ${by}: ${reason}`,
      step: 'Review and agree',
      href: `/jobs/${job}/budget`,
    };
  });
  return { title: 'To agree', href: '/jobs', count: await countOf(pending()), rows };
}

async function overBudget(db: Db): Promise<Group> {
  const { currency } = await loadCompany(db);
  const over = await rowsOf<{
    job: string;
    code: string;
    name: string;
    headroom: number;
  }>(
    db.raw(`
    select j.number as job, c.code, c.name, x.budget - x.forecast as headroom from code_sum x
    join job j on j.id = x.job_id and j.state = '${LIVE}' join cost_code c on c.id = x.cost_code_id
    where x.forecast > x.budget order by x.budget - x.forecast limit ${SHOWN}`),
  );
  const [{ n = 0 } = {}] = await rowsOf<{ n?: number }>(
    db.raw(`
    select count(*) as n from code_sum x join job j on j.id = x.job_id and j.state = '${LIVE}'
    where x.forecast > x.budget`),
  );
  const rows = over.map((o): Waiting => {
    const by = formatMoney(minor(-o.headroom), currency);
    return {
      word: 'Over',
      weight: 'over',
      text: `${o.job} ${o.code} ${o.name}: forecast ${by} over budget`,
      step: 'Open tab',
      href: `/jobs/${o.job}?figure=${o.code}`,
    };
  });
  return { title: 'Over budget', href: '/jobs', count: n, rows };
}

async function toBuy(db: Db, person: Person, today: Day): Promise<Group> {
  const total = await countToBuy(db);
  const late = (await listSoonest(db, person, today, 40)).filter((r) => r.late);
  const shown = late.slice(0, SHOWN - 1).map((r): Waiting => ({
    word: 'Late',
    weight: 'over',
    text: `${r.description} for ${r.job}, needed by ${r.neededOn === null ? '' : formatDay(r.neededOn, today)}: ${lateWords(r)}`,
    step: 'Gather',
    href: `/gather?job=${r.job}`,
  }));
  const rest: Waiting = {
    word: 'To buy',
    weight: 'care',
    text: `${counted(total, 'line')} to buy for live jobs`,
    step: 'Gather',
    href: '/gather',
  };
  return { title: 'To buy', count: total, rows: [...shown, rest] };
}

const MAILED = {
  none: ['Draft', '', 'Review and send'],
  failed: ['Failed', 'email not sent', 'Send again'],
  unknown: ['Not known', 'email may have arrived', 'Check with supplier'],
} as const;

async function drafts(db: Db): Promise<Group> {
  const found = await rowsOf<
    Mailed & {
      number: string;
      net: number;
      currency: string;
      name: string;
    }
  >(
    db('purchaseOrder as o')
      .join('supplier as s', 's.id', 'o.supplierId')
      .whereIn('o.state', SENDABLE)
      .orderBy('o.id')
      .select('o.number', 'o.net', 'o.currency', 's.name', latestMail(db)),
  );
  const rows = found.slice(0, SHOWN).map((o): Waiting => {
    const [word, why, step] = MAILED[o.mail === 'failed' || o.mail === 'unknown' ? o.mail : 'none'];
    return {
      word,
      weight: word === 'Draft' ? 'care' : 'over',
      text: `${o.number} to ${o.name}, ${formatMoney(minor(o.net), o.currency)} net${why}`,
      step,
      href: `/orders/${o.number}`,
    };
  });
  return { title: 'To send', href: '/orders?show=unsent', count: found.length, rows };
}

/** Orders that are late at their suppliers, those promised too late, and those that nobody confirmed. */
async function toChase(db: Db, person: Person, today: Day): Promise<Group> {
  const late = await listOrders(db, person, { lateOn: today, sort: 'wanted' }, today);
  const promised = await rowsOf<{
    id: number;
    number: string;
    name: string;
    neededOn: Day;
  }>(
    db('purchaseOrder as o')
      .join('supplier as s', 's.id', 'o.supplierId')
      .whereNotNull('o.missedOn')
      .orderBy(['o.missedOn', 'o.id'])
      .select('o.id', 'o.number', 's.name', { neededOn: 'o.missedOn' }),
  );
  const tooLate = promised.filter((p) => !late.rows.some((r) => r.id === p.id));
  const silent = await rowsOf<{ number: string; sentOn: Day; name: string }>(
    db('purchaseOrder as o')
      .join('supplier as s', 's.id', 'o.supplierId')
      .where('o.state', 'sent')
      .where('o.sentOn', '<=', plusDays(today, -DAYS_TO_CONFIRM))
      .whereNotIn(
        'o.id',
        late.rows.map((r) => r.id),
      )
      .orderBy('o.sentOn')
      .select('o.number', 'o.sentOn', 's.name'),
  );
  const rows: Waiting[] = [
    ...late.rows.map((o): Waiting => ({
      word: 'Late',
      weight: 'over',
      text: `${o.number} from ${o.supplier}, ${o.promisedOn === null ? `required ${formatDay(o.wantedOn ?? today, today)}` : `promised ${formatDay(o.promisedOn, today)}`}`,
      step: 'Chase',
      href: `/orders/${o.number}`,
    })),
    ...tooLate.map((o): Waiting => ({
      word: 'Late',
      weight: 'over',
      text: `${o.number} from ${o.name}: promised later than needed by ${formatDay(o.neededOn, today)}`,
      step: 'Chase',
      href: `/orders/${o.number}`,
    })),
    ...silent.map((o): Waiting => ({
      word: 'Unconfirmed',
      weight: 'care',
      text: `${o.number}, sent to ${o.name} ${formatDay(o.sentOn, today)}: no confirmation`,
      step: 'Chase',
      href: `/orders/${o.number}`,
    })),
  ];
  return { title: 'To chase', href: '/orders?show=sent', count: rows.length, rows: rows.slice(0, SHOWN) };
}

async function toReceive(db: Db, today: Day): Promise<Group> {
  const due = () => db('purchaseOrder as o').where('o.dueHereOn', '<=', today);
  const [count] = (await due().count({ n: '*' })) as { n: number }[];
  const found = (await due()
    .join('supplier as s', 's.id', 'o.supplierId')
    .orderBy('o.dueHereOn')
    .limit(SHOWN)
    .select('o.number', 'o.dueHereOn', 'o.state', 's.name')) as {
    number: string;
    dueHereOn: Day;
    state: string;
    name: string;
  }[];
  const rows = found.map((o): Waiting => ({
    word: o.dueHereOn < today ? 'Late' : 'Today',
    weight: o.dueHereOn < today ? 'over' : 'care',
    text: `${o.number} from ${o.name}, due ${formatDay(o.dueHereOn, today)}${o.state === 'partIn' ? ', part received' : ''}`,
    step: 'Receive',
    href: `/dock/${o.number}`,
  }));
  return { title: 'To receive', href: '/dock', count: count?.n ?? 0, rows };
}

/** How long a job is told of whose material is complete: before and after its start, and to its lead since the last piece came. */
const TOLD = 14;

/** Jobs about to start whose material is there, and those that were to start and wait for it; one's own whose last piece came. */
async function toStart(db: Db, person: Person, today: Day): Promise<Group> {
  const since = plusDays(today, -TOLD);
  const told = () =>
    db('job as j')
      .where('j.state', LIVE)
      .whereExists(db('need as n').whereRaw("n.job_id = j.id and n.kind = 'goods' and n.quantity > 0"))
      .where((q) =>
        q
          .where((ready) =>
            ready
              .whereNotNull('j.readyOn')
              .where((or) =>
                or
                  .whereBetween('j.startsOn', [since, plusDays(today, TOLD)])
                  .orWhere((own) => own.where('j.leadId', person.id).where('j.readyOn', '>=', since)),
              ),
          )
          .orWhere((waits) => waits.whereNull('j.readyOn').where('j.startsOn', '<=', today)),
      );
  const found = (await told()
    .orderByRaw("j.lead_id = ? desc, coalesce(j.starts_on, '~'), j.id", [person.id])
    .limit(SHOWN)
    .select('j.id', 'j.number', 'j.name', 'j.startsOn')) as {
    id: number;
    number: string;
    name: string;
    startsOn: Day | null;
  }[];
  const material = await loadMaterial(
    db,
    person,
    found.map((j) => j.id),
  );
  const rows = found.flatMap(({ id, number, name, startsOn }): Waiting[] => {
    const own = material.get(id);
    if (own === undefined) return [];
    const ready = own.missing === 0;
    const starts =
      startsOn === null ? '' : `, ${startsOn < today ? 'start was due' : 'starts'} ${formatDay(startsOn, today)}`;
    return [
      {
        word: ready ? 'Ready' : 'Waiting',
        weight: ready ? 'good' : 'care',
        text: `${number} ${name}${starts}: material ${materialInWords(own, (d) => formatDay(d, today))}`,
        step: 'Open buy list',
        href: `/jobs/${number}/buy-list`,
      },
    ];
  });
  return { title: 'To start', href: '/jobs', count: await countOf(told()), rows };
}

/** Counts that wait to be looked over and posted. */
async function toPost(db: Db, person: Person): Promise<Group> {
  const found = await listCounted(db, person);
  return {
    title: 'Counted',
    href: '/stores/count',
    count: found.length,
    rows: found.slice(0, SHOWN).map((c): Waiting => ({
      word: 'Count',
      weight: 'care',
      text: `${c.number} of ${c.bin ?? c.place}: ${c.differ === 0 ? 'no differences' : counted(c.differ, 'difference')}`,
      step: 'Review and post',
      href: `/stores/count/${c.id}`,
    })),
  };
}

/** Jobs whose material is complete and lies here. */
async function toPick(db: Db, person: Person, today: Day): Promise<Group> {
  const { rows, count } = await listToPick(db, person, { most: SHOWN, ready: true });
  return {
    title: 'To pick',
    href: '/stores/pick',
    count,
    rows: rows.map((j): Waiting => ({
      word: 'Pick',
      weight: 'good',
      text: `${counted(j.lines, 'item')} for ${j.number} ${j.name}${j.startsOn === null ? '' : `, ${j.startsOn < today ? 'start was due' : 'starts'} ${formatDay(j.startsOn, today)}`}`,
      step: 'Pick',
      href: `/stores/pick/${j.number}`,
    })),
  };
}

async function toMatch(db: Db): Promise<Group> {
  const waiting = () => db('invoice as i').whereIn('i.state', WAITING);
  const [count] = await rowsOf<{ n: number }>(waiting().count({ n: '*' }));
  const found = await rowsOf<Invoice & { name: string }>(
    waiting()
      .join('supplier as s', 's.id', 'i.supplierId')
      .orderByRaw("case i.state when 'held' then 0 else 1 end, i.id")
      .limit(SHOWN)
      .select('i.*', 's.name'),
  );
  const rows: Waiting[] = [];
  for (const i of found) {
    const held = await differenceOf(db, i, 'words');
    const difference = held === undefined ? '' : `, ${held}`;
    rows.push({
      word: held === undefined ? 'Match' : 'Held',
      weight: held === undefined ? 'good' : 'over',
      text: `${i.name} ${i.number}, ${formatMoney(i.gross, i.currency)}${difference}`,
      step: held === undefined ? 'Match' : 'Review',
      href: `/invoices/${i.id}`,
    });
  }
  return { title: 'To match', href: '/invoices', count: count?.n ?? 0, rows };
}

async function quotes(db: Db): Promise<Group> {
  const open = () =>
    db('quote as q').join('job as j', 'j.id', 'q.jobId').whereIn('q.state', OPEN_QUOTE_STATES).whereNull('q.revisedAs');
  const [count] = await rowsOf<{ n: number }>(open().count({ n: '*' }));
  const found = await rowsOf<{
    number: string;
    state: string;
    name: string;
    job: string;
  }>(open().orderBy('q.id', 'desc').limit(SHOWN).select('q.number', 'q.state', 'j.name', { job: 'j.number' }));
  const rows = found.map((q): Waiting => ({
    word: 'Quote',
    weight: 'good',
    text: `${q.number}, ${q.name}: ${q.state === 'writing' ? 'in preparation' : 'with customer'}`,
    step: 'Open quote',
    href: `/jobs/${q.job}/quote`,
  }));
  return { title: 'Quotes', href: '/jobs?state=all', count: count?.n ?? 0, rows };
}
