import fc from 'fast-check';
import type { Outcome } from '@/actions/action';
import { cancelOrder, closeShort, reopenLines } from '@/actions/orders/ending';
import { markSentByHand } from '@/actions/orders/sending';
import { changeOrder, draftOrders, orderLines } from '@/actions/orders/orders';
import { matchInvoice } from '@/actions/invoices/invoices';
import { EDITABLE } from '@/core/orders/states';
import { WAITING } from '@/core/invoices/states';
import { must, TestCompany, TODAY } from '../../tests/support/company';
import { ACTS, layOutTrouble, tryStep, type Step } from '../../tests/support/history';
import { typedChange } from '../../tests/support/typedChange';
import { times } from '../../tests/support/proof';
import { gatherEffects, orderEffects, type NamedEffect } from '@/workings/orders/effects';
import { loadInvoice } from './invoices/invoices';
import { loadLevels } from '@/store/levels';
import { previewEnding } from './orders/ending';
import { loadOrder } from './orders/order';
import { previewOrder } from './orders/preview';

/** What a screen promises before is what the act then does, whatever happened until then. */

const step: fc.Arbitrary<Step> = fc.record({
  act: fc.constantFrom(...ACTS),
  which: fc.nat(47),
  share: fc.double({ min: 0.05, max: 1, noNaN: true }),
});
const scene = fc.record({
  currency: fc.constantFrom(['EUR', '0.8624'] as const, ['JPY', '0.00512'] as const),
  before: fc.array(step, { minLength: 6, maxLength: 16 }),
  which: fc.nat(30),
});

/** So that there is something to receive and to invoice, and jobs have reserved what is there and count on what is to come. */
const BEGIN: readonly Step[] = [
  { act: 'draft', which: 0, share: 0.7 },
  { act: 'send', which: 1, share: 1 },
  { act: 'count', which: 1, share: 0.5 },
  { act: 'putBy', which: 0, share: 1 },
  { act: 'receive', which: 2, share: 0.7 },
  { act: 'invoice', which: 2, share: 0.7 },
  { act: 'count', which: 2, share: 0.3 },
  { act: 'draft', which: 3, share: 1 },
  { act: 'send', which: 0, share: 1 },
  { act: 'plan', which: 1, share: 1 },
  { act: 'plan', which: 2, share: 1 },
];

const NONE = { draft: 0, join: 0, match: 0, without: 0, typed: 0, cancel: 0, closeShort: 0, openAgain: 0, revise: 0 };
let compared = { ...NONE };

/** The accounts of a set of effects as they stand, beside what the effects say. */
async function standsAs(yard: TestCompany, told: readonly NamedEffect[], side: 'before' | 'after'): Promise<void> {
  const levels = await loadLevels(yard.db, yard.ids.jobs);
  const now = told.map((e) => {
    const level = levels.find((l) => l.jobId === e.jobId && l.costCodeId === e.costCodeId);
    return { account: `${e.job} ${e.code}`, budget: level?.budget ?? 0, amounts: level?.amounts ?? e[side].amounts };
  });
  expect(now).toEqual(told.map((e) => ({ account: `${e.job} ${e.code}`, ...e[side] })));
}

/** Does what was told of: the budgets told stand as they were told, before it and after, and all others as they stood. */
async function happens(
  yard: TestCompany,
  told: readonly NamedEffect[],
  act: () => Promise<Outcome<unknown>>,
): Promise<boolean> {
  const isTold = (l: { jobId: number; costCodeId: number }) =>
    told.some((e) => e.jobId === l.jobId && e.costCodeId === l.costCodeId);
  const others = async () => (await loadLevels(yard.db, yard.ids.jobs)).filter((l) => !isTold(l));
  await standsAs(yard, told, 'before');
  const before = await others();
  const { status } = await act();
  if (status !== 'done') return false;
  await standsAs(yard, told, 'after');
  expect(await others()).toEqual(before);
  return true;
}

async function withScene(
  { currency, before, which }: { currency: readonly [string, string]; before: readonly Step[]; which: number },
  look: (yard: TestCompany, which: number) => Promise<void>,
): Promise<void> {
  const yard = await TestCompany.open();
  try {
    await layOutTrouble(yard, ...currency);
    for (const s of [...BEGIN, ...before]) await tryStep(yard, s, TODAY);
    await look(yard, which);
  } finally {
    await yard.close();
  }
}

const nth = <T>(all: readonly T[], which: number): T | undefined => all[which % Math.max(all.length, 1)];

describe('a preview is what the act then does', () => {
  beforeAll(() => {
    compared = { ...NONE };
  });

  it('for drafting, and for joining a draft', async () => {
    await fc.assert(
      fc.asyncProperty(scene, (s) =>
        withScene(s, async (yard, which) => {
          const open = await yard.db('need').where('open', '>', 0).whereNotNull('supplierId').orderBy('id');
          const picks = open.filter((_, k) => (which >> k) % 2 === 0).map((n) => ({ needId: n.id, buy: n.open }));
          const drafts = await yard.db('purchaseOrder').whereIn('state', EDITABLE).select('id', 'version');
          const into = which % 2 === 0 ? drafts.slice(0, 1) : [];
          const joined = into.map((o) => o.id);
          const { plan, effects } = await gatherEffects(yard.db, picks, TODAY, joined);
          if (picks.length === 0 || plan.refusals.length > 0) return;
          await standsAs(yard, effects, 'before');
          const ref = into.map((o) => ({ orderId: o.id, version: o.version }));
          must(await draftOrders(await yard.as('buyer'), { once: yard.once(), picks, into: ref }));
          await standsAs(yard, effects, 'after');
          compared[plan.orders.some((o) => o.into !== undefined) ? 'join' : 'draft'] += 1;
        }),
      ),
      { numRuns: times(14, 25) },
    );
    expect(Math.min(compared.draft, compared.join)).toBeGreaterThan(0);
  });

  it('for matching an invoice', async () => {
    await fc.assert(
      fc.asyncProperty(scene, (s) =>
        withScene(s, async (yard, which) => {
          const invoice = nth(await yard.db('invoice').whereIn('state', WAITING).orderBy('id'), which);
          if (invoice === undefined) return;
          const { actor } = await yard.as('manager');
          const effects = (await loadInvoice(yard.db, actor, invoice.id))?.effects ?? [];
          const ref = { invoiceId: invoice.id, version: invoice.version, reason: 'passed' };
          const manager = await yard.as('manager');
          expect(await happens(yard, effects, () => matchInvoice(manager, { once: yard.once(), ...ref }))).toBe(true);
          compared.match += 1;
        }),
      ),
      { numRuns: times(8, 25) },
    );
    expect(compared.match).toBeGreaterThan(times(0, 5));
  });

  it('for what is typed into a draft, as long as nothing is wrong with it', async () => {
    await fc.assert(
      fc.asyncProperty(scene, fc.double({ min: 0.05, max: 1, noNaN: true }), (s, share) =>
        withScene(s, async (yard, which) => {
          await tryStep(yard, { act: 'draft', which, share }, TODAY);
          const head = nth(await yard.db('purchaseOrder').whereIn('state', EDITABLE).orderBy('id'), which);
          if (head === undefined) return;
          const order = await yard.order(head.id);
          const line = nth(order.lines, which);
          if (line === undefined) return;
          const typed = typedChange(yard, order, line.id, which, share);
          const { actor } = await yard.as('buyer');
          const lines = orderLines.parse(typed.lines);
          const preview = await previewOrder(yard.db, actor, order.number, lines, TODAY);
          const ref = { orderId: head.id, version: head.version };
          const saved = await changeOrder(await yard.as('buyer'), { once: yard.once(), ...ref, ...typed });
          // What saving would refuse has no effect to tell, and the words of the refusal.
          expect(preview?.effects === undefined).toBe(saved.status === 'refused');
          if (saved.status === 'refused')
            return expect(preview?.checks.map((c) => c.words)).toEqual(saved.refusals.map((r) => r.message));
          await standsAs(yard, preview?.effects ?? [], 'after');
          compared.typed += 1;
        }),
      ),
      { numRuns: times(8, 30) },
    );
    expect(compared.typed).toBeGreaterThan(times(2, 8));
  });

  it('for what a draft does: without it the budgets stand as before it', async () => {
    await fc.assert(
      fc.asyncProperty(scene, (s) =>
        withScene(s, async (yard, which) => {
          const head = nth(await yard.db('purchaseOrder').whereIn('state', EDITABLE).orderBy('id'), which);
          if (head === undefined) return;
          const effects = await orderEffects(yard.db, await yard.order(head.id));
          await standsAs(yard, effects, 'after');
          const ref = { orderId: head.id, version: head.version, reason: 'no' };
          must(await cancelOrder(await yard.as('buyer'), { once: yard.once(), ...ref }));
          await standsAs(yard, effects, 'before');
          compared.without += 1;
        }),
      ),
      { numRuns: times(8, 50) },
    );
    expect(compared.without).toBeGreaterThan(times(0, 5));
  });

  it('for cancelling an order, for closing a line short and for opening it again', async () => {
    const acts = { cancel: cancelOrder, closeShort, openAgain: reopenLines };
    await fc.assert(
      fc.asyncProperty(scene, (s) =>
        withScene(s, async (yard) => {
          const buyer = await yard.as('buyer');
          for (const { id, number } of await yard.db('purchaseOrder').whereNotNull('sentOn').orderBy('id'))
            for (const what of ['closeShort', 'openAgain', 'cancel'] as const)
              for (const line of what === 'cancel' ? [null] : (await yard.order(id)).lines) {
                const lineId = line?.id ?? null;
                const effects = (await previewEnding(yard.db, buyer.actor, number, { what, lineId })) ?? [];
                const { version } = await yard.order(id);
                const ref = { once: yard.once(), orderId: id, version, lineId: lineId ?? 0, reason: 'no more' };
                if (await happens(yard, effects, () => acts[what](buyer, ref))) compared[what] += 1;
              }
        }),
      ),
      { numRuns: times(10, 50) },
    );
    expect(Math.min(compared.closeShort, compared.openAgain)).toBeGreaterThan(times(3, 15));
    expect(compared.cancel).toBeGreaterThan(times(0, 3));
  });

  it('for sending a revision', async () => {
    await fc.assert(
      fc.asyncProperty(scene, fc.double({ min: 0.05, max: 1, noNaN: true }), (s, share) =>
        withScene(s, async (yard, which) => {
          const buyer = await yard.as('buyer');
          for (let k = 0; k < 8; k += 1) await tryStep(yard, { act: 'reorder', which: 4 * (which + k), share }, TODAY);
          for (const { orderId } of await yard.db('orderChange').select('orderId')) {
            const { number, version } = await yard.order(orderId);
            const effects = (await loadOrder(yard.db, buyer.actor, number, TODAY))?.effects ?? [];
            const ref = { once: yard.once(), orderId, version };
            if (await happens(yard, effects, () => markSentByHand(buyer, ref))) compared.revise += 1;
          }
        }),
      ),
      { numRuns: times(10, 50) },
    );
    expect(compared.revise).toBeGreaterThan(times(2, 15));
  });
});
