import fc from 'fast-check';
import { minor, type UnitPrice } from '../money/money';
import { quantity } from '../quantity/quantity';
import {
  invoiceable,
  heldSize,
  differenceInWords,
  differenceWords,
  matchLine,
  matchTotal,
  matchUnordered,
  passFault,
  priceDifference,
  type InvoicedLine,
  type Tolerance,
} from './match';
import { shareInvoice } from './share';

const q = (n: number) => quantity(n * 10_000);
const p = (n: number) => Math.round(n * 10_000) as UnitPrice;
const line = (change: Partial<InvoicedLine> = {}): InvoicedLine => ({
  description: 'Hose',
  kind: 'goods',
  ordered: q(12),
  received: q(12),
  missing: q(0),
  invoicedElsewhere: q(0),
  orderPrice: p(7.5),
  orderPriceQuantity: 1,
  quantity: q(12),
  price: p(7.5),
  priceQuantity: 1,
  ...change,
});
const tolerance: Tolerance = { priceShare: 200, priceMost: minor(500) };
const found = (l: InvoicedLine) => matchLine(l, tolerance, 'GBP').map((d) => [d.kind, d.amount, d.beyond]);

describe('three-way match', () => {
  it.each([
    ['all agrees', line(), []],
    ['a few pence more', line({ price: p(7.6) }), [['price', 120, false]]],
    ['more than the tolerance', line({ price: p(7.8) }), [['price', 360, true]]],
    ['cheaper than ordered, beyond tolerance', line({ price: p(7) }), [['price', -600, true]]],
    ['invoiced before it came', line({ received: q(5) }), [['quantity', 5250, true]]],
    ['invoiced on another invoice as well', line({ invoicedElsewhere: q(12) }), [['quantity', 9000, true]]],
    ['a service as ordered', line({ kind: 'service', received: q(0) }), []],
    [
      'a service beyond its order',
      line({ kind: 'service', received: q(0), quantity: q(13) }),
      [['quantity', 750, true]],
    ],
    ['a part of what is in', line({ quantity: q(5) }), []],
  ] as const)('%s', (_, l, expected) => expect(found(l)).toEqual(expected));

  it('says what of an invoice was missing from the parcel', () =>
    expect(matchLine(line({ received: q(9), missing: q(3) }), tolerance, 'GBP').map((d) => d.words)).toEqual([
      'Hose: 12 invoiced, 9 received (3 short-delivered).',
    ]));

  it('holds what passes the smaller of the two tolerances', () => {
    const large = { ordered: q(1000), received: q(1000), quantity: q(1000) };
    expect(found(line({ ...large, price: p(7.504) }))).toEqual([['price', 400, false]]);
    expect(found(line({ ...large, price: p(7.506) }))).toEqual([['price', 600, true]]);
  });

  it('compares prices for different quantities', () =>
    expect(priceDifference(line({ price: p(750), priceQuantity: 100 }), 'GBP')).toBe(0));
  it('lets only what is in be invoiced', () =>
    expect(invoiceable(line({ received: q(5), invoicedElsewhere: q(2) }))).toBe(q(3)));
  it('holds a total that the lines do not come to', () => {
    expect(matchTotal(minor(10_800), minor(10_800), 'GBP')).toEqual([]);
    expect(matchTotal(minor(10_800), minor(10_700), 'GBP')).toMatchObject([{ amount: 100, beyond: true }]);
  });
});

describe('what is held', () => {
  const differences = [
    { kind: 'quantity', amount: minor(669_600), beyond: true, words: '' },
    { kind: 'price', amount: minor(-803_500), beyond: true, words: '' },
    { kind: 'price', amount: minor(90), beyond: false, words: '' },
  ] as const;

  it('is told one by one and never netted', () => {
    expect(differenceWords(differences, (a) => (a / 100).toFixed(2))).toBe('+6696.00, -8035.00');
    expect(heldSize(differences)).toBe(1_473_100);
    expect(differenceInWords(differences, (a) => (a / 100).toFixed(2))).toBe('6696.00 over, 8035.00 under the order');
    expect(differenceWords(Array(5).fill(differences[0]), () => '1')).toBe('+1, +1, +1 and 2 more');
  });

  it('is what nobody ordered, beyond the tolerance', () => {
    const held = (net: number) => matchUnordered('Fee', minor(net), tolerance, 'GBP').map((d) => d.beyond);
    expect([held(0), held(500), held(501), held(-501)]).toEqual([[], [false], [true], [true]]);
  });

  it('is passed by somebody else than who entered it, beyond the limit', () => {
    const pass = (own: boolean, size: number) =>
      passFault({ number: 'B-1', own, size: minor(size) }, minor(5000), 'GBP')?.code;
    expect([pass(true, 5001), pass(true, 5000), pass(false, 999_999)]).toEqual(['invoice.own', undefined, undefined]);
  });
});

describe('sharing an invoice among jobs', () => {
  const splits = [
    { splitId: 1, ordered: q(6), received: q(2), invoiced: q(0), value: minor(600) },
    { splitId: 2, ordered: q(6), received: q(6), invoiced: q(1), value: minor(600) },
  ];

  it('invoices first what is in and not invoiced', () => {
    expect(shareInvoice('goods', splits, q(7), minor(700))).toEqual([
      { splitId: 1, quantity: q(2), amount: 200 },
      { splitId: 2, quantity: q(5), amount: 500 },
    ]);
    expect(shareInvoice('goods', splits, q(9), minor(900))).toEqual([
      { splitId: 1, quantity: q(4), amount: 400 },
      { splitId: 2, quantity: q(5), amount: 500 },
    ]);
  });

  it('shares a charge by what it was to cost each job, and lets all of them have its whole quantity', () =>
    expect(shareInvoice('charge', splits, q(1), minor(901))).toEqual([
      { splitId: 1, quantity: q(1), amount: 451 },
      { splitId: 2, quantity: q(1), amount: 450 },
    ]));

  it('gives the last what is beyond the order', () =>
    expect(shareInvoice('goods', splits, q(13), minor(1300)).at(-1)).toEqual({
      splitId: 2,
      quantity: q(7),
      amount: 700,
    }));

  it('always shares out the whole quantity and the whole amount', () => {
    const any = fc.array(
      fc.record({
        ordered: fc.integer({ min: 1, max: 1e6 }),
        received: fc.integer({ min: 0, max: 1e6 }),
        invoiced: fc.integer({ min: 0, max: 1e6 }),
      }),
      { minLength: 1, maxLength: 5 },
    );
    fc.assert(
      fc.property(any, fc.integer({ min: 1, max: 5e6 }), fc.integer({ min: 0, max: 1e8 }), (all, n, amount) => {
        const parts = shareInvoice(
          'goods',
          all.map((s, k) => ({
            splitId: k,
            ordered: quantity(s.ordered),
            received: quantity(s.received),
            invoiced: quantity(s.invoiced),
            value: minor(1),
          })),
          quantity(n),
          minor(amount),
        );
        expect(parts.reduce((sum, x) => sum + x.quantity, 0)).toBe(n);
        expect(parts.reduce((sum, x) => sum + x.amount, 0)).toBe(amount);
      }),
    );
  });
});
