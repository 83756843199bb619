import { rowsOf } from '@/store/rows';
import { formatDay, type Day } from '@/core/calendar/workdays';
import { minor, type Minor } from '@/core/money/money';
import type { Check } from '@/core/orders/checks';
import { may } from '@/core/people/rights';
import type { LadderStep } from '@/core/signoff/ladder';
import type { Finding } from '@/core/signoff/rules';
import { maySign, stepNow } from '@/core/signoff/signing';
import { whoSigns, whyNeeded, type Names } from '@/core/signoff/words';
import type { Db } from '@/store/db';
import type { StoredOrder } from '@/store/orders';
import type { Person } from '@/store/people';
import { loadLadder } from '@/store/signoff/ladder';
import { askedOf, loadNames, loadSigners, matterOf } from '@/workings/signoff/matter';
import { openRound, reckon, signedBy, type Reckoning, type Sending } from '@/workings/signoff/reckon';
import type { SignOffRow } from '@/store/tables';

/** One signature that an order needs or has. */
export type SignStep = {
  readonly place: number;
  readonly who: string;
  readonly why: string;
  readonly state: 'signed' | 'now' | 'later' | 'unasked';
  /** What became of it, or what it waits for. */
  readonly detail: string;
  /** Of what is asked: its id, and how this person may sign it. */
  readonly signOffId: number | null;
  readonly mine: { readonly forName: string | null } | null;
  /** Why this person, whose it is, may not sign it. */
  readonly barred: string;
};

export type SignView = {
  readonly steps: readonly SignStep[];
  /** What was asked and is not decided. */
  readonly round: { readonly askedBy: string; readonly day: Day; readonly note: string } | null;
  /** Why it came back, where it was refused last. */
  readonly refused: { readonly who: string; readonly day: Day; readonly reason: string } | null;
  /** Whether a signature is missing, and whether a rule keeps it from being sent at all. */
  readonly missing: boolean;
  readonly forbidden: boolean;
  readonly value: Minor;
  /** What its lines cost by their quotes, and what they are bought for; null where no quote has them. */
  readonly quoted: { readonly quoted: Minor; readonly pays: Minor } | null;
  readonly seen: string;
};

const ANSWERED: Readonly<Record<Finding['answer'], string>> = {
  warn: '',
  signOff: ': needs sign-off',
  forbid: ': not allowed, so it can’t be sent',
};

/** What the rules found, as it stands among an order's checks. */
export const findingChecks = (findings: readonly Finding[]): Check[] =>
  findings.map((f) => ({ good: false, words: `${f.words}${ANSWERED[f.answer]}` }));

export type Signing = { readonly view: SignView; readonly checks: readonly Check[] };

/** What stands between an order and its sending, as it would be sent now, and what this person can do about it. */
export async function loadSigning(
  db: Db,
  person: Person,
  order: StoredOrder,
  sending: Sending,
  today: Day,
): Promise<Signing> {
  const reckoning = await reckon(db, order, sending);
  const { facts, findings, standing, seen } = reckoning;
  const names = await loadNames(
    db,
    facts.jobs.map((j) => j.id),
  );
  const open = await openRound(db, order.id);
  const steps = open === undefined ? await planned(db, reckoning, names, today) : await asked(db, person, order, today);
  const [asker] = open === undefined ? [] : await db('person').where({ id: open.round.personId }).select('name');
  const quoted = minor(facts.lines.reduce((sum, l) => sum + l.quoted, 0));
  return {
    checks: findingChecks(findings),
    view: {
      steps,
      round: open === undefined ? null : { askedBy: asker?.name ?? '', day: open.round.day, note: open.round.note },
      refused: open === undefined ? await lastRefused(db, order.id) : null,
      missing: standing.missing.length > 0,
      forbidden: findings.some((f) => f.answer === 'forbid'),
      value: facts.value,
      quoted: quoted === 0 ? null : { quoted, pays: minor(facts.lines.reduce((sum, l) => sum + l.pays, 0)) },
      seen,
    },
  };
}

const none = { signOffId: null, mine: null, barred: '' } as const;

/** What an order will take, and what of it is there. */
async function planned(db: Db, { standing }: Reckoning, names: Names, today: Day): Promise<SignStep[]> {
  const ladder = new Map((await loadLadder(db)).map((s) => [s.id, s]));
  const given = standing.signed.map(({ needed, given: { row } }): SignStep => {
    const why = whyNeeded(needed, ladder.get(needed.stepId) as LadderStep, names);
    return {
      place: needed.place,
      who: whoSigns(needed.by, names),
      why,
      state: 'signed',
      detail: decided(row, names, today),
      ...none,
    };
  });
  const open = standing.missing.map((needed): SignStep => {
    const why = whyNeeded(needed, ladder.get(needed.stepId) as LadderStep, names);
    return { place: needed.place, who: whoSigns(needed.by, names), why, state: 'unasked', detail: '', ...none };
  });
  return [...given, ...open].sort((a, b) => a.place - b.place);
}

/** How a signature was decided. @example 'signed Tue 12 May, “price up since March”' */
function decided(row: SignOffRow, names: Names, today: Day): string {
  const by = row.decidedBy ?? 0;
  const own = row.byPerson === by && row.forId === null;
  const who = own ? '' : ` by ${names.person(by)}`;
  const forWhom = row.forId === null ? '' : ` for ${names.person(row.forId)}`;
  const why = row.reason === '' ? '' : `, “${row.reason}”`;
  return `signed ${row.day === null ? '' : formatDay(row.day, today)}${who}${forWhom}${why}`;
}

/** What is asked of an order, with what this person may sign of it; steps that were signed before stand first. */
async function asked(db: Db, person: Person, order: StoredOrder, today: Day): Promise<SignStep[]> {
  const open = await openRound(db, order.id);
  if (open === undefined) return [];
  const before = await rowsOf<SignOffRow>(
    db('signOff as s')
      .join('signRound as r', 'r.id', 's.roundId')
      .where({ 'r.orderId': order.id, 'r.revision': open.round.revision, 's.state': 'signed' })
      .whereNot('r.id', open.round.id)
      .orderBy('s.id')
      .select('s.*'),
  );
  const askedSteps = new Set(open.asked.map((a) => `${a.stepId}/${a.byPerson}/${a.byRole}`));
  const kept = before.filter((a) => !askedSteps.has(`${a.stepId}/${a.byPerson}/${a.byRole}`));
  const rows = [...kept, ...open.asked];
  const signers = await loadSigners(db, today);
  const matter = await matterOf(db, signers, order, open.round.value, open.asked.map(askedOf));
  const names = await loadNames(db);
  const now = stepNow(matter.asked);
  return rows
    .map((row): SignStep => {
      const step = { place: row.place, who: whoSigns(signedBy(row), names), why: row.words };
      if (row.state === 'signed') return { ...step, state: 'signed', detail: decided(row, names, today), ...none };
      const handed = row.handedTo === null ? '' : `reassigned to ${names.person(row.handedTo)}`;
      if (row.place !== now)
        return { ...step, state: 'later', detail: handed || `after step ${now}`, ...none, signOffId: row.id };
      const mine = maySign(person.id, askedOf(row), matter);
      const barred = mine.ok ? '' : (mine.refusals.find((r) => r.code !== 'signOff.notYours')?.message ?? '');
      return {
        ...step,
        state: 'now',
        detail: handed,
        signOffId: row.id,
        mine: mine.ok ? { forName: mine.value === null ? null : names.person(mine.value) } : null,
        barred: may(person, 'sign orders') ? barred : '',
      };
    })
    .sort((a, b) => a.place - b.place);
}

async function lastRefused(db: Db, orderId: number): Promise<SignView['refused']> {
  const round = await db('signRound').where({ orderId }).orderBy('id', 'desc').first('id', 'state');
  if (round?.state !== 'refused') return null;
  const [row] = await rowsOf<{ name: string; day: Day; reason: string }>(
    db('signOff as s')
      .join('person as p', 'p.id', 's.decidedBy')
      .where({ 's.roundId': round.id, 's.state': 'refused' })
      .select('p.name', 's.day', 's.reason'),
  );
  return row === undefined ? null : { who: row.name, day: row.day, reason: row.reason };
}
