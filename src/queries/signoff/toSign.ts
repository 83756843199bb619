import type { Day } from '@/core/calendar/workdays';
import { formatMoney, lineNet, minor, type Minor, type UnitPrice } from '@/core/money/money';
import { convert } from '@/core/money/rate';
import { maySign, stepNow } from '@/core/signoff/signing';
import type { Quantity } from '@/core/quantity/quantity';
import { loadCompany, loadCostCodes } from '@/store/company';
import { findOrder } from '@/store/orders';
import { reckon, sendingOf } from '@/workings/signoff/reckon';
import type { Db } from '@/store/db';
import { loadEstimates } from '@/store/estimates';
import { loadParts } from '@/store/gathering';
import { loadPast, type Past } from '@/store/paid';
import type { Person } from '@/store/people';
import { among, rowsOf } from '@/store/rows';
import { askedOf, loadSigners, matterOf } from '@/workings/signoff/matter';
import type { SignOffRow, SignRound } from '@/store/tables';
import { groupBy } from '@/core/group';
import { loadOrder, type OrderView } from '../orders/order';
import { permit } from '../permit';

/** An order, or a revision of one, that waits for this person's signature. */
export type ToSign = {
  readonly orderId: number;
  readonly signOffId: number;
  readonly number: string;
  readonly revision: number;
  readonly supplier: string;
  readonly value: Minor;
  /** Why it is theirs, and for whom they would sign. */
  readonly why: string;
  readonly askedBy: string;
  readonly day: Day;
  readonly note: string;
};

type Open = SignRound & { readonly number: string; readonly supplier: string; readonly askedBy: string };

/** What waits for a person's signature, the oldest first. */
export async function listToSign(db: Db, person: Person, today: Day): Promise<ToSign[]> {
  permit(person, 'sign orders');
  const rounds = await rowsOf<Open>(
    db('signRound as r')
      .join('purchaseOrder as o', 'o.id', 'r.orderId')
      .join('supplier as s', 's.id', 'o.supplierId')
      .join('person as p', 'p.id', 'r.personId')
      .where('r.state', 'open')
      .orderBy('r.id')
      .select('r.*', 'o.number', { supplier: 's.name', askedBy: 'p.name' }),
  );
  const ids = rounds.map((r) => r.id);
  const asked = groupBy(await rowsOf<SignOffRow>(db('signOff').whereIn('roundId', among(db, ids))), (a) => a.roundId);
  const signers = await loadSigners(db, today);
  const found: ToSign[] = [];
  for (const { id, orderId, number, revision, supplier, value, askedBy, day, note } of rounds) {
    const rows = asked.get(id) ?? [];
    const matter = await matterOf(db, signers, { id: orderId, number }, value, rows.map(askedOf));
    const now = stepNow(matter.asked);
    const mine = rows.find(
      (a) => a.state === 'waiting' && a.place === now && maySign(person.id, askedOf(a), matter).ok,
    );
    if (mine !== undefined)
      found.push({
        ...{ orderId, signOffId: mine.id, number, revision, supplier, value },
        ...{ why: mine.words, askedBy, day, note },
      });
  }
  return found;
}

/** One that waits, with what it does to budgets, so that it can be signed where it stands. */
export type RowToSign = ToSign & {
  readonly version: number;
  /** What is shown of it; undefined while its revision is not right yet. */
  readonly seen: string | undefined;
  /** The budgets that it leaves passed, in words. */
  readonly over: readonly string[];
};

/** How many are shown with what they do at a time. */
const MOST = 40;

/** What waits for a person's signature, with what each does to budgets. */
export async function loadToSign(db: Db, person: Person, today: Day): Promise<{ rows: RowToSign[]; more: number }> {
  const waiting = await listToSign(db, person, today);
  const { currency } = await loadCompany(db);
  const codes = new Map((await loadCostCodes(db)).map((c) => [c.id, c.code]));
  const rows: RowToSign[] = [];
  for (const w of waiting.slice(0, MOST)) {
    const order = await findOrder(db, w.orderId);
    const sending = order && (await sendingOf(db, order, today));
    if (order === undefined) continue;
    const reckoning = sending && (await reckon(db, order, sending));
    const jobs = new Map(reckoning?.facts.jobs.map((j) => [j.id, j.number]));
    const over = reckoning?.facts.accounts.filter((a) => a.over > 0) ?? [];
    rows.push({
      ...w,
      version: order.version,
      seen: reckoning?.seen,
      over: over.map(
        (a) => `${jobs.get(a.jobId ?? 0)} · ${codes.get(a.costCodeId ?? 0)} by ${formatMoney(a.over, currency)}`,
      ),
    });
  }
  return { rows, more: waiting.length - rows.length };
}

/** What another supplier would ask today for what a line buys, in the company's currency. */
export type Elsewhere = { readonly supplier: string; readonly value: Minor; readonly leadDays: number };

/** A line of an order as who signs it looks at it. */
export type LineToSign = {
  readonly place: number;
  readonly description: string;
  readonly number: string;
  readonly quantity: Quantity;
  readonly unit: string;
  readonly price: UnitPrice | null;
  readonly priceQuantity: number;
  readonly net: Minor;
  /** The last prices paid for it, the latest first. */
  readonly past: readonly Past[];
  /** Other suppliers that list it, the cheapest first. */
  readonly elsewhere: readonly Elsewhere[];
};

export type SignPage = { readonly view: OrderView; readonly lines: readonly LineToSign[] };

/** What somebody looks at before they sign: the order, what it does, what was paid before, and who was passed over. */
export async function loadSignPage(db: Db, person: Person, number: string, today: Day): Promise<SignPage | undefined> {
  permit(person, 'sign orders');
  const view = await loadOrder(db, person, number, today);
  if (view === undefined) return undefined;
  const { order, revising } = view;
  const { currency } = await loadCompany(db);
  const lines = revising?.lines ?? order.lines;
  const itemIds = [...new Set(lines.flatMap((l) => l.itemId ?? []))];
  const past = await loadPast(db, itemIds);
  const parts = groupBy([...(await loadParts(db, itemIds, today)).values()], (p) => p.itemId);
  const estimate = await loadEstimates(db, itemIds, today);
  const names = new Map((await db('supplier').select('id', 'name', 'leadDays')).map((s) => [s.id, s]));
  return {
    view,
    lines: lines.map((l, k): LineToSign => {
      const wanted = l.splits.reduce((sum, s) => sum + s.quantity, 0) as Quantity;
      const net = l.price === null ? minor(0) : lineNet(l.quantity, l.price, l.priceQuantity, order.currency);
      return {
        place: k + 1,
        ...{ description: l.description, number: l.ourNumber, quantity: l.quantity, unit: l.unit },
        ...{ price: l.price, priceQuantity: l.priceQuantity },
        net: convert(net, order.currency, currency, order.rate),
        past: (past.get(l.itemId ?? 0) ?? []).slice(0, 3),
        elsewhere: (parts.get(l.itemId ?? 0) ?? [])
          .filter((p) => p.supplierId !== order.supplierId)
          .flatMap((p) => {
            const { price } = estimate({ itemId: l.itemId, unit: l.shareUnit, quantity: wanted }, p.supplierId);
            const supplier = names.get(p.supplierId);
            if (price === null || supplier === undefined) return [];
            const leadDays = p.leadDays ?? supplier.leadDays;
            return [{ supplier: supplier.name, value: lineNet(wanted, price, 1, currency), leadDays }];
          })
          .sort((a, b) => a.value - b.value),
      };
    }),
  };
}
