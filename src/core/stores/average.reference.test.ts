import { minor, type Minor } from '../money/money';
import { NONE, quantity, type Quantity } from '../quantity/quantity';
import { take, worth, type Pile } from './pile';

const q = (n: number): Quantity => quantity(n * 10_000);

/** A pile that things come onto and are taken off, in the order of a worked example. */
class Perpetual {
  pile: Pile = { quantity: NONE, value: minor(0) };

  buy(n: number, each: number): void {
    this.pile = {
      quantity: quantity(this.pile.quantity + q(n)),
      value: minor(this.pile.value + Math.round(n * each * 100)),
    };
  }

  /** @returns what was taken off is worth, in minor units */
  sell(n: number): Minor {
    const taken = take(q(n), this.pile, 'it');
    if (!taken.ok) throw new Error(taken.refusals[0]?.message);
    this.pile = {
      quantity: quantity(this.pile.quantity + taken.value.quantity),
      value: minor(this.pile.value + taken.value.value),
    };
    return minor(-taken.value.value);
  }

  get each(): Minor {
    return worth(q(1), this.pile);
  }
}

/**
 * Kieso, Weygandt and Warfield, Intermediate Accounting, chapter on the valuation of inventories, the example of
 * Call-Mart Inc. under the moving-average method with perpetual records. Figures from memory.
 */
describe('moving average, as textbooks work it', () => {
  it('revalues with each purchase, and sells at the average of that moment', () => {
    const records = new Perpetual();
    records.buy(2000, 4);
    records.buy(6000, 4.4);
    expect([records.pile.value, records.each]).toEqual([3_440_000, 430]);
    expect(records.sell(4000)).toBe(1_720_000);
    expect([records.pile.quantity, records.pile.value]).toEqual([q(4000), 1_720_000]);
    records.buy(2000, 4.75);
    expect([records.pile.quantity, records.pile.value, records.each]).toEqual([q(6000), 2_670_000, 445]);
  });

  it('takes all the value that is left with the last piece, so that no penny stays', () => {
    const records = new Perpetual();
    records.buy(3, 33.33);
    records.buy(4, 10.01);
    const sold = [2, 2, 2, 1].map((n) => records.sell(n));
    expect(sold.reduce((sum, v) => sum + v, 0)).toBe(9999 + 4004);
    expect(records.pile).toEqual({ quantity: NONE, value: 0 });
  });
});
