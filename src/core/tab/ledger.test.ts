import fc from 'fast-check';
import { coverage, openOf, plannedOf, type Estimate } from '../needs/coverage';
import { lineNet, minor, type Minor, type UnitPrice } from '../money/money';
import { quantity, type Quantity } from '../quantity/quantity';
import { movements, type Movement, type Standing } from './postings';
import { NOTHING, plus, splitStages, STAGES, sumOf, valueOf, type Amounts, type SplitState } from './stages';
import { addLevels, committedOf, forecastOf, gauge, headroomOf } from './sums';

/** A purchase in the small: a need, one split that covers it, and what happens to both. */
type World = { needed: Quantity; split: SplitState | undefined };
type Event =
  | { kind: 'draft'; share: number; price: number }
  | { kind: 'reprice'; price: number }
  | { kind: 'send' | 'callOff' | 'closeShort' }
  | { kind: 'receive' | 'takeBack'; share: number }
  | { kind: 'bill'; share: number; price: number }
  | { kind: 'change need'; to: number };

const ESTIMATE: Estimate = { price: 80_000 as UnitPrice, priceQuantity: 1, tax: null };
const ACCOUNT = { jobId: 1, costCodeId: 2 };
const part = (of: number, share: number) => quantity(Math.round(of * share));

function apply(world: World, event: Event): World {
  const { split } = world;
  const open = openOf(coverage(world.needed, split === undefined ? [] : [split]));
  const change = (to: Partial<SplitState>): World => ({ ...world, split: split && { ...split, ...to } });
  const atSupplier = split?.commitment === 'sent';
  switch (event.kind) {
    case 'draft': {
      const bought = part(open, event.share);
      if (split !== undefined || bought <= 0) return world;
      return {
        ...world,
        split: {
          commitment: 'drafted',
          ordered: bought,
          claimed: quantity(0),
          value: lineNet(bought, event.price as UnitPrice, 1, 'GBP'),
          received: quantity(0),
          billed: quantity(0),
          billedAmount: minor(0),
        },
      };
    }
    case 'reprice':
      return split?.commitment === 'drafted'
        ? change({ value: lineNet(split.ordered, event.price as UnitPrice, 1, 'GBP') })
        : world;
    case 'send':
      return split?.commitment === 'drafted' ? change({ commitment: 'sent' }) : world;
    case 'callOff':
      return split !== undefined && split.received === 0 && split.billed === 0 && split.commitment !== 'closedShort'
        ? change({ commitment: 'calledOff' })
        : world;
    case 'closeShort':
      return atSupplier ? change({ commitment: 'closedShort' }) : world;
    case 'receive':
      return atSupplier ? change({ received: quantity(split.received + part(split.ordered, event.share)) }) : world;
    case 'takeBack':
      return atSupplier ? change({ received: quantity(split.received - part(split.received, event.share)) }) : world;
    case 'bill': {
      if (!atSupplier) return world;
      const billed = part(split.ordered, event.share);
      return change({
        billed: quantity(split.billed + billed),
        billedAmount: minor(split.billedAmount + lineNet(billed, event.price as UnitPrice, 1, 'GBP')),
      });
    }
    case 'change need':
      return { ...world, needed: quantity(event.to) };
  }
}

const statesOf = (w: World): { need: Standing; split: Standing | undefined } => ({
  need: {
    account: ACCOUNT,
    amounts: plannedOf(coverage(w.needed, w.split === undefined ? [] : [w.split]), ESTIMATE, 'GBP'),
  },
  split: w.split && { account: ACCOUNT, amounts: splitStages(w.split) },
});

const summed = (posted: readonly Movement[]): Standing[] => [
  {
    account: ACCOUNT,
    amounts: posted.reduce<Amounts>((sum, m) => plus(sum, { ...NOTHING, [m.stage]: m.amount }), NOTHING),
  },
];

const share = fc.double({ min: 0.01, max: 1, noNaN: true });
const price = fc.integer({ min: 1, max: 5_000_000 });
const event: fc.Arbitrary<Event> = fc.oneof(
  fc.record({ kind: fc.constant('draft' as const), share, price }),
  fc.record({ kind: fc.constant('reprice' as const), price }),
  fc.record({ kind: fc.constantFrom('send' as const, 'send' as const, 'callOff' as const, 'closeShort' as const) }),
  fc.record({ kind: fc.constantFrom('receive' as const, 'takeBack' as const), share }),
  fc.record({ kind: fc.constant('bill' as const), share, price }),
  fc.record({ kind: fc.constant('change need' as const), to: fc.integer({ min: 0, max: 5_000_000 }) }),
);
const history = fc.record({
  needed: fc.integer({ min: 1, max: 5_000_000 }),
  events: fc.array(event, { maxLength: 25 }),
});

describe('the first law: rebuild', () => {
  it('every line’s postings add up to the function of its present state, whatever happened', () => {
    fc.assert(
      fc.property(history, ({ needed, events }) => {
        let world: World = { needed: quantity(needed), split: undefined };
        const posted = { need: movements([], statesOf(world).need), split: [] as Movement[] };
        for (const e of events) {
          world = apply(world, e);
          const now = statesOf(world);
          posted.need.push(...movements(summed(posted.need), now.need));
          posted.split.push(...movements(summed(posted.split), now.split));
          expect(summed(posted.need)[0]?.amounts).toEqual(now.need.amounts);
          expect(summed(posted.split)[0]?.amounts).toEqual(now.split?.amounts ?? NOTHING);
        }
        expect(summed(posted.split)).toEqual(summed(movements([], statesOf(world).split)));
      }),
      { numRuns: 400 },
    );
  });

  it('posts a line that moves to another account away from the old one', () => {
    const old: Standing = { account: { jobId: 1, costCodeId: 1 }, amounts: { ...NOTHING, drafted: minor(900) } };
    const now: Standing = { account: { jobId: 2, costCodeId: 5 }, amounts: { ...NOTHING, drafted: minor(900) } };
    expect(movements([old], now)).toEqual([
      { jobId: 1, costCodeId: 1, stage: 'drafted', amount: -900 },
      { jobId: 2, costCodeId: 5, stage: 'drafted', amount: 900 },
    ]);
    expect(movements([old], undefined)).toEqual([{ jobId: 1, costCodeId: 1, stage: 'drafted', amount: -900 }]);
    expect(movements([old], old)).toEqual([]);
  });
});

const sent = fc
  .record({ ordered: fc.integer({ min: 1, max: 1_000_000_000 }), value: fc.integer({ min: 0, max: 1_000_000_000 }) })
  .map(({ ordered, value }): SplitState => ({
    commitment: 'sent',
    ordered: quantity(ordered),
    value: minor(value),
    received: quantity(0),
    billed: quantity(0),
    claimed: quantity(0),
    billedAmount: minor(0),
  }));

describe('the second law: one amount, one place', () => {
  it('sending and receiving move money between stages and never make or lose a minor unit', () => {
    fc.assert(
      fc.property(sent, fc.array(share, { maxLength: 8 }), (split, shares) => {
        expect(sumOf(splitStages({ ...split, commitment: 'drafted' }))).toBe(split.value);
        let received = 0;
        for (const s of shares) {
          received = Math.min(received + part(split.ordered, s), split.ordered);
          expect(sumOf(splitStages({ ...split, received: quantity(received) }))).toBe(split.value);
        }
      }),
    );
  });

  it('billing at the order’s price moves it too; another price changes the total by just the difference', () => {
    fc.assert(
      fc.property(sent, share, share, fc.integer({ min: -9999, max: 9999 }), (split, r, i, difference) => {
        const received = part(split.ordered, r);
        const billed = part(split.ordered, i);
        const atOrderPrice = valueOf(billed, split);
        const stages = splitStages({ ...split, received, billed, billedAmount: minor(atOrderPrice + difference) });
        expect(sumOf(stages)).toBe(split.value + difference);
        STAGES.filter((s) => s !== 'actual').forEach((s) => expect(stages[s]).toBeGreaterThanOrEqual(0));
      }),
    );
  });

  it('a line closed short keeps on order what a waiting bill claims, until it is billed', () => {
    const service: SplitState = {
      commitment: 'closedShort',
      ordered: quantity(180_000),
      value: minor(90_000),
      received: quantity(0),
      billed: quantity(140_000),
      claimed: quantity(30_000),
      billedAmount: minor(70_000),
    };
    expect(splitStages(service)).toEqual({ ...NOTHING, onOrder: 15_000, actual: 70_000 });
    const billed = { ...service, billed: quantity(170_000), claimed: quantity(0), billedAmount: minor(85_000) };
    expect(splitStages(billed)).toEqual({ ...NOTHING, actual: 85_000 });
  });

  it('a line whose bills have ended costs what was billed', () => {
    const given: SplitState = {
      commitment: 'settled',
      ordered: quantity(60_000),
      value: minor(6000),
      received: quantity(80_000),
      billed: quantity(60_000),
      claimed: quantity(0),
      billedAmount: minor(6000),
    };
    expect(splitStages(given)).toEqual({ ...NOTHING, actual: 6000 });
    expect(splitStages({ ...given, commitment: 'sent' })).toEqual({ ...NOTHING, received: 2000, actual: 6000 });
  });

  it('an over-delivery costs the excess at the order’s price', () => {
    const split: SplitState = {
      commitment: 'sent',
      ordered: quantity(100_000),
      value: minor(1000),
      received: quantity(120_000),
      billed: quantity(0),
      claimed: quantity(0),
      billedAmount: minor(0),
    };
    expect(splitStages(split)).toEqual({ ...NOTHING, received: 1200 });
  });
});

/** The worked example of docs/cost-rules.md, step by step. */
describe('the worked example', () => {
  const m = (metres: number) => quantity(metres * 10_000);
  const draft: SplitState = {
    commitment: 'drafted',
    ordered: m(12),
    claimed: m(0),
    value: minor(9000),
    received: m(0),
    billed: m(0),
    billedAmount: minor(0),
  };
  const five: SplitState = { ...draft, commitment: 'sent', received: m(5) };
  const billed: SplitState = { ...five, billed: m(5), billedAmount: minor(3900) };
  const closed: SplitState = { ...billed, commitment: 'closedShort' };
  const stand = (needed: number, split?: SplitState) => {
    const need = plannedOf(coverage(m(needed), split ? [split] : []), ESTIMATE, 'GBP');
    const level = { budget: minor(120_000), amounts: split ? plus(need, splitStages(split)) : need };
    return {
      ...level.amounts,
      forecast: forecastOf(level),
      headroom: headroomOf(level),
      committed: committedOf(level),
    };
  };

  it.each([
    ['a need of 12 m at 8.00', stand(12), { planned: 9600, headroom: 110_400 }],
    ['drafted at 7.50', stand(12, draft), { planned: 0, drafted: 9000, committed: 0 }],
    ['sent', stand(12, { ...draft, commitment: 'sent' }), { drafted: 0, onOrder: 9000, committed: 9000 }],
    ['five metres arrive', stand(12, five), { onOrder: 5250, received: 3750 }],
    [
      'billed at 7.80',
      stand(12, billed),
      { received: 0, actual: 3900, onOrder: 5250, forecast: 9150, headroom: 110_850 },
    ],
    ['the rest closed short', stand(12, closed), { onOrder: 0, planned: 5600, forecast: 9500 }],
    ['the need cut to 5 m', stand(5, closed), { planned: 0, forecast: 3900, headroom: 116_100 }],
  ])('%s', (_, stands, expected) => expect(stands).toMatchObject(expected));
});

describe('levels', () => {
  const level = (budget: number, amounts: Partial<Amounts>) => ({
    budget: minor(budget),
    amounts: { ...NOTHING, ...amounts } as Amounts,
  });

  it('adds levels up', () => {
    const sum = addLevels([
      level(100, { actual: 30 as Minor }),
      level(50, { planned: 60 as Minor, actual: 5 as Minor }),
    ]);
    expect([sum.budget, forecastOf(sum), headroomOf(sum), committedOf(sum)]).toEqual([150, 95, 55, 35]);
  });

  it('draws stages from the most certain, and what passes the budget beyond the mark', () => {
    const within = gauge(level(200, { actual: 50 as Minor, planned: 50 as Minor }));
    expect(within).toEqual({
      max: 1,
      segments: [
        { stage: 'actual', amount: 50, from: 0, to: 0.25 },
        { stage: 'planned', amount: 50, from: 0.25, to: 0.5 },
      ],
    });
    const beyond = gauge(level(100, { onOrder: 80 as Minor, drafted: 45 as Minor }));
    expect(beyond.max).toBe(0.8);
    expect(beyond.over).toEqual({ from: 0.8, to: 1 });
    expect(gauge(level(0, {})).segments).toEqual([]);
  });
});
