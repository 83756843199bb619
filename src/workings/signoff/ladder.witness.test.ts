import fc from 'fast-check';
import { draftOrders } from '@/actions/orders/orders';
import type { Role } from '@/core/people/rights';
import type { StepFields } from '@/core/records/signoff';
import { minor, ZERO } from '@/core/money/money';
import { q, TestCompany } from '../../../tests/support/company';
import { ask, setLadder, step, waitingFor } from '../../../tests/support/signing';
import { times } from '../../../tests/support/proof';

/**
 * A second, plain account of who has to sign an order: it adds up the postings of each account, compares them with the
 * budget, and goes through the ladder step by step. It shares no code with the application but its tables.
 */
type Sql<T> = Promise<T[]>;
type Split = { job: number | null; code: number | null; value: number };

async function asked(yard: TestCompany, orderId: number): Promise<string[]> {
  const ask = <T>(sql: string, ...with_: unknown[]) => yard.db.raw(sql, with_ as never) as unknown as Sql<T>;
  const splits = await ask<Split>(
    'select s.job_id as job, s.cost_code_id as code, s.value from split s join order_line l on l.id = s.line_id where l.order_id = ?',
    orderId,
  );
  const [order] = await ask<{ supplier: number; currency: string }>(
    'select supplier_id as supplier, currency from purchase_order where id = ?',
    orderId,
  );
  const accounts: (Split & { over: number; lead: number; kind: string })[] = [];
  for (const s of splits) {
    const same = accounts.find((a) => a.job === s.job && a.code === s.code);
    if (same !== undefined) same.value += s.value;
    else {
      const [spent] = await ask<{ n: number | null }>(
        'select sum(amount) as n from posting where job_id = ? and cost_code_id = ?',
        s.job,
        s.code,
      );
      const [budget] = await ask<{ n: number | null }>(
        'select sum(amount) as n from budget_entry where job_id = ? and cost_code_id = ?',
        s.job,
        s.code,
      );
      const [job] = await ask<{ lead: number; kind: string }>(
        'select lead_id as lead, kind from job where id = ?',
        s.job,
      );
      const over = Math.max((spent?.n ?? 0) - (budget?.n ?? 0), 0);
      accounts.push({ ...s, over, lead: job?.lead ?? 0, kind: job?.kind ?? '' });
    }
  }
  let value = 0;
  for (const a of accounts) value += a.value;
  const steps = await ask<Record<string, number | string | null> & { id: number }>(
    'select * from ladder_step where gone = 0 order by place',
  );
  const found: string[] = [];
  let place = 0;
  for (const s of steps) {
    const limit = (field: string) => s[field] as number | null;
    if (limit('valueAbove') !== null && value <= (limit('valueAbove') ?? 0)) continue;
    if (limit('supplierId') !== null && limit('supplierId') !== order?.supplier) continue;
    if (s.currency !== null && s.currency !== order?.currency) continue;
    const about = accounts.filter(
      (a) =>
        (limit('overAbove') === null || a.over > (limit('overAbove') ?? 0)) &&
        (limit('costCodeId') === null || a.code === limit('costCodeId')) &&
        (s.jobKind === null || a.kind === s.jobKind),
    );
    if (about.length === 0) continue;
    place += 1;
    const signers = await ask<{ personId: number | null; role: string | null }>(
      'select person_id, role from ladder_signer where step_id = ? order by place',
      s.id,
    );
    const who = new Set<string>();
    for (const { personId, role } of signers)
      if (personId !== null) who.add(`person ${personId}`);
      else if (role !== null) who.add(`role ${role}`);
      else for (const a of about) who.add(`person ${a.lead}`);
    found.push(...[...who].map((w) => `${place} ${w}`));
  }
  return found.sort();
}

type Drawn = {
  valueAbove: number | null;
  overAbove: number | null;
  code: number | null;
  supplier: number | null;
  kind: 'repair' | 'make' | null;
  by: number;
  also: boolean;
};
const drawn: fc.Arbitrary<Drawn> = fc.record({
  valueAbove: fc.option(fc.integer({ min: 0, max: 40_000 })),
  overAbove: fc.option(fc.integer({ min: 0, max: 20_000 })),
  code: fc.option(fc.nat(1), { freq: 3 }),
  supplier: fc.option(fc.nat(1), { freq: 3 }),
  kind: fc.option(fc.constantFrom('repair', 'make'), { freq: 3 }),
  by: fc.nat(3),
  also: fc.boolean(),
});

const SIGNING: readonly Role[] = ['lead', 'manager', 'administrator'];

describe('random ladders over random orders', () => {
  it('ask whom a plain account of them asks, in the same sequence', async () => {
    const came = { asked: 0, free: 0 };
    await fc.assert(
      fc.asyncProperty(
        fc.array(drawn, { minLength: 1, maxLength: 4 }),
        fc.array(
          fc.record({ job: fc.nat(1), n: fc.integer({ min: 1, max: 30 }), price: fc.integer({ min: 1, max: 20 }) }),
          {
            minLength: 1,
            maxLength: 4,
          },
        ),
        fc.tuple(fc.nat(30_000), fc.nat(30_000)),
        async (ladder, lines, budgets) => {
          const yard = await TestCompany.open();
          try {
            await yard.db('supplier').update({ carriage: ZERO });
            const people = await Promise.all(SIGNING.map(async (r) => (await yard.as(r)).actor.id));
            const [, second] = yard.ids.jobs;
            await yard
              .db('job')
              .where({ id: second })
              .update({ leadId: people[1] ?? 0, kind: 'make' });
            await yard.budget(budgets[0], 0);
            await yard.budget(budgets[1], 1);
            const signer = (k: number): StepFields['signers'][number] =>
              k === 0
                ? { kind: 'lead' }
                : k === 1
                  ? { kind: 'role', role: 'manager' }
                  : { kind: 'person', personId: people[k - 1] ?? 0 };
            const steps = ladder.map((d) =>
              step(d.also ? [signer(d.by), signer((d.by + 1) % 4)] : [signer(d.by)], {
                valueAbove: d.valueAbove === null ? null : minor(d.valueAbove),
                overAbove: d.overAbove === null ? null : minor(d.overAbove),
                costCodeId: d.code === null ? null : (yard.ids.codes[d.code] ?? null),
                supplierId: d.supplier === null ? null : (yard.ids.suppliers[d.supplier] ?? null),
                jobKind: d.kind,
              }),
            );
            const saved = await setLadder(yard, steps);
            if (saved.status !== 'done') throw new Error(JSON.stringify(saved));
            const picks = [];
            for (const { job, n, price } of lines) {
              const needId = await yard.need({ job: job === 0 ? 0 : 1, quantity: n, price });
              picks.push({ needId, buy: q(n) });
            }
            const drafted = await draftOrders(await yard.as('buyer'), { once: yard.once(), picks });
            if (drafted.status !== 'done') throw new Error(JSON.stringify(drafted));
            const order = await yard.order(drafted.value.orders[0]?.id ?? 0);
            const theirs = await asked(yard, order.id);
            const answer = await ask(yard, order);
            const ours = (await waitingFor(yard, order.id))
              .map((a) => `${a.place} ${a.byPerson === null ? `role ${a.byRole}` : `person ${a.byPerson}`}`)
              .sort();
            expect({ ours, status: answer.status }).toEqual({
              ours: theirs,
              status: theirs.length === 0 ? 'refused' : 'done',
            });
            came[theirs.length === 0 ? 'free' : 'asked'] += 1;
          } finally {
            await yard.close();
          }
        },
      ),
      { numRuns: times(20, 60), seed: 20_261_127 },
    );
    expect(came.asked).toBeGreaterThan(times(5, 15));
    expect(came.free).toBeGreaterThan(times(1, 5));
  }, 120_000);
});
