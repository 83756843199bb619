import fc from 'fast-check';
import { PAR, minor, type UnitPrice } from '../money/money';
import type { TaxCode } from '../money/tax';
import { MON_TO_FRI, type Day } from '../calendar/workdays';
import { addQ, ONE, quantity } from '../quantity/quantity';
import { checksOf } from './checks';
import { numberBy } from './number';
import { lineFaults, orderTotals, sendingFaults, splitCharge, splitValues, withCharges, type OrderLine } from './order';
import {
  canMove,
  isOverdue,
  SENDABLE,
  type OrderState,
  commitmentOf,
  EDITABLE,
  move,
  ORDER_STATES,
  progressState,
  UNSENT,
  type LineProgress,
  type OrderEvent,
} from './states';

const vat: TaxCode = { id: 1, name: 'VAT 20 %', rate: 2000, recoverable: 10_000 };
const lost: TaxCode = { id: 2, name: 'VAT, not recoverable', rate: 2000, recoverable: 0 };
const terms = { currency: 'GBP', companyCurrency: 'GBP', rate: PAR };
const split = (jobId: number | null, q: number, costCodeId: number | null = jobId === null ? null : 3) => ({
  jobId,
  costCodeId,
  needId: null,
  quantity: quantity(q * 10_000),
  covers: quantity(0),
});
const line = (change: Partial<OrderLine> = {}): OrderLine => ({
  kind: 'goods',
  description: 'Tube',
  quantity: quantity(100_000),
  unit: 'MTR',
  price: 25_000 as UnitPrice,
  priceQuantity: 1,
  taxCodeId: 1,
  splits: [split(7, 10)],
  ...change,
});

describe('splits of an order', () => {
  it('share their line’s value by quantity, to the penny', () => {
    const three = line({
      quantity: quantity(30_000),
      price: 33_333 as UnitPrice,
      splits: [split(1, 1), split(2, 1), split(null, 1)],
    });
    expect(splitValues([three], [vat], terms)).toEqual([[334, 333, 333]]);
  });

  it('carry the tax that cannot be recovered', () =>
    expect(splitValues([line({ taxCodeId: 2 })], [vat, lost], terms)).toEqual([[3000]]));

  it('always add up to the order', () => {
    const lines = fc.array(
      fc.record({
        price: fc.integer({ min: 0, max: 9_999_999 }),
        parts: fc.array(fc.integer({ min: 1, max: 99 }), { minLength: 1, maxLength: 5 }),
      }),
      { minLength: 1, maxLength: 6 },
    );
    fc.assert(
      fc.property(lines, (all) => {
        const order = all.map(({ price, parts }) =>
          line({
            price: price as UnitPrice,
            quantity: quantity(parts.reduce((a, b) => a + b, 0) * 10_000),
            splits: parts.map((p, k) => split(k + 1, p)),
          }),
        );
        expect(
          splitValues(order, [vat], terms)
            .flat()
            .reduce((a, b) => a + b, 0),
        ).toBe(orderTotals(order, [vat], 'GBP').net);
      }),
    );
  });

  it('spread a charge over the jobs by value, to its own code or along with the lines', () => {
    const valued = [
      {
        splits: [
          { ...split(1, 1), value: minor(300) },
          { ...split(2, 1), value: minor(100) },
        ],
      },
      { splits: [{ ...split(null, 1), value: minor(0) }] },
    ];
    const parts = splitCharge(valued, 9);
    expect(parts.map((p) => [p.jobId, p.costCodeId, p.quantity])).toEqual([
      [1, 9, 7500],
      [2, 9, 2500],
    ]);
    expect(addQ(...parts.map((p) => p.quantity))).toBe(ONE);
    expect(splitCharge(valued, undefined).map((p) => p.costCodeId)).toEqual([3, 3]);
    expect(splitCharge([], 9)).toEqual([]);
  });

  it('work charges out anew with every change', () => {
    const charge = {
      ...line({ kind: 'charge', description: 'Carriage', quantity: ONE, unit: 'C62', splits: [] }),
      chargeCodeId: 9,
    };
    const [, carriage] = withCharges(
      [{ ...line({ splits: [split(1, 4), split(2, 6)] }), chargeCodeId: null }, charge],
      [vat],
      terms,
    );
    expect(carriage?.splits.map((s) => [s.jobId, s.quantity])).toEqual([
      [1, 4000],
      [2, 6000],
    ]);
  });
});

describe('faults of lines', () => {
  const codes = (l: OrderLine) => lineFaults(l, 'lines.0').map((f) => f.code);
  it.each([
    ['none', line(), []],
    ['no words', line({ description: ' ' }), ['line.words']],
    ['nothing ordered', line({ quantity: quantity(0), splits: [] }), ['line.quantity']],
    ['half a piece', line({ unit: 'C62', quantity: quantity(5000), splits: [split(7, 0.5)] }), ['line.whole']],
    ['a price below zero', line({ price: -1 as UnitPrice }), ['line.price']],
    ['parts that do not add up', line({ splits: [split(7, 4)] }), ['split.sum']],
    ['an empty part', line({ splits: [split(7, 10), split(8, 0)] }), ['split.quantity']],
  ] as const)('%s', (_, l, expected) => expect(codes(l)).toEqual(expected));

  it('an allowance below zero is a charge that may be', () =>
    expect(codes(line({ kind: 'charge', price: -500 as UnitPrice, splits: [] }))).toEqual([]));

  it('name what keeps an order from being sent', () => {
    expect(sendingFaults([line()], 'orders@pellam.example')).toEqual([]);
    expect(sendingFaults([line({ price: null, splits: [] })], null).map((f) => f.code)).toEqual([
      'line.price',
      'line.split',
      'supplier.email',
    ]);
    expect(sendingFaults([line({ kind: 'charge' })], 'a@b.example').map((f) => f.code)).toEqual(['order.empty']);
    expect(sendingFaults([line({ price: null })], 'a@b.example')[0]?.message).toBe(
      'Tube needs a price before this order can be sent.',
    );
  });
});

describe('checks before sending', () => {
  const facts = {
    lines: [{ ...line(), wantedOn: '2026-05-20' as Day | null, leadDays: 4 }],
    supplier: { email: 'a@b.example', carriage: minor(2500), carriageFreeFrom: minor(40_000) },
    goods: minor(35_500),
    currency: 'GBP',
    today: '2026-05-12' as Day,
    calendar: { week: MON_TO_FRI, off: new Set<string>() },
  };
  const words = (change: Partial<typeof facts>) =>
    checksOf({ ...facts, ...change })
      .filter((c) => !c.good)
      .map((c) => c.words);
  it('says how far free carriage is', () => expect(words({})).toEqual(['£\u202f45.00 more reaches free carriage']));
  it('notices carriage that is charged all the same', () =>
    expect(
      words({
        goods: minor(50_000),
        lines: [...facts.lines, { ...line({ kind: 'charge' }), wantedOn: null, leadDays: 4 }],
      }),
    ).toEqual(['Carriage is charged although the order reaches free carriage']));
  it('notices each line whose own lead time misses its date, and not the others', () => {
    const wanted = (wantedOn: string, leadDays: number) => ({ ...line(), wantedOn: wantedOn as Day, leadDays });
    // Tue 12 to Wed 20 May are six working days.
    expect(words({ goods: minor(50_000), lines: [wanted('2026-05-20', 6), wanted('2026-05-20', 7)] })).toEqual([
      'Tube is wanted sooner than its lead time of 7 working days',
    ]);
  });
});

describe('states of an order', () => {
  const events: readonly OrderEvent[] = [
    'holdOpen',
    'takeUp',
    'askSignOff',
    'signOff',
    'refuse',
    'send',
    'confirm',
    'callOff',
  ];

  it('never leave a settled or called-off order, and never send twice', () => {
    for (const e of events) {
      expect(canMove('settled', e)).toBe(false);
      expect(canMove('calledOff', e)).toBe(false);
    }
    expect(canMove('sent', 'send')).toBe(false);
  });

  it('are sendable exactly where nobody has sent, refused or called off yet', () =>
    expect(SENDABLE).toEqual(['drafting', 'heldOpen', 'readyToSend']));

  it('say when goods are overdue: awaited, and wanted before today', () => {
    const overdue = (state: OrderState, wantedOn: string | null) =>
      isOverdue({ state, wantedOn: wantedOn as Day | null }, '2026-05-12' as Day);
    expect(ORDER_STATES.filter((s) => overdue(s, '2026-05-11'))).toEqual(['sent', 'confirmed', 'partIn']);
    expect([overdue('sent', '2026-05-12'), overdue('sent', null)]).toEqual([false, false]);
  });

  it('tell in words why something cannot be done', () =>
    expect(move('partIn', 'callOff')).toMatchObject({ message: 'This order is part in, so it cannot be called off.' }));

  it('keep to their own kind: whatever happens, money is drafted exactly before sending', () => {
    fc.assert(
      fc.property(fc.array(fc.constantFrom(...events), { maxLength: 20 }), (happened) => {
        let state: (typeof ORDER_STATES)[number] = 'drafting';
        let wasSent = false;
        for (const e of happened) {
          const next = move(state, e);
          if (typeof next !== 'string') continue;
          wasSent ||= e === 'send';
          state = next;
          expect(commitmentOf(state, false)).toBe(state === 'calledOff' ? 'calledOff' : wasSent ? 'sent' : 'drafted');
          expect(EDITABLE.includes(state) && wasSent).toBe(false);
        }
      }),
    );
  });

  const progress = (change: Partial<LineProgress> = {}): LineProgress => ({
    kind: 'goods',
    closedShort: false,
    ordered: quantity(10),
    received: quantity(0),
    billed: quantity(0),
    ...change,
  });
  const all = { received: quantity(10) };
  const paid = { billed: quantity(10) };
  it.each([
    ['nothing came', [progress()], 'sent'],
    ['some came', [progress({ received: quantity(4) })], 'partIn'],
    ['one of two lines came', [progress(all), progress()], 'partIn'],
    ['all came', [progress(all), progress({ ...all, received: quantity(12) })], 'allIn'],
    ['all came and is billed', [progress({ ...all, ...paid })], 'settled'],
    ['a charge is not billed yet', [progress({ ...all, ...paid }), progress({ kind: 'charge' })], 'allIn'],
    [
      'closed short and billed as received',
      [progress({ received: quantity(4), billed: quantity(4), closedShort: true })],
      'settled',
    ],
    ['more came than is billed', [progress({ received: quantity(12), ...paid })], 'allIn'],
    ['a service is settled by its bill', [progress({ kind: 'service', ...paid })], 'settled'],
    ['a service is not billed', [progress({ kind: 'service' })], 'sent'],
  ] as const)('%s', (_, lines, state) => expect(progressState('sent', lines)).toBe(state));

  it('take a settled order up again when a receipt is taken back', () =>
    expect(progressState('settled', [progress(paid)])).toBe('sent'));
  it('leave an unsent order alone', () => UNSENT.forEach((s) => expect(progressState(s, [progress(all)])).toBe(s)));
});

describe('order numbers', () => {
  it('follow the company’s pattern', () => {
    expect(numberBy('K{yy}-{0000}', 2026, 187)).toBe('K26-0187');
    expect(numberBy('{yyyy}/{000}', 2026, 12_345)).toBe('2026/12345');
    expect(() => numberBy('K{yy}', 2026, 1)).toThrow(RangeError);
  });
});
