import { isCharge } from '@/core/orders/kinds';
import { createHash } from 'node:crypto';
import type { Day } from '@/core/calendar/workdays';
import { groupBy } from '@/core/group';
import { lineNet, minor, type Minor, type UnitPrice } from '@/core/money/money';
import { costOf } from '@/core/money/tax';
import { valueOrder } from '@/core/orders/order';
import type { LineKind } from '@/core/orders/kinds';
import { isUnsent } from '@/core/orders/states';
import type { Quantity } from '@/core/quantity/quantity';
import type { Charged, JobFacts, PricedLine, Reckoned, SigningFacts } from '@/core/signoff/facts';
import {
  neededFor,
  signaturesOf,
  type Given,
  type Needed,
  type SignedBy,
  type Signatures,
} from '@/core/signoff/ladder';
import { findByRules, type Finding } from '@/core/signoff/rules';
import type { Effect } from '@/core/tab/effect';
import { addLevels, forecastOf, type Level } from '@/core/tab/sums';
import { loadCompany, loadCostCodes, withTaxes } from '@/store/company';
import type { Db } from '@/store/db';
import { orderEffects, revisionEffects } from '../orders/effects';
import { loadLevels } from '@/store/levels';
import { loadMoney, type LineToSave, type StoredOrder } from '@/store/orders';
import { findRevision, revise } from '../orders/revise';
import { among, whereIn, rowsOf } from '@/store/rows';
import type { SignOffRow } from '@/store/tables';
import { loadLadder, loadRules } from '@/store/signoff/ladder';

/** A line with what each of its parts comes to: stored, or worked out anew. */
type ValuedLine = {
  readonly kind: LineKind;
  readonly description: string;
  readonly splits: readonly {
    readonly jobId: number | null;
    readonly costCodeId: number | null;
    readonly needId: number | null;
    readonly quantity: Quantity;
    readonly value: number;
  }[];
};

/** What an order would be sent as, with what that does to each budget. */
export type Sending = { readonly lines: readonly ValuedLine[]; readonly effects: readonly Effect[] };

const keyOf = (a: { readonly jobId: number | null; readonly costCodeId: number | null }) =>
  `${a.jobId}/${a.costCodeId}`;

/** What lines charge to each account. */
export function chargedBy(lines: readonly ValuedLine[]): Charged[] {
  const all = lines.flatMap((l) => l.splits);
  return [...groupBy(all, keyOf).values()].flatMap((own) => {
    const [first] = own;
    return first === undefined
      ? []
      : [{ jobId: first.jobId, costCodeId: first.costCodeId, value: minor(own.reduce((sum, s) => sum + s.value, 0)) }];
  });
}

/** The budget as it stands once what is drafted of it is sent. */
function onceSent({ before: _, after }: Effect, drafted: number): Level {
  const { amounts } = after;
  return {
    budget: after.budget,
    amounts: { ...amounts, drafted: minor(amounts.drafted - drafted), onOrder: minor(amounts.onOrder + drafted) },
  };
}

async function factsOf(db: Db, order: StoredOrder, { lines, effects }: Sending): Promise<SigningFacts> {
  const { currency: companyCurrency } = await loadCompany(db);
  const unsent = isUnsent(order.state, order.sentFrom);
  const levels = new Map(effects.map((e) => [keyOf(e), e]));
  const accounts = chargedBy(lines).map((charged): Reckoned => {
    const effect = levels.get(keyOf(charged));
    const level = effect && onceSent(effect, unsent ? charged.value : 0);
    return { ...charged, level, over: minor(level === undefined ? 0 : Math.max(forecastOf(level) - level.budget, 0)) };
  });
  const jobIds = [...new Set(accounts.flatMap((a) => a.jobId ?? []))];
  const signatures = groupBy(await loadLevels(db, jobIds), (l) => l.jobId);
  const sent = new Map(accounts.map((a) => [keyOf(a), a.level]));
  const whole = (jobId: number): Level => {
    const own = (signatures.get(jobId) ?? []).map((l) => sent.get(keyOf(l)) ?? levels.get(keyOf(l))?.after ?? l);
    const known = new Set((signatures.get(jobId) ?? []).map(keyOf));
    const fresh = accounts.flatMap((a) => (a.jobId === jobId && !known.has(keyOf(a)) ? (a.level ?? []) : []));
    return addLevels([...own, ...fresh]);
  };
  const jobs = (await whereIn(db, 'job', 'id', jobIds)).map((j): JobFacts => {
    const { id, number, kind, leadId, onHold } = j;
    return { id, number, kind, leadId, onHold, level: whole(id) };
  });
  return {
    number: order.number,
    supplierId: order.supplierId,
    currency: order.currency,
    companyCurrency,
    value: minor(accounts.reduce((sum, a) => sum + a.value, 0)),
    accounts,
    jobs,
    lines: await pricedLines(db, lines, companyCurrency),
  };
}

/** Parts of lines that a quote has a cost for. */
async function pricedLines(db: Db, lines: readonly ValuedLine[], currency: string): Promise<PricedLine[]> {
  const parts = lines.flatMap((l) => (isCharge(l) ? [] : l.splits.map((s) => ({ ...s, description: l.description }))));
  const needIds = parts.flatMap((s) => s.needId ?? []);
  const rows = await rowsOf<{ id: number; cost: UnitPrice; supplierId: number | null }>(
    db('need as n')
      .join('quoteLine as q', (j) => j.on('q.id', 'n.quoteLineId').on('q.unit', 'n.unit'))
      .whereIn('n.id', among(db, needIds))
      .select('n.id', 'q.cost', 'q.supplierId'),
  );
  const costs = new Map((await withTaxes(db, rows)).map((r) => [r.id, r]));
  return parts.flatMap(({ description, jobId, costCodeId, needId, quantity, value }) => {
    const of = costs.get(needId ?? 0);
    if (of === undefined || jobId === null || costCodeId === null) return [];
    const quoted = costOf(lineNet(quantity, of.cost, 1, currency), of.tax);
    return [{ description, jobId, costCodeId, pays: minor(value), quoted }];
  });
}

/** A signature that was given, with its record. */
export type Signature = Given & { readonly row: SignOffRow };

export const signedBy = ({ byPerson, byRole }: Pick<SignOffRow, 'byPerson' | 'byRole'>): SignedBy =>
  byPerson !== null ? { kind: 'person', personId: byPerson } : { kind: 'role', role: byRole ?? 'manager' };

async function givenSignatures(db: Db, orderId: number): Promise<Signature[]> {
  const rows = await rowsOf<SignOffRow>(
    db('signOff as s')
      .join('signRound as r', 'r.id', 's.roundId')
      .where({ 'r.orderId': orderId, 's.state': 'signed' })
      .orderBy('s.id', 'desc')
      .select('s.*'),
  );
  return rows.map((row) => {
    const { stepId, supplierId, about } = row;
    return { row, stepId, supplierId, by: signedBy(row), about: JSON.parse(about) as Charged[] };
  });
}

export type Reckoning = {
  readonly facts: SigningFacts;
  readonly findings: readonly Finding[];
  readonly needed: readonly Needed[];
  readonly standing: Signatures<Signature>;
  /** What a signer saw: it changes when the order, or what it does to a budget, does. */
  readonly seen: string;
};

/** What stands between an order and its sending: what the rules find, and which signatures it needs and has. */
export async function reckon(db: Db, order: StoredOrder, sending: Sending): Promise<Reckoning> {
  const company = await loadCompany(db);
  const facts = await factsOf(db, order, sending);
  const codes = new Map((await loadCostCodes(db)).map((c) => [c.id, c]));
  const numbers = new Map(facts.jobs.map((j) => [j.id, j.number]));
  const findings = findByRules(facts, await loadRules(db), ({ jobId, costCodeId }) => {
    const code = codes.get(costCodeId ?? 0);
    return `${numbers.get(jobId ?? 0)} ${code?.code} ${code?.name}`;
  });
  const needed = neededFor(await loadLadder(db), facts, findings);
  const tolerance = { share: company.signToleranceShare, most: company.signToleranceMost };
  const sent = isUnsent(order.state, order.sentFrom)
    ? undefined
    : { supplierId: order.supplierId, about: chargedBy(order.lines) };
  const standing = signaturesOf(needed, await givenSignatures(db, order.id), order.supplierId, tolerance, sent);
  const shown = [order.version, facts.value, facts.accounts.map((a) => [keyOf(a), a.value, a.over])];
  const seen = createHash('sha256').update(JSON.stringify(shown)).digest('hex').slice(0, 16);
  return { facts, findings, needed, standing, seen };
}

/** An order as it would be sent now: as it stands, or as its revision has it; undefined while that is not right yet. */
export async function sendingOf(db: Db, order: StoredOrder, today: Day): Promise<Sending | undefined> {
  const revision = await findRevision(db, order.id);
  if (revision === undefined) return { lines: order.lines, effects: await orderEffects(db, order) };
  const revised = await revise(db, order, revision.content, today);
  if (!revised.ok) return undefined;
  const { lines } = revised.value;
  return { lines, effects: await revisionEffects(db, order, lines) };
}

/** Whether a draft would have every signature that it needs if it were saved with these lines. */
export async function staysSigned(db: Db, order: StoredOrder, toSave: readonly LineToSave[]): Promise<boolean> {
  const { codes, companyCurrency } = await loadMoney(db);
  const lines = valueOrder(toSave, codes, { currency: order.currency, companyCurrency, rate: order.rate });
  const effects = await orderEffects(db, order, lines);
  return (await reckon(db, order, { lines, effects })).standing.missing.length === 0;
}

/** What of an order is asked for now: its open round, with all that was asked in it. */
export async function openRound(db: Db, orderId: number) {
  const round = await db('signRound').where({ orderId, state: 'open' }).first();
  return round && { round, asked: await db('signOff').where({ roundId: round.id }).orderBy(['place', 'id']) };
}

export type OpenRound = NonNullable<Awaited<ReturnType<typeof openRound>>>;

/** How far each writer of an order may sign for it, in minor units of the company's currency. */
export async function writersOf(db: Db, orderId: number): Promise<ReadonlyMap<number, Minor>> {
  const rows = await rowsOf<{ id: number; ownLimit: Minor }>(
    db('orderWriter as w')
      .join('person as p', 'p.id', 'w.personId')
      .where({ 'w.orderId': orderId })
      .select('p.id', 'p.ownLimit'),
  );
  return new Map(rows.map((r) => [r.id, r.ownLimit]));
}
