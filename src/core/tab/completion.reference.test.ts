import Big from 'big.js';
import fc from 'fast-check';
import { minor } from '../money/money';
import { completionOf } from './completion';
import { NOTHING, type Amounts } from './stages';
import { forecastOf } from './sums';

const level = (budget: number, amounts: Partial<Record<keyof Amounts, number>>) => ({
  budget: minor(budget),
  amounts: { ...NOTHING, ...amounts } as Amounts,
});

/**
 * Against the published definitions of earned value: ANSI/EIA-748 and PMI, Practice Standard for Earned Value Management
 * (2nd ed., 2011): CV = EV − AC, CPI = EV / AC, EAC = BAC / CPI, ETC = EAC − AC, VAC = BAC − EAC, TCPI = (BAC − EV) / (BAC − AC).
 * Formulas and examples from memory of such textbooks; the figures are those one usually meets there.
 */
describe('earned value', () => {
  it.each([
    // BAC 200,000; half done; 120,000 spent.
    [
      200_000,
      5000,
      120_000,
      { value: 100_000, costVariance: -20_000, costIndex: 8333, byIndex: 240_000, toCompleteIndex: 12_500 },
    ],
    // BAC 1,000,000; 40 % done; 500,000 spent: CPI 0.8, EAC 1,250,000, TCPI 1.2.
    [
      1_000_000,
      4000,
      500_000,
      { value: 400_000, costVariance: -100_000, costIndex: 8000, byIndex: 1_250_000, toCompleteIndex: 12_000 },
    ],
    // On plan: everything is one.
    [
      100_000,
      2500,
      25_000,
      { value: 25_000, costVariance: 0, costIndex: 10_000, byIndex: 100_000, toCompleteIndex: 10_000 },
    ],
    // Cheaper than planned.
    [
      100_000,
      5000,
      40_000,
      { value: 50_000, costVariance: 10_000, costIndex: 12_500, byIndex: 80_000, toCompleteIndex: 8333 },
    ],
  ])('of %i with %i done and %i incurred', (budget, done, actual, expected) =>
    expect(completionOf(level(budget * 100, { actual: actual * 100 }), { amount: null, done }).earned).toEqual({
      ...expected,
      value: expected.value * 100,
      costVariance: expected.costVariance * 100,
      byIndex: expected.byIndex * 100,
    }),
  );

  it('is the same as worked out by big.js, whatever the figures', () => {
    const amount = fc.integer({ min: 1, max: 10_000_000_00 });
    fc.assert(
      fc.property(amount, amount, fc.integer({ min: 1, max: 10_000 }), (budget, actual, done) => {
        const { earned, variance, toComplete, atCompletion } = completionOf(level(budget, { actual }), {
          amount: null,
          done,
        });
        const ev = new Big(budget).times(done).div(10_000).round(0, Big.roundHalfUp);
        expect(earned?.value).toBe(ev.toNumber());
        expect(earned?.costVariance).toBe(ev.minus(actual).toNumber());
        expect(earned?.costIndex).toBe(ev.times(10_000).div(actual).round(0, Big.roundHalfUp).toNumber());
        if (ev.gt(0))
          expect(earned?.byIndex).toBe(new Big(budget).times(actual).div(ev).round(0, Big.roundHalfUp).toNumber());
        expect(variance).toBe(budget - atCompletion);
        expect(toComplete).toBe(atCompletion - actual);
      }),
    );
  });
});

describe('cost at completion', () => {
  const half = level(100_000, { planned: 30_000, drafted: 5000, onOrder: 20_000, received: 4000, actual: 16_000 });

  it('is the forecast until somebody says otherwise', () => {
    expect(completionOf(half)).toEqual({
      incurred: 20_000,
      atCompletion: 75_000,
      toComplete: 55_000,
      variance: 25_000,
    });
    expect(completionOf(half).atCompletion).toBe(forecastOf(half));
  });

  it('is what was said in the place of what is planned, and follows what is committed beyond that', () => {
    expect(completionOf(half, { amount: minor(90_000), done: null })).toMatchObject({
      atCompletion: 90_000,
      variance: 10_000,
    });
    expect(completionOf(half, { amount: minor(50_000), done: null })).toMatchObject({ atCompletion: 50_000 });
    // Drafted, on order, received and actual come to 45,000.
    expect(completionOf(half, { amount: minor(1), done: null })).toMatchObject({ atCompletion: 45_000 });
  });

  it('knows no index of what was not begun, and none to come once the budget is spent', () => {
    expect(completionOf(level(1000, {}), { amount: null, done: 5000 }).earned).toMatchObject({
      costIndex: null,
      byIndex: null,
    });
    expect(
      completionOf(level(1000, { actual: 1000 }), { amount: null, done: 5000 }).earned?.toCompleteIndex,
    ).toBeNull();
    expect(completionOf(level(1000, { actual: 10 }), { amount: null, done: 0 }).earned?.byIndex).toBeNull();
  });
});
