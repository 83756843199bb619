import { changeOrder } from '@/actions/orders/orders';
import { saveLadder, saveRules } from '@/actions/signoff/ladder';
import { requestSignOff, signOff } from '@/actions/signoff/signOff';
import { ZERO, type Minor } from '@/core/money/money';
import type { Role } from '@/core/people/rights';
import type { StepFields } from '@/core/records/signoff';
import { USUAL_RULES, type RuleAnswer, type RuleKind } from '@/core/signoff/rules';
import { contentOf } from '@/workings/orders/revise';
import type { StoredOrder } from '@/store/orders';
import { openRound, reckon, sendingOf } from '@/workings/signoff/reckon';
import { must, q, TODAY, type TestCompany } from './company';

export const step = (signers: StepFields['signers'], when: Partial<StepFields> = {}): StepFields => ({
  valueAbove: null,
  overAbove: null,
  costCodeId: null,
  supplierId: null,
  jobKind: null,
  currency: null,
  onRule: false,
  ...when,
  signers: [...signers],
});

export const byRole = (role: Role) => ({ kind: 'role', role }) as const;
export const byLead = { kind: 'lead' } as const;

const versionOf = async (yard: TestCompany) => (await yard.db('company').first('version'))?.version ?? 0;

export const setLadder = async (
  yard: TestCompany,
  steps: readonly StepFields[],
  tolerance: { share?: number; most?: number } = {},
) =>
  saveLadder(await yard.as('administrator'), {
    once: yard.once(),
    version: await versionOf(yard),
    steps: [...steps],
    signToleranceShare: tolerance.share ?? 200,
    signToleranceMost: tolerance.most ?? 2500,
  });

/** Sets what some rules do; the others are let pass. */
export const setRules = async (
  yard: TestCompany,
  answers: Partial<Record<RuleKind, RuleAnswer>>,
  shares: Partial<Record<RuleKind, number>> = {},
) =>
  saveRules(await yard.as('administrator'), {
    once: yard.once(),
    version: await versionOf(yard),
    rules: USUAL_RULES.map(({ kind, share }) => ({
      kind,
      share: shares[kind] ?? share,
      answer: answers[kind] ?? 'off',
    })),
  });

export const ask = async (yard: TestCompany, order: StoredOrder) =>
  requestSignOff(await yard.as('buyer'), { once: yard.once(), orderId: order.id, version: order.version });

/** The signatures that an order waits for, in the order in which they are given. */
export const waitingFor = async (yard: TestCompany, orderId: number) =>
  ((await openRound(yard.db, orderId))?.asked ?? []).filter((a) => a.state === 'waiting');

/** What a signer of an order sees now. */
export async function seen(yard: TestCompany, orderId: number): Promise<string> {
  const order = await yard.order(orderId);
  const sending = await sendingOf(yard.db, order, TODAY);
  return sending === undefined ? '' : (await reckon(yard.db, order, sending)).seen;
}

/** Signs what an order waits for next, as it stands. */
export async function sign(yard: TestCompany, orderId: number, role: Role, reason = '') {
  const [next] = await waitingFor(yard, orderId);
  const { version } = await yard.order(orderId);
  const ref = { once: yard.once(), orderId, version, signOffId: next?.id ?? 0 };
  return signOff(await yard.as(role), { ...ref, seen: await seen(yard, orderId), reason });
}

/** Changes the price of a draft's first line, in pounds. */
export async function reprice(yard: TestCompany, orderId: number, pounds: number, role: Role = 'buyer') {
  const order = await yard.order(orderId);
  const { lines, ...terms } = contentOf(order);
  const priced = lines.map((l, k) => (k === 0 ? { ...l, price: (pounds * 10_000) as never } : l));
  must(
    await changeOrder(await yard.as(role), {
      once: yard.once(),
      orderId,
      version: order.version,
      ...terms,
      lines: priced as never,
    }),
  );
  return yard.order(orderId);
}

export const pounds = (n: number): Minor => Math.round(n * 100) as Minor;

/** Three steps: the lead, a manager over budget by more than 50.00, the administrator above 150.00. */
export const threeSteps = (yard: TestCompany) =>
  setLadder(yard, [
    step([byLead]),
    step([byRole('manager')], { overAbove: pounds(50) }),
    step([byRole('administrator')], { valueAbove: pounds(150) }),
  ]);

/** A draft of 12 at 8.00 for the first job, whose budget is 40.00 unless told otherwise; carriage is free. */
export async function overspending(yard: TestCompany, budget = 4000): Promise<StoredOrder> {
  await yard.db('supplier').update({ carriage: ZERO });
  await yard.budget(budget);
  return yard.draft([{ needId: await yard.need(), buy: q(12) }]);
}
