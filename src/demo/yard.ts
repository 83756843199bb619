import { isCharge, isGoodsLine, type LineKind } from '@/core/orders/kinds';
import { plusWorkdays, type Calendar, type Day } from '@/core/calendar/workdays';
import { lineNet, parsePrice, type Minor, type UnitPrice } from '@/core/money/money';
import { totalsOf } from '@/core/money/tax';
import { quantity, type Quantity } from '@/core/quantity/quantity';
import { confirmOrder } from '@/actions/orders/confirming';
import { sendWith } from '@/actions/company/files';
import { enterInvoice, matchInvoice } from '@/actions/invoices/invoices';
import { draftOrders } from '@/actions/orders/orders';
import { receive } from '@/actions/dock/receiving';
import type { Reading } from '@/actions/quotes/importing';
import { beginRevision, changeRevision } from '@/actions/orders/revising';
import { sendOrder, type Post, type Sender } from '@/actions/orders/sending';
import { readQuoteFile } from '@/queries/quotes/importing';
import { purchaseOrderPdf } from '@/formats/pdf/purchaseOrder';
import type { Outcome } from '@/actions/action';
import { loadTaxCodes } from '@/store/company';
import type { Db } from '@/store/db';
import { findOrder } from '@/store/orders';
import { findByEmail } from '@/store/people';
import { contentOf } from '@/workings/orders/revise';
import { TRACKED, type PersonKey } from './catalogue';

/** The value of an outcome; the sample company's history has no refusals. */
export function must<T>(outcome: Outcome<T>): T {
  if (outcome.status === 'done') return outcome.value;
  throw new Error(outcome.status === 'clash' ? outcome.message : outcome.refusals.map((r) => r.message).join(' '));
}

export const q = (n: number): Quantity => quantity(Math.round(n * 10_000));

export function price(n: number): UnitPrice {
  const read = parsePrice(String(n));
  if (!read.ok) throw new Error(`${n} is no price.`);
  return read.value;
}

export const pence = (n: number): Minor => Math.round(n * 100) as Minor;

/** An order in the sample history: what is bought, by `job/item` or with a part of the quantity, and what came of it. */
export type Episode = {
  on: number;
  lines: readonly (string | readonly [ref: string, quantity: number])[];
  /** Files of its first job that go with it. */
  with?: readonly string[];
  sent?: number;
  /** What the supplier answered: its number, and of which item it comes how many working days from today. */
  answered?: { on: number; number: string; comes?: Readonly<Record<string, number>>; note?: string };
  /** A revision that was sent: why, and what the supplier is told to do. */
  revised?: { on: number; reason: string; instructions: string };
  /** Deliveries: the working day, and how much of which item (all that is due when left out). */
  in?: readonly {
    on: number;
    only?: Readonly<Record<string, number>>;
    note?: string;
    /** Serial numbers by item. */
    numbers?: Readonly<Record<string, readonly string[]>>;
  }[];
  invoices?: readonly {
    on: number;
    number: string;
    only?: Readonly<Record<string, number>>;
    prices?: Readonly<Record<string, number>>;
    matched?: number;
    reason?: string;
  }[];
};

type Line = {
  id: number;
  kind: LineKind;
  ourNumber: string;
  description: string;
  quantity: Quantity;
  unit: string;
  price: UnitPrice;
  priceQuantity: number;
  taxCodeId: number;
  wantedOn: Day | null;
};

/** Tells the sample company's history through the same actions that people use, day by day. */
export class DemoYard {
  private count = 0;

  constructor(
    readonly db: Db,
    readonly today: Day,
    readonly calendar: Calendar,
    private readonly post: Post,
  ) {}

  day(offset: number): Day {
    return plusWorkdays(this.today, offset, this.calendar);
  }

  once(): string {
    this.count += 1;
    return `demo-${String(this.count).padStart(6, '0')}`;
  }

  async as(who: PersonKey, offset: number, hour = 10): Promise<Sender & Reading> {
    const actor = await findByEmail(this.db, `${who}@wrackline.example`);
    if (actor === undefined) throw new Error(`${who} is not there.`);
    const day = this.day(offset);
    const now = `${day}T${String(hour).padStart(2, '0')}:${String(this.count % 60).padStart(2, '0')}:00.000Z`;
    const setting = { db: this.db, actor, clock: { today: () => day, now: () => now } };
    return {
      ...setting,
      post: this.post,
      setPaper: purchaseOrderPdf,
      perform: (action, input) => action(setting, input),
      read: (input) => readQuoteFile(this.db, actor, setting.clock.today(), input.fileId, input),
    };
  }

  private async picks(lines: Episode['lines']) {
    const picks = [];
    for (const line of lines) {
      const [ref, part] = typeof line === 'string' ? [line, undefined] : line;
      const [job, item] = ref.split('/');
      const need = (await this.db('need as n')
        .join('job as j', 'j.id', 'n.jobId')
        .join('item as i', 'i.id', 'n.itemId')
        .where({ 'j.number': job, 'i.number': item })
        .first('n.id', 'n.open')) as { id: number; open: Quantity } | undefined;
      if (need === undefined) throw new Error(`There is no need ${ref}.`);
      picks.push({ needId: need.id, buy: part === undefined ? need.open : q(part) });
    }
    return picks;
  }

  private async lines(orderId: number): Promise<Line[]> {
    return (await this.db('orderLine').where({ orderId }).orderBy('place')) as Line[];
  }

  /** Plays one order from the buy list to its invoices. */
  async play(episode: Episode): Promise<string> {
    const { orders } = must(
      await draftOrders(await this.as('mina', episode.on, 9), {
        once: this.once(),
        picks: await this.picks(episode.lines),
      }),
    );
    const [order] = orders;
    if (order === undefined || orders.length > 1) throw new Error('An episode is one order.');
    if (episode.sent === undefined) return order.number;
    if (episode.with !== undefined) await this.attach(order.id, episode.on, episode.with);
    await this.send(order.id, episode.sent);
    if (episode.revised !== undefined) await this.revise(order.id, episode.revised);
    if (episode.answered !== undefined) await this.answer(order.id, episode.answered);
    for (const delivery of episode.in ?? []) await this.takeIn(order.id, delivery);
    for (const invoice of episode.invoices ?? []) await this.invoice(order.id, invoice);
    return order.number;
  }

  private async versionOf(orderId: number): Promise<number> {
    const order = await this.db('purchaseOrder').where({ id: orderId }).first('version');
    return order?.version ?? 0;
  }

  private async send(orderId: number, on: number): Promise<void> {
    const version = await this.versionOf(orderId);
    must(await sendOrder(await this.as('mina', on, 11), { once: this.once(), orderId, version }));
  }

  private async attach(orderId: number, on: number, names: readonly string[]): Promise<void> {
    const files = await this.db('document').where({ role: 'file' }).whereIn('name', names).select('id');
    const version = await this.versionOf(orderId);
    must(await sendWith(await this.as('mina', on, 10), { orderId, version, documentIds: files.map((f) => f.id) }));
  }

  private async revise(orderId: number, { on, reason, instructions }: NonNullable<Episode['revised']>): Promise<void> {
    const ref = async () => ({ once: this.once(), orderId, version: await this.versionOf(orderId) });
    const buyer = await this.as('mina', on, 9);
    must(await beginRevision(buyer, { ...(await ref()), reason }));
    const order = await findOrder(this.db, orderId);
    if (order === undefined) throw new Error('The order is gone.');
    must(await changeRevision(buyer, { ...contentOf(order), ...(await ref()), instructions } as never));
    await this.send(orderId, on);
  }

  private async answer(orderId: number, { on, number, comes, note }: NonNullable<Episode['answered']>): Promise<void> {
    const lines = (await this.lines(orderId)).filter((l) => !isCharge(l));
    const said = lines.map((l) => {
      const day = comes?.[l.ourNumber];
      return {
        lineId: l.id,
        quantity: l.quantity,
        price: l.price,
        promisedOn: day === undefined ? l.wantedOn : this.day(day),
      };
    });
    const ref = { once: this.once(), orderId, version: await this.versionOf(orderId), theirNumber: number };
    must(await confirmOrder(await this.as('mina', on, 12), { ...ref, note: note ?? '', lines: said }));
  }

  private async takeIn(orderId: number, came: NonNullable<Episode['in']>[number]): Promise<void> {
    const { on, only, note } = came;
    const due = (await this.lines(orderId)).filter((l) => isGoodsLine(l));
    const had = new Map(
      (
        (await this.db('split')
          .whereIn(
            'lineId',
            due.map((l) => l.id),
          )
          .groupBy('lineId')
          .select('lineId')
          .sum({ n: 'received' })) as { lineId: number; n: number }[]
      ).map((r) => [r.lineId, r.n]),
    );
    const arrivals = due
      .map((l) => ({
        lineId: l.id,
        arrives: only === undefined ? quantity(l.quantity - (had.get(l.id) ?? 0)) : q(only[l.ourNumber] ?? 0),
        keepOver: false,
        number: l.ourNumber,
      }))
      .filter((a) => a.arrives > 0)
      .map(({ number, ...a }) => ({ ...a, numbers: this.numbersOf(number, a.arrives, came) }));
    const { version } = (await this.db('purchaseOrder').where({ id: orderId }).first('version')) as { version: number };
    const ref = { once: this.once(), orderId, version };
    must(await receive(await this.as('joss', on, 14), { ...ref, note: note ?? '', arrivals }));
  }

  /** The numbers that came with an item: of each piece, or the lot that it was made in. */
  private numbersOf(
    item: string,
    many: Quantity,
    { on, numbers }: NonNullable<Episode['in']>[number],
  ): { number: string; expiresOn?: string; quantity: Quantity }[] {
    const tracking = TRACKED.find(([number]) => number === item)?.[1];
    if (tracking === 'lot') return [{ number: `L-${2240 + on}`, expiresOn: this.day(on + 180), quantity: many }];
    return (numbers?.[item] ?? []).map((number) => ({ number, quantity: q(1) }));
  }

  private async invoice(orderId: number, invoice: NonNullable<Episode['invoices']>[number]): Promise<void> {
    const { only, prices } = invoice;
    const lines = (await this.lines(orderId)).filter(
      (l) => only === undefined || isCharge(l) || only[l.ourNumber] !== undefined,
    );
    const invoiced = lines.map((l) => ({
      lineId: l.id,
      quantity: only?.[l.ourNumber] === undefined ? l.quantity : q(only[l.ourNumber] ?? 0),
      price: prices?.[l.ourNumber] === undefined ? l.price : price(prices[l.ourNumber] ?? 0),
      taxCodeId: l.taxCodeId,
    }));
    const draft = { once: this.once(), orderId, number: invoice.number, day: this.day(invoice.on), lines: invoiced };
    const typedTotal = await this.totalOf(draft.lines, lines);
    const { id } = must(await enterInvoice(await this.as('ida', invoice.on, 15), { ...draft, typedTotal }));
    if (invoice.matched === undefined) return;
    const { version } = (await this.db('invoice').where({ id }).first('version')) as { version: number };
    must(
      await matchInvoice(await this.as('ida', invoice.matched, 16), {
        once: this.once(),
        invoiceId: id,
        version,
        reason: invoice.reason ?? '',
      }),
    );
  }

  private async totalOf(
    invoiced: readonly { quantity: Quantity; price: UnitPrice; taxCodeId: number }[],
    lines: readonly Line[],
  ): Promise<number> {
    return totalsOf(
      invoiced.map((b, k) => ({
        kind: 'goods' as const,
        taxCodeId: b.taxCodeId,
        net: lineNet(b.quantity, b.price, lines[k]?.priceQuantity ?? 1, 'GBP'),
      })),
      await loadTaxCodes(this.db),
    ).gross;
  }
}
