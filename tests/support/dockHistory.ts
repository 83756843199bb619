import type { Outcome } from '@/actions/action';
import { correctReceipt } from '@/actions/dock/correcting';
import { inspect } from '@/actions/dock/inspecting';
import { receive } from '@/actions/dock/receiving';
import { returnGoods } from '@/actions/dock/sendingBack';
import { plusDays, type Day } from '@/core/calendar/workdays';
import type { StoredOrder } from '@/store/orders';
import type { TestCompany } from './company';

const ACTS = ['receive', 'inspect', 'sendBack', 'correct'] as const;
type Act = (typeof ACTS)[number];

export const isOfDock = (act: string): act is Act => (ACTS as readonly string[]).includes(act);

type Step = { readonly act: Act; readonly which: number; readonly share: number };

/** Some of a quantity, in whole pieces where its unit is counted. */
export const someOf =
  (share: number) =>
  (of: number, unit: string): never =>
    (['XRL', 'C62'].includes(unit)
      ? Math.max(10_000, Math.round((of * share) / 10_000) * 10_000)
      : Math.max(1, Math.round(of * share))) as never;

/** Tries one step at the dock: takes in with something rejected, inspects what is held, sends back. */
export async function tryDock(
  yard: TestCompany,
  { act, which, share }: Step,
  order: StoredOrder,
  line: StoredOrder['lines'][number],
  day: Day,
): Promise<Outcome<unknown>> {
  const { db } = yard;
  const keeper = await yard.as('storekeeper', day);
  const ref = { once: yard.once(), orderId: order.id, version: order.version };
  const some = someOf(share);
  // A third is written some days later; now and then it is dated before anything was ordered.
  const earlier = plusDays(day, -1 - (which % 4));
  const on =
    which % 3 > 0 ? null : which % 12 > 0 && order.sentOn !== null && earlier < order.sentOn ? order.sentOn : earlier;
  const does = which % 3 === 0 ? ('damaged' as const) : ('rejected' as const);
  const reasonId = (await db('reason').where({ does }).first('id'))?.id ?? null;
  if (act === 'receive') {
    if (which % 7 === 3) await db('orderLine').where({ id: line.id }).update({ inspected: 1 });
    const arrives = some(line.quantity * 1.1, line.unit);
    const bad = which % 5 === 1 ? { rejected: some(arrives * 0.4, line.unit), reasonId } : {};
    const arrivals = [{ lineId: line.id, arrives, keepOver: which % 2 === 0, ...bad }];
    return receive(keeper, { ...ref, note: '', day: on, arrivals });
  }
  if (act === 'inspect') {
    const rejected = which % 3 === 0 ? some(line.held * 0.5, line.unit) : (0 as never);
    const rest = Math.max(line.held - rejected, 0);
    const released = which % 2 === 0 ? (rest as never) : some(rest, line.unit);
    return inspect(keeper, { ...ref, day: on, lines: [{ lineId: line.id, released, rejected, reasonId }] });
  }
  if (act === 'correct') {
    const receipts = await db('receipt')
      .where({ orderId: order.id, kind: 'delivery' })
      .orderBy('id')
      .select('id', 'day');
    const receipt = receipts[which % Math.max(receipts.length, 1)];
    const came = await db('receiptLine').where({ receiptId: receipt?.id ?? 0 });
    const arrivals = came.map((c) => ({
      lineId: c.lineId,
      arrives: some(c.accepted + 20_000, line.unit),
      keepOver: true,
    }));
    const put = { once: yard.once(), receiptId: receipt?.id ?? 0, note: '', day: on ?? receipt?.day ?? null, arrivals };
    return correctReceipt(await yard.as('manager', day), put);
  }
  const from = line.rejected > 0 && which % 2 === 0 ? ('rejected' as const) : ('accepted' as const);
  const quantity = some(from === 'rejected' ? line.rejected : line.received, line.unit);
  const wants = which % 3 === 0 ? ('credit' as const) : ('replacement' as const);
  return returnGoods(keeper, {
    ...ref,
    reason: 'faulty',
    day: on,
    lines: [{ lineId: line.id, quantity, from, wants }],
  });
}
