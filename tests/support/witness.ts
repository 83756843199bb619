import Big from 'big.js';
import type { Db } from '@/store/db';
import { addUp, differing, place, plan, standParts, type Beside, type Memory, type Told } from './dayWitness';
import {
  deliveries,
  inHand,
  inShares,
  none,
  nothingCame,
  stagesOf,
  UNSENT,
  type Came,
  type Line,
  type Part,
} from './deliveryWitness';
import { stockOf, type PartStock } from './stockWitness';
import { byWeight, exchange, grossOf, lineNet, lostOf, num, whole, withTax, type Row, follow } from './plainSums';

/**
 * The plain witness: a second way to the same figures, by other means. It shares no code with the application but the
 * connection. From the documents in a file (needs, orders, receipts, invoices) it works out every line and every account,
 * slowly and in the open: amounts with big.js, shares by handing out one unit after the other, deliveries and invoices by
 * replaying them in the order in which they were taken in and matched.
 */

/** Works everything out from the documents in the file, as they are now. */
export async function witness(db: Db, memory: Memory): Promise<Told> {
  const all = async (table: string, order = 'id') => (await db(table as never).orderBy(order)) as unknown as Row[];
  const company = (await all('company'))[0] as Row;
  const taxes = new Map((await all('taxCode')).map((t) => [t.id as unknown, t]));
  const taxOf = (id: unknown): Row => taxes.get(id) as Row;
  const suppliers = new Map((await all('supplier')).map((s) => [s.id as unknown, s]));
  const needs = await all('need');
  const orders = await all('purchaseOrder');
  const orderLines = await all('orderLine', 'place');
  const splits = await all('split', 'place');
  const told: Told = {
    lines: new Map(),
    accounts: new Map(),
    open: new Map(),
    orders: new Map(),
    budgets: new Map(),
    places: new Map(),
    missing: new Map(),
    piles: memory.stock.piles,
    claimed: new Map(),
  };
  const lines = new Map<number, Line>();
  const units = new Map(
    (await all('item'))
      .filter((i) => ['material', 'part'].includes(String(i.kind)))
      .map((i) => [i.id as unknown, i.unit]),
  );

  const quoteLines = await all('quoteLine', 'place');
  const quotes = await all('quote');
  // A won quote counts until its revision is won.
  const replaced = (quote: (typeof quotes)[number]) =>
    quotes.some((q) => q.id === quote.revisedAs && q.state === 'won');
  for (const quote of quotes) {
    const own = quoteLines.filter((l) => l.quoteId === quote.id);
    told.places.set(
      num(quote.id),
      own.map((l) => num(l.place)),
    );
    if (quote.state !== 'won' || replaced(quote)) continue;
    for (const l of own.filter((q) => (q.kind === 'bought' || q.kind === 'allowance') && q.optional === 0)) {
      const account = place(quote.jobId, l.costCodeId);
      const net = lineNet(l.quantity, l.cost, 1, company.currency);
      const supplier = suppliers.get(l.supplierId);
      told.budgets.set(
        account,
        (told.budgets.get(account) ?? 0) + net + (supplier === undefined ? 0 : lostOf(net, taxOf(supplier.taxCodeId))),
      );
    }
  }

  const invoiced = new Set((await all('invoiceLine')).map((l) => num(l.lineId)));
  const elsewhere = (await db.raw(
    "select s.subject_id as id, count(*) as n from audit a join audit_subject s on s.audit_id = a.id where a.action = 'chargeElsewhere' and s.kind = 'order' group by s.subject_id",
  )) as { id: number; n: number }[];
  const recharged = new Map(elsewhere.map((e) => [e.id, e.n]));
  for (const order of orders) {
    const own = orderLines.filter((l) => l.orderId === order.id);
    // A price is what is left of the gross price after its discount, to four places.
    const paid = (l: Row) =>
      l.grossPrice === null ? l.price : whole(new Big(num(l.grossPrice)).times(10_000 - num(l.discount)).div(10_000));
    const netsBefore = own.map((l) => lineNet(l.quantity, paid(l), l.priceQuantity, order.currency));
    // A discount on the order takes its share of the lines with its tax.
    const off = (l: Row) =>
      own.reduce((a, o, k) => a + (o.kind !== 'charge' && o.taxCodeId === l.taxCodeId ? (netsBefore[k] ?? 0) : 0), 0);
    const isShare = (l: Row) => l.chargeKind === 'discount' && num(l.discount) > 0;
    const nets = own.map((l, k) => ({
      net: isShare(l) ? -whole(new Big(off(l)).times(num(l.discount)).div(10_000)) : (netsBefore[k] ?? 0),
      tax: taxOf(l.taxCodeId),
    }));
    told.orders.set(num(order.id), { net: nets.reduce((a, n) => a + n.net, 0), gross: grossOf(nets) });
    const costs = withTax(nets).map((c) => exchange(c, order.rate, order.currency, company.currency));
    const goods: { job: unknown; code: unknown; value: number; quantity: number; weight: number }[] = [];
    const stamp = `${num(order.revision)}/${recharged.get(num(order.id)) ?? 0}`;
    for (const pass of ['goods', 'charges'])
      for (const [k, l] of own.entries()) {
        if ((l.kind === 'charge') !== (pass === 'charges')) continue;
        const rows = splits.filter((s) => s.lineId === l.id);
        const cost = costs[k] ?? 0;
        const parts = rows.map((s): Part => ({
          id: num(s.id),
          job: s.jobId,
          code: s.costCodeId,
          need: s.needId,
          quantity: num(s.quantity),
          value: 0,
          place: num(s.place),
          stored: s.jobId === null && l.kind === 'goods' && l.shareUnit === units.get(l.itemId),
        }));
        if (l.kind === 'charge' && l.spread === 'amounts') {
          // A person said each part; tax that is not got back and the rate go with them.
          const values = byWeight(
            cost,
            rows.map((s) => Math.abs(num(s.amount))),
          );
          parts.forEach((p, j) => (p.value = values[j] ?? 0));
        } else if (l.kind === 'charge') {
          const by = { quantity: 'quantity', weight: 'weight' }[String(l.spread)] as 'quantity' | undefined;
          const over = goods.map((g) => (by === undefined ? g : { ...g, value: g[by] }));
          const values = follow(cost, over, l.chargeCodeId);
          for (const p of parts) {
            const now = values.find((v) => v.job === p.job && v.code === p.code)?.value ?? NaN;
            const known = memory.charges.get(p.id);
            // A charge that is invoiced stays where it is when lines are charged elsewhere.
            const stays =
              known?.stamp === stamp || (invoiced.has(num(l.id)) && known?.stamp.split('/')[0] === stamp.split('/')[0]);
            p.value = UNSENT.includes(String(order.state)) || known === undefined || !stays ? now : known.value;
            memory.charges.set(p.id, { value: p.value, stamp });
          }
        } else {
          const values = byWeight(
            cost,
            parts.map((p) => p.quantity),
          );
          parts.forEach((p, j) => (p.value = values[j] ?? 0));
          // Kilograms to four places.
          const weigh = (q: number) => whole(new Big(q).times(num(l.weight ?? 0)).div(10_000));
          for (const { job, code, value, quantity: q } of parts)
            goods.push({ job, code, value, quantity: q, weight: weigh(q) });
        }
        const [closed, ended] = [l.closedShort !== null, l.invoicesEnded !== null];
        const of = { quantity: num(l.quantity), many: num(l.factorMany), one: num(l.factorOne), closed, ended };
        lines.set(num(l.id), {
          id: num(l.id),
          order: order.id,
          kind: String(l.kind),
          parts,
          state: String(order.state),
          ...of,
        });
      }
  }
  const state = await replay(db, { company, lines, told, all, taxOf, needs, memory });
  const parts = new Map(
    [...lines.values()].flatMap((l) =>
      l.parts.map((p) => {
        const c = state.get(p.id) ?? nothingCame();
        const { job, value, quantity } = p;
        return [
          p.id,
          { job, value, quantity, ordered: p.quantity, came: c.received, inHand: inHand(stagesOf(l, p, c), c) },
        ] as const;
      }),
    ),
  );
  const stock = await stockOf(db, memory.stock, (id) => parts.get(id) as PartStock);
  for (const [key, q] of stock.claimed) told.claimed.set(key, q);
  for (const [id, standings] of stock.lines)
    told.lines.set(
      id,
      standings.map(({ account, value }) => ({ account, stages: { ...none(), actual: value } })),
    );
  const scene = { lines, state, needs, suppliers, taxOf, currency: String(company.currency), held: stock.held };
  told.scene = { ...scene, told, beside: structuredClone(told.accounts), known: new Set(memory.receipts.keys()) };
  plan(scene, told);
  addUp(told);
  return told;
}

type Replayed = {
  company: Row;
  lines: Map<number, Line>;
  told: Told;
  all: (table: string, order?: string) => Promise<Row[]>;
  taxOf: (id: unknown) => Row;
  needs: Row[];
  memory: Memory;
};

/** Takes deliveries in and matches invoices again, in the order of the journal. */
async function replay(
  db: Db,
  { company, lines, told, all, taxOf, needs, memory }: Replayed,
): Promise<Map<number, Came>> {
  const state = new Map<number, Came>();
  const at = (id: number): Came => {
    const known = state.get(id) ?? nothingCame();
    state.set(id, known);
    return known;
  };
  const journal = (await db.raw(
    "select a.id, a.action, s.kind, s.subject_id from audit a join audit_subject s on s.audit_id = a.id where (a.action in ('receive', 'inspect', 'sendBack', 'returnGoods', 'takeBack', 'reverseReceipt', 'correctReceipt') and s.kind = 'receipt') or (a.action = 'matchInvoice' and s.kind = 'invoice') order by a.id",
  )) as {
    action:
      | 'receive'
      | 'inspect'
      | 'returnGoods'
      | 'sendBack'
      | 'reverseReceipt'
      | 'takeBack'
      | 'correctReceipt'
      | 'matchInvoice';
    subjectId: number;
  }[];
  const receiptLines = await all('receiptLine', 'receiptId');
  const receipts = await all('receipt');
  const invoices = await all('invoice');
  const invoiceLines = await all('invoiceLine', 'place');
  const door = deliveries(lines, at, receiptLines, (p) =>
    String(needs.find((n) => n.id === p.need)?.neededOn ?? '9999'),
  );
  const { ofLine } = door;
  const done = new Set<number>();
  const cost = (invoice: Row) => {
    const own = invoiceLines.filter((l) => l.invoiceId === invoice.id);
    const costs = withTax(own.map((l) => ({ net: num(l.net), tax: taxOf(l.taxCodeId) })));
    return own.map((l, k) => ({ l, cost: exchange(costs[k] ?? 0, invoice.rate, invoice.currency, company.currency) }));
  };
  /** What an invoice takes of each part: what is in and not invoiced first, then what is ordered. */
  const take = (line: Line, quantity: number): number[] => {
    if (line.kind === 'charge') return line.parts.map(() => quantity);
    const known = ofLine(line.id).invoiced;
    let left = inShares(line, known + quantity) - inShares(line, known);
    const got = line.parts.map(() => 0);
    for (const upTo of ['received', 'quantity'] as const)
      line.parts.forEach((p, k) => {
        const limit = upTo === 'received' ? at(p.id).received : p.quantity;
        const part = Math.max(0, Math.min(left, limit - at(p.id).invoiced - (got[k] ?? 0)));
        got[k] = (got[k] ?? 0) + part;
        left -= part;
      });
    got[got.length - 1] = (got.at(-1) ?? 0) + left;
    return got;
  };
  for (const { action, subjectId } of journal) {
    if (action !== 'matchInvoice') {
      // A correction takes one receipt back, which it speaks of first, and makes another.
      const back =
        ['takeBack', 'reverseReceipt'].includes(action) || (action === 'correctReceipt' && done.has(subjectId));
      done.add(subjectId);
      const before = structuredClone(state);
      door[back ? 'takeBack' : action === 'correctReceipt' ? 'receive' : action](subjectId);
      const receipt = receipts.find((r) => (back ? r.reversesId : r.id) === subjectId) as Row;
      const brought = { day: String(receipt.day), parts: differing(before, state) };
      memory.receipts.set(num(receipt.id), memory.receipts.get(num(receipt.id)) ?? brought);
    } else {
      const invoice = invoices.find((i) => i.id === subjectId) as Row;
      const beside: Beside[] = [];
      const parts = [...lines.values()].filter((l) => l.order === invoice.orderId).flatMap((l) => l.parts);
      for (const { l, cost: amount } of cost(invoice)) {
        if (l.lineId === null) {
          if (l.spread === 1) beside.push(...follow(amount, parts, l.costCodeId));
          else beside.push({ job: l.jobId, code: l.costCodeId, value: amount });
          continue;
        }
        const line = lines.get(num(l.lineId)) as Line;
        const got = take(line, num(l.quantity));
        // What an invoice charged a job for carriage stays there when a revision spreads it anew.
        const weights = line.kind === 'charge' ? line.parts.map((p) => Math.abs(p.value)) : got;
        const amounts = memory.charged.get(num(l.id)) ?? byWeight(amount, weights);
        if (line.kind === 'charge') memory.charged.set(num(l.id), amounts);
        line.parts.forEach((p, k) => {
          at(p.id).invoiced += got[k] ?? 0;
          at(p.id).amount += amounts[k] ?? 0;
        });
        ofLine(line.id).invoiced += num(l.quantity);
      }
      const off = num(invoice.typedTotal) - num(invoice.gross);
      if (off !== 0)
        beside.push(...follow(exchange(off, invoice.rate, invoice.currency, company.currency), parts, null));
      memory.beside.set(subjectId, memory.beside.get(subjectId) ?? beside);
      for (const b of memory.beside.get(subjectId) ?? []) {
        const account = place(b.job, b.code);
        const sum = told.accounts.get(account) ?? none();
        sum.actual += b.value;
        told.accounts.set(account, sum);
      }
    }
  }
  // What invoices that wait claim of lines that have ended.
  for (const line of [...lines.values()].filter((l) => l.closed || l.ended)) {
    const waiting = invoiceLines.filter(
      (l) =>
        l.lineId === line.id && ['entered', 'held'].includes(String(invoices.find((i) => i.id === l.invoiceId)?.state)),
    );
    const quantity = waiting.reduce((a, l) => a + num(l.quantity), 0);
    if (quantity > 0) take(line, quantity).forEach((q, k) => (at((line.parts[k] as Part).id).claimed = q));
  }
  standParts(lines, at, told);
  return state;
}
