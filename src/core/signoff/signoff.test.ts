import fc from 'fast-check';
import type { Day } from '../calendar/workdays';
import { minor, type Minor } from '../money/money';
import { NOTHING } from '../tab/stages';
import type { Level } from '../tab/sums';
import { deputiesOf, deputyFault, type Deputy } from './deputies';
import type { Reckoned, SigningFacts } from './facts';
import { covers, neededFor, signaturesOf, type LadderStep, type Needed } from './ladder';
import { findByRules, type BuyingRule, type RuleKind } from './rules';
import { nobodyFor } from './staffing';
import { whenAsked, whoSigns, whyNeeded, type Names } from './words';

const level = (budget: number, amounts: Partial<Level['amounts']> = {}): Level => ({
  budget: minor(budget),
  amounts: { ...NOTHING, ...amounts },
});

const account = (jobId: number | null, costCodeId: number | null, value: number, of: Level | undefined): Reckoned => {
  const forecast = of === undefined ? 0 : Object.values(of.amounts).reduce<number>((sum, a) => sum + a, 0);
  return {
    jobId,
    costCodeId,
    value: minor(value),
    level: of,
    over: minor(of === undefined ? 0 : Math.max(forecast - of.budget, 0)),
  };
};

/** An order of 300.00 for two jobs: one stays within its budget, one ends 60.00 over it. */
const facts = (change: Partial<SigningFacts> = {}): SigningFacts => ({
  number: 'K26-0001',
  supplierId: 5,
  currency: 'GBP',
  companyCurrency: 'GBP',
  value: minor(30_000),
  accounts: [
    account(1, 10, 10_000, level(50_000, { onOrder: minor(10_000) })),
    account(2, 20, 20_000, level(14_000, { onOrder: minor(20_000) })),
  ],
  jobs: [
    {
      id: 1,
      number: '412',
      kind: 'contract',
      leadId: 71,
      onHold: null,
      level: level(50_000, { onOrder: minor(10_000) }),
    },
    {
      id: 2,
      number: '418',
      kind: 'repair',
      leadId: 72,
      onHold: null,
      level: level(14_000, { onOrder: minor(20_000) }),
    },
  ],
  lines: [],
  ...change,
});

const step = (id: number, change: Partial<LadderStep> = {}): LadderStep => ({
  id,
  valueAbove: null,
  overAbove: null,
  costCodeId: null,
  supplierId: null,
  jobKind: null,
  currency: null,
  onRule: false,
  signers: [{ kind: 'role', role: 'manager' }],
  ...change,
});

const needed = (...steps: LadderStep[]) => neededFor(steps, facts(), []);
const lead = { signers: [{ kind: 'lead' }] } as const;

describe('the signatures that an order needs', () => {
  it.each([
    ['no condition', {}, true],
    ['a value that it passes', { valueAbove: minor(29_999) }, true],
    ['a value that it just reaches', { valueAbove: minor(30_000) }, false],
    ['an overspend that it passes', { overAbove: minor(5999) }, true],
    ['an overspend that it just reaches', { overAbove: minor(6000) }, false],
    ['a cost code it is charged to', { costCodeId: 20 }, true],
    ['another cost code', { costCodeId: 30 }, false],
    ['its supplier', { supplierId: 5 }, true],
    ['another supplier', { supplierId: 6 }, false],
    ['a kind of its jobs', { jobKind: 'repair' }, true],
    ['another kind of job', { jobKind: 'make' }, false],
    ['its currency', { currency: 'GBP' }, true],
    ['another currency', { currency: 'EUR' }, false],
    ['both of two', { valueAbove: minor(100), supplierId: 5 }, true],
    ['one of two', { valueAbove: minor(100), supplierId: 6 }, false],
    ['conditions that no single account meets', { costCodeId: 10, overAbove: minor(0) }, false],
  ] as const)('at %s', (_, when, asked) => expect(needed(step(1, when)).length > 0).toBe(asked));

  it('are of the leads of the jobs that the step is about, each for theirs', () => {
    expect(needed(step(1, lead)).map((n) => [n.by, n.leads])).toEqual([
      [{ kind: 'person', personId: 71 }, [1]],
      [{ kind: 'person', personId: 72 }, [2]],
    ]);
    expect(needed(step(1, { ...lead, overAbove: minor(0) })).map((n) => n.leads)).toEqual([[2]]);
  });

  it('are one where somebody leads several jobs, or is named as well', () => {
    const jobs = facts().jobs.map((j) => ({ ...j, leadId: 71 }));
    const both = step(1, { signers: [{ kind: 'lead' }, { kind: 'person', personId: 71 }] });
    const [one, ...more] = neededFor([both], facts({ jobs }), []);
    expect([one?.leads, more]).toEqual([[1, 2], []]);
  });

  it('are counted by the steps that are asked for, in their sequence', () => {
    const steps = [step(1, { supplierId: 6 }), step(2), step(3, { valueAbove: minor(1) })];
    expect(needed(...steps).map((n) => [n.stepId, n.place])).toEqual([
      [2, 1],
      [3, 2],
    ]);
  });

  it('are a manager’s for what is bought for stores', () => {
    const stores = facts({ accounts: [account(null, null, 100, undefined)], jobs: [] });
    expect(neededFor([step(1, lead)], stores, []).map((n) => n.by)).toEqual([{ kind: 'role', role: 'manager' }]);
  });
});

const NONE = { share: 0, most: minor(0) };
const byStep = (n: Needed | undefined) => {
  if (n === undefined) throw new Error('Nobody is needed.');
  return n;
};

describe('what was agreed to', () => {
  const agreed = { supplierId: 5, about: facts().accounts };
  const need = byStep(needed(step(1))[0]);
  const withValue = (of: Needed, value: number): Needed => ({
    ...of,
    about: of.about.map((a, k) => (k === 0 ? { ...a, value: minor(value) } : a)),
  });

  it('covers the same and less, and nothing more than the tolerance', () => {
    expect(covers(agreed, need, 5, NONE)).toBe(true);
    expect(covers(agreed, withValue(need, 1), 5, NONE)).toBe(true);
    expect(covers(agreed, withValue(need, 10_001), 5, NONE)).toBe(false);
    // 2 % of 300.00 is 6.00; at most 5.00.
    const tolerance = { share: 200, most: minor(500) };
    expect(covers(agreed, withValue(need, 10_500), 5, tolerance)).toBe(true);
    expect(covers(agreed, withValue(need, 10_501), 5, tolerance)).toBe(false);
  });

  it('does not cover another supplier, or another job', () => {
    expect(covers(agreed, need, 6, NONE)).toBe(false);
    const other = { ...need, about: need.about.map((a) => ({ ...a, jobId: 3, value: minor(1) })) };
    expect(covers(agreed, other, 5, NONE)).toBe(false);
  });

  it('lets money move between jobs that were signed together, but not for a step that looks at single budgets', () => {
    const moved = (of: Needed): Needed => ({
      ...of,
      about: of.about.map((a, k) => ({ ...a, value: minor(k === 0 ? 5000 : 25_000) })),
    });
    expect(covers(agreed, moved(need), 5, NONE)).toBe(true);
    expect(covers(agreed, moved({ ...need, each: true }), 5, NONE)).toBe(false);
  });

  it('of what was sent already asks for nothing that was in it', () => {
    const own = needed(step(1), step(2, { overAbove: minor(0) }));
    expect(signaturesOf(own, [], 5, NONE, agreed).missing).toEqual([]);
    expect(signaturesOf(own, [], 5, NONE).missing).toEqual(own);
  });

  it('is found by its step and signer, whatever else was signed', () => {
    const [first, second] = needed(step(1), step(2, { signers: [{ kind: 'person', personId: 9 }] }));
    const given = { stepId: 1, by: byStep(first).by, supplierId: 5, about: facts().accounts };
    expect(signaturesOf([byStep(first), byStep(second)], [given], 5, NONE).missing).toEqual([second]);
    expect(signaturesOf([byStep(first)], [{ ...given, by: { kind: 'person', personId: 4 } }], 5, NONE).missing).toEqual(
      [first],
    );
  });

  it('never covers more money than was agreed and the tolerance, whichever way it is spread', () => {
    const value = fc.integer({ min: 0, max: 1_000_000 });
    fc.assert(
      fc.property(
        fc.array(value, { minLength: 1, maxLength: 5 }),
        fc.array(value, { minLength: 1, maxLength: 5 }),
        fc.boolean(),
        (was, is, each) => {
          const about = (values: number[]) => values.map((v, k) => ({ jobId: k, costCodeId: 1, value: minor(v) }));
          const n: Needed = { ...need, each, about: about(is) };
          if (!covers({ supplierId: 5, about: about(was) }, n, 5, NONE)) return;
          const sum = (values: number[]) => values.reduce((all, v) => all + v, 0);
          expect(is.length).toBeLessThanOrEqual(was.length);
          expect(sum(is)).toBeLessThanOrEqual(sum(was.slice(0, is.length)));
        },
      ),
    );
  });
});

describe('rules of buying', () => {
  const name = ({ jobId, costCodeId }: { jobId: number | null; costCodeId: number | null }) => `${jobId}/${costCodeId}`;
  const found = (kind: RuleKind, share: number, of = facts()) =>
    findByRules(of, [{ kind, share, answer: 'warn' }], name).map((f) => f.words);

  it.each<[RuleKind, number, number]>([
    ['forecastOfCode', 10_000, 1],
    ['forecastOfCode', 14_285, 1],
    ['forecastOfCode', 14_286, 0],
    ['forecastOfCode', 1999, 2],
    ['committedOfCode', 10_000, 1],
    ['committedOfJob', 10_000, 1],
    ['forecastOfJob', 1999, 2],
  ])('%s at %i finds %i', (kind, share, many) => expect(found(kind, share)).toHaveLength(many));

  it('tells how far a budget is passed, or how much of it is used', () => {
    expect(found('forecastOfCode', 10_000)).toEqual(['2/20 goes £\u202f60.00 over budget']);
    expect(found('committedOfJob', 9000)).toEqual([
      'Job 418 has £\u202f200.00 committed, more than 90 % of its budget',
    ]);
  });

  it('leaves planned out of what is committed', () => {
    const planned = facts({ accounts: [account(1, 10, 1, level(100, { planned: minor(500) }))] });
    expect([found('committedOfCode', 10_000, planned), found('forecastOfCode', 10_000, planned)]).toEqual([
      [],
      ['1/10 goes £\u202f4.00 over budget'],
    ]);
  });

  it('finds a code without a budget, which is beyond no share of one', () => {
    const none = facts({ accounts: [account(1, 10, 1, level(0, { onOrder: minor(1) }))] });
    expect([found('noBudget', 0, none), found('forecastOfCode', 10_000, none)]).toEqual([['1/10 has no budget'], []]);
  });

  it('finds a price above the quote by more than the share, and a job on hold', () => {
    const line = { description: 'Tube', jobId: 1, costCodeId: 10, pays: minor(111), quoted: minor(100) };
    expect(found('priceAboveQuote', 1000, facts({ lines: [line] }))).toEqual([
      'Tube costs £\u202f0.11 more than quoted',
    ]);
    expect(found('priceAboveQuote', 1100, facts({ lines: [line] }))).toEqual([]);
    expect(found('priceAboveQuote', 0, facts({ lines: [{ ...line, quoted: minor(0) }] }))).toEqual([]);
    const held = facts().jobs.map((j) => ({ ...j, onHold: j.id === 2 ? 'Ship is out' : null }));
    expect(found('onHold', 0, facts({ jobs: held }))).toEqual(['Job 418 is on hold: Ship is out']);
  });

  it('stand with the gravest first, and are let pass where they are off', () => {
    const rules: BuyingRule[] = [
      { kind: 'forecastOfCode', share: 10_000, answer: 'warn' },
      { kind: 'committedOfCode', share: 10_000, answer: 'forbid' },
      { kind: 'forecastOfJob', share: 10_000, answer: 'off' },
      { kind: 'committedOfJob', share: 10_000, answer: 'signOff' },
    ];
    expect(findByRules(facts(), rules, name).map((f) => f.answer)).toEqual(['forbid', 'signOff', 'warn']);
  });

  it('bring in a step that signs for rules, about what they found', () => {
    const findings = findByRules(facts(), [{ kind: 'forecastOfCode', share: 10_000, answer: 'signOff' }], name);
    const of = facts();
    const own = findByRules(of, [{ kind: 'forecastOfCode', share: 10_000, answer: 'signOff' }], name);
    expect(neededFor([step(1, { onRule: true })], of, own).map((n) => n.about.map((a) => a.jobId))).toEqual([[2]]);
    expect(neededFor([step(1, { onRule: true })], facts(), [])).toEqual([]);
    expect(findings).toHaveLength(1);
  });
});

describe('deputies', () => {
  const day = (n: number) => `2026-05-${String(n).padStart(2, '0')}` as Day;
  const named = (personId: number, deputyId: number, from = 1, to = 10): Deputy => ({
    personId,
    deputyId,
    fromDay: day(from),
    toDay: day(to),
  });

  it('sign on the days named, both included, and theirs for them', () => {
    const all = [named(1, 2), named(2, 3, 5, 6)];
    expect([...deputiesOf(1, all, day(1))]).toEqual([2]);
    expect([...deputiesOf(1, all, day(5))]).toEqual([2, 3]);
    expect([...deputiesOf(1, all, day(11))]).toEqual([]);
  });

  it.each([
    ['oneself', named(1, 1), 'deputy.self'],
    ['days the wrong way round', named(1, 2, 5, 4), 'deputy.days'],
    ['each other', named(2, 1), 'deputy.circle'],
    ['round three', named(3, 1), 'deputy.circle'],
    ['each other on other days', named(2, 1, 11, 12), undefined],
    ['a second one', named(1, 4), undefined],
  ])('are refused for %s', (_, fresh, code) => expect(deputyFault(fresh, [named(1, 2), named(2, 3)])?.code).toBe(code));

  it('never lead to oneself, whatever is named one after the other', () => {
    const one = fc.record({
      personId: fc.integer({ min: 1, max: 5 }),
      deputyId: fc.integer({ min: 1, max: 5 }),
      from: fc.integer({ min: 1, max: 20 }),
      days: fc.integer({ min: 0, max: 8 }),
    });
    fc.assert(
      fc.property(fc.array(one, { maxLength: 12 }), (tried) => {
        const kept: Deputy[] = [];
        for (const { personId, deputyId, from, days } of tried) {
          const fresh = named(personId, deputyId, from, from + days);
          if (deputyFault(fresh, kept) === undefined) kept.push(fresh);
        }
        for (let d = 1; d <= 28; d += 1)
          for (const who of [1, 2, 3, 4, 5]) {
            // Plain reachability over those that hold on this day.
            const reached = new Set<number>();
            const look = [who];
            while (look.length > 0) {
              const at = look.pop();
              for (const k of kept)
                if (k.personId === at && k.fromDay <= day(d) && day(d) <= k.toDay && !reached.has(k.deputyId)) {
                  reached.add(k.deputyId);
                  look.push(k.deputyId);
                }
            }
            expect(reached.has(who)).toBe(false);
            expect(deputiesOf(who, kept, day(d))).toEqual(reached);
          }
      }),
    );
  });
});

describe('a ladder is staffed', () => {
  const staff = {
    people: [{ id: 1, name: 'A', roles: ['manager' as const] }],
    leads: [{ id: 2, name: 'B' }],
  };
  it.each([
    ['nobody said', [], 'no one is named.'],
    ['a person who is there', [{ kind: 'person', personId: 1 }], undefined],
    ['one who is not', [{ kind: 'person', personId: 9 }], 'the person named has no access or no right to sign.'],
    ['a role that somebody has', [{ kind: 'role', role: 'manager' }], undefined],
    [
      'a role that nobody has',
      [{ kind: 'role', role: 'accounts' }],
      'no one with access has the role accounts and can sign orders.',
    ],
    ['a lead who may not', [{ kind: 'lead' }], 'B leads a live job and can’t sign orders.'],
  ] as const)('with %s', (_, signers, why) => expect(nobodyFor({ signers }, staff)).toBe(why));
});

describe('in words', () => {
  const names: Names = {
    currency: 'GBP',
    person: () => 'Asha Penrose',
    job: (id) => String(411 + id),
    code: () => '06 Subcontract',
    supplier: () => 'Eelmoor Metals',
  };
  it('says when a step is asked for, who signs, and why', () => {
    const when = step(1, {
      valueAbove: 400_000 as Minor,
      costCodeId: 6,
      supplierId: 5,
      jobKind: 'make',
      currency: 'EUR',
      onRule: true,
    });
    expect(whenAsked(when, names)).toBe(
      'above £\u202f4,000.00, for 06 Subcontract, from Eelmoor Metals, for a make job, in EUR and a rule needs it',
    );
    expect(whenAsked(step(1, { overAbove: minor(0) }), names)).toBe('over budget');
    const [n] = needed(step(1, { ...lead, overAbove: minor(5000) }));
    expect(whyNeeded(byStep(n), step(1, { overAbove: minor(5000) }), names)).toBe(
      'leads 413, over budget by more than £\u202f50.00',
    );
    expect(whyNeeded(byStep(needed(step(1))[0]), step(1), names)).toBe('signs every order');
    expect(whoSigns({ kind: 'role', role: 'administrator' }, names)).toBe('an administrator');
    expect(whoSigns({ kind: 'role', role: 'accounts' }, names)).toBe('accounts');
    expect(whoSigns({ kind: 'person', personId: 3 }, names)).toBe('Asha Penrose');
  });
});
