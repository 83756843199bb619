import fc from 'fast-check';
import { coverage, plannedOf, type Estimate } from '../needs/coverage';
import { minor, type Minor, type UnitPrice } from '../money/money';
import { quantity } from '../quantity/quantity';
import { movements, type Balance } from './postings';
import { NOTHING, plus, splitStages, STAGES, sumOf, valueOf, type Amounts, type SplitState } from './stages';
import { addLevels, committedOf, forecastOf, gauge, headroomOf } from './sums';

const part = (of: number, share: number) => quantity(Math.round(of * share));
const ESTIMATE: Estimate = { price: 80_000 as UnitPrice, priceQuantity: 1, tax: null };
const share = fc.double({ min: 0.01, max: 1, noNaN: true });

describe('what an event posts', () => {
  it('posts a line that moves to another account away from the old one', () => {
    const old: Balance = { account: { jobId: 1, costCodeId: 1 }, amounts: { ...NOTHING, drafted: minor(900) } };
    const now: Balance = { account: { jobId: 2, costCodeId: 5 }, amounts: { ...NOTHING, drafted: minor(900) } };
    expect(movements([old], [now])).toEqual([
      { jobId: 1, costCodeId: 1, stage: 'drafted', amount: -900 },
      { jobId: 2, costCodeId: 5, stage: 'drafted', amount: 900 },
    ]);
    expect(movements([old], [])).toEqual([{ jobId: 1, costCodeId: 1, stage: 'drafted', amount: -900 }]);
    expect(movements([old], [old])).toEqual([]);
  });
});

const sent = fc
  .record({ ordered: fc.integer({ min: 1, max: 1_000_000_000 }), value: fc.integer({ min: 0, max: 1_000_000_000 }) })
  .map(({ ordered, value }): SplitState => ({
    commitment: 'sent',
    ordered: quantity(ordered),
    value: minor(value),
    received: quantity(0),
    givenUp: quantity(0),
    invoiced: quantity(0),
    claimed: quantity(0),
    invoicedAmount: minor(0),
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

  it('invoicing at the order’s price moves it too; another price changes the total by just the difference', () => {
    fc.assert(
      fc.property(sent, share, share, fc.integer({ min: -9999, max: 9999 }), (split, r, i, difference) => {
        const received = part(split.ordered, r);
        const invoiced = part(split.ordered, i);
        const atOrderPrice = valueOf(invoiced, split);
        const stages = splitStages({ ...split, received, invoiced, invoicedAmount: minor(atOrderPrice + difference) });
        expect(sumOf(stages)).toBe(split.value + difference);
        STAGES.filter((s) => s !== 'actual').forEach((s) => expect(stages[s]).toBeGreaterThanOrEqual(0));
      }),
    );
  });

  it('a line closed short keeps on order what a waiting invoice claims, until it is invoiced', () => {
    const service: SplitState = {
      commitment: 'closedShort',
      ordered: quantity(180_000),
      value: minor(90_000),
      received: quantity(0),
      givenUp: quantity(0),
      invoiced: quantity(140_000),
      claimed: quantity(30_000),
      invoicedAmount: minor(70_000),
    };
    expect(splitStages(service)).toEqual({ ...NOTHING, onOrder: 15_000, actual: 70_000 });
    const invoiced = { ...service, invoiced: quantity(170_000), claimed: quantity(0), invoicedAmount: minor(85_000) };
    expect(splitStages(invoiced)).toEqual({ ...NOTHING, actual: 85_000 });
  });

  it('a line whose invoices have ended costs what was invoiced', () => {
    const given: SplitState = {
      commitment: 'settled',
      ordered: quantity(60_000),
      value: minor(6000),
      received: quantity(80_000),
      givenUp: quantity(0),
      invoiced: quantity(60_000),
      claimed: quantity(0),
      invoicedAmount: minor(6000),
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
      givenUp: quantity(0),
      invoiced: quantity(0),
      claimed: quantity(0),
      invoicedAmount: minor(0),
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
    givenUp: quantity(0),
    invoiced: m(0),
    invoicedAmount: minor(0),
  };
  const five: SplitState = { ...draft, commitment: 'sent', received: m(5) };
  const invoiced: SplitState = { ...five, invoiced: m(5), invoicedAmount: minor(3900) };
  const closed: SplitState = { ...invoiced, commitment: 'closedShort' };
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
      'invoiced at 7.80',
      stand(12, invoiced),
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
