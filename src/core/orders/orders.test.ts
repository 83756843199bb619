import fc from 'fast-check';
import { LIMITS } from '../limits';
import { minor, type UnitPrice } from '../money/money';
import { PAR } from '../money/rate';
import type { TaxCode } from '../money/tax';
import { MON_TO_FRI, type Day } from '../calendar/workdays';
import { ONE, quantity, SAME_UNIT } from '../quantity/quantity';
import { checksOf } from './checks';
import { numberBy } from './number';
import { spreadCharge } from './charges';
import { draftFaults, orderTotals, sendingFaults, valueOrder, type OrderLine } from './order';
import { cancelFault, closeShortFault, endInvoicesFault, endedAt, takeBackFault, type Facts } from './rules';
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

const vat: TaxCode = { id: 1, name: 'VAT 20 %', category: 'S', rate: 2000, recoverable: 10_000 };
const lost: TaxCode = { id: 2, name: 'VAT, not recoverable', category: 'S', rate: 2000, recoverable: 0 };
const terms = { currency: 'GBP', companyCurrency: 'GBP', rate: PAR };
const split = (jobId: number | null, q: number, costCodeId: number | null = jobId === null ? null : 3) => ({
  jobId,
  costCodeId,
  needId: null,
  quantity: quantity(q * 10_000),
});
const line = (change: Partial<OrderLine> = {}): OrderLine => ({
  kind: 'goods',
  description: 'Tube',
  quantity: quantity(100_000),
  unit: 'MTR',
  factor: SAME_UNIT,
  shareUnit: 'MTR',
  price: 25_000 as UnitPrice,
  priceQuantity: 1,
  grossPrice: null,
  discount: 0,
  free: false,
  taxCodeId: 1,
  chargeKind: null,
  chargeCodeId: null,
  spread: 'value',
  weight: null,
  splits: [split(7, 10)],
  ...change,
});

const splitValues = (lines: readonly OrderLine[], codes: readonly TaxCode[]) =>
  valueOrder(lines, codes, terms).map((l) => l.splits.map((s) => s.value));

describe('splits of an order', () => {
  it('share their line’s value by quantity, to the penny', () => {
    const three = line({
      quantity: quantity(30_000),
      price: 33_333 as UnitPrice,
      splits: [split(1, 1), split(2, 1), split(null, 1)],
    });
    expect(splitValues([three], [vat])).toEqual([[334, 333, 333]]);
  });

  it('carry the tax that cannot be recovered', () =>
    expect(splitValues([line({ taxCodeId: 2 })], [vat, lost])).toEqual([[3000]]));

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
          splitValues(order, [vat])
            .flat()
            .reduce((a, b) => a + b, 0),
        ).toBe(orderTotals(order, [vat], 'GBP').net);
      }),
    );
  });

  it('share by the need’s unit: 40 m of a reel of 60 m at 177.00 are 118.00', () => {
    const reel = { unit: 'XRL', quantity: ONE, factor: { many: 60, one: 1 }, price: 1_770_000 as UnitPrice };
    expect(splitValues([line({ ...reel, splits: [split(1, 40), split(1, 20)] })], [vat])).toEqual([[11_800, 5900]]);
    const drum = { ...reel, factor: { many: 300, one: 1 }, price: 120_000_000 as UnitPrice };
    expect(splitValues([line({ ...drum, splits: [split(1, 100), split(2, 200)] })], [vat])).toEqual([
      [400_000, 800_000],
    ]);
  });

  const charge = (price: number, change: Partial<OrderLine> = {}) =>
    line({
      kind: 'charge',
      description: 'Carriage',
      quantity: ONE,
      unit: 'C62',
      price: price as UnitPrice,
      splits: [],
      ...change,
    });

  it('spread a charge in money: 9,000.00 over three equal jobs is 3,000.00 each', () => {
    const three = line({ quantity: quantity(30_000), splits: [split(1, 1), split(2, 1), split(3, 1)] });
    const [, carriage] = valueOrder([three, charge(90_000_000, { chargeCodeId: 9 })], [vat], terms);
    expect(carriage?.splits.map((s) => [s.jobId, s.costCodeId, s.value, s.quantity])).toEqual([
      [1, 9, 300_000, ONE],
      [2, 9, 300_000, ONE],
      [3, 9, 300_000, ONE],
    ]);
  });

  it('spread a charge by value, to its own code or along with the lines, and keep its splits the same', () => {
    const over = [
      { jobId: 1, costCodeId: 3, value: minor(300) },
      { jobId: 2, costCodeId: 3, value: minor(100) },
      { jobId: null, costCodeId: null, value: minor(0) },
    ];
    expect(spreadCharge(minor(1000), over, 9).map((t) => [t.jobId, t.costCodeId, t.value])).toEqual([
      [1, 9, 750],
      [2, 9, 250],
    ]);
    expect(spreadCharge(minor(1000), over, null).map((t) => t.costCodeId)).toEqual([3, 3]);
    expect(spreadCharge(minor(1000), [], 9)).toEqual([]);
    const before = charge(25_000, { splits: [{ ...split(7, 1), id: 41 }] });
    expect(valueOrder([line(), before], [vat], terms)[1]?.splits.map((s) => s.id)).toEqual([41]);
  });
});

describe('faults of lines', () => {
  const codes = (...lines: OrderLine[]) => draftFaults(lines, 'GBP').map((f) => f.code);
  const allowance = line({ kind: 'charge', price: -500_000 as UnitPrice, splits: [] });
  it.each([
    ['none', line(), []],
    ['no words', line({ description: ' ' }), ['line.words']],
    ['nothing ordered', line({ quantity: quantity(0), splits: [] }), ['line.quantity', 'line.split']],
    ['half a piece', line({ unit: 'C62', quantity: quantity(5000), splits: [split(7, 0.5)] }), ['quantity.whole']],
    ['parts that do not add up', line({ splits: [split(7, 4)] }), ['split.sum']],
    ['an empty part', line({ splits: [split(7, 10), split(8, 0)] }), ['split.quantity']],
    ['no part at all', line({ splits: [] }), ['line.split']],
    ['a charge with nothing to follow', line({ kind: 'charge', splits: [] }), ['order.charge']],
    [
      'more than can be kept',
      line({ quantity: quantity(LIMITS.quantity), price: LIMITS.price as UnitPrice, splits: [split(7, 10_000_000)] }),
      ['line.large'],
    ],
  ] as const)('%s', (_, l, expected) => expect(codes(l)).toEqual(expected));

  it('take a discount, as a charge or as a line below zero', () => {
    expect(codes(line(), allowance)).toEqual([]);
    expect(codes(line(), line({ price: -1 as UnitPrice }))).toEqual([]);
    expect(sendingFaults([line(), allowance], 'GBP', 'a@b.example').map((f) => f.code)).toEqual(['order.below']);
  });

  it('name what keeps an order from being sent', () => {
    expect(sendingFaults([line()], 'GBP', 'orders@pellam.example')).toEqual([]);
    expect(
      sendingFaults([line({ price: null, splits: [split(7, 10, null)] })], 'GBP', null).map((f) => f.code),
    ).toEqual(['line.price', 'line.split', 'supplier.email']);
    expect(sendingFaults([], 'GBP', 'a@b.example').map((f) => f.code)).toEqual(['order.empty']);
    expect(sendingFaults([line({ price: null })], 'GBP', 'a@b.example')[0]?.message).toBe(
      'Tube needs a price before this order can be sent.',
    );
  });
});

describe('checks before sending', () => {
  const calendar = { week: MON_TO_FRI, off: new Set<string>() };
  const facts = {
    lines: [{ ...line(), wantedOn: '2026-05-20' as Day | null, lead: { days: 4, calendar } }],
    supplier: {
      email: 'a@b.example',
      carriage: minor(2500),
      carriageFreeFrom: minor(40_000),
      minimumOrder: null as ReturnType<typeof minor> | null,
    },
    goods: minor(35_500),
    currency: 'GBP',
    today: '2026-05-12' as Day,
    calendar,
  };
  const words = (change: Partial<typeof facts>) =>
    checksOf({ ...facts, ...change })
      .filter((c) => !c.good)
      .map((c) => c.words);
  it('says how far free carriage is', () => expect(words({})).toEqual(['£\u202f45.00 more for free carriage']));
  it('notices carriage that is charged all the same', () =>
    expect(
      words({
        goods: minor(50_000),
        lines: [
          ...facts.lines,
          { ...line({ kind: 'charge', chargeKind: 'carriage' }), wantedOn: null, lead: { days: 4, calendar } },
        ],
      }),
    ).toEqual(['Carriage is charged although the order qualifies for free carriage']));
  it('notices a line that is for another part than a buy list asks for', () => {
    const other = { ...line(), wantedOn: null, lead: { days: 4, calendar }, insteadOf: 'TU-1' };
    expect(words({ goods: minor(50_000), lines: [other] })).toEqual(['Tube replaces TU-1 on the buy list']);
  });
  it('notices each line whose own lead time misses its date, and not the others', () => {
    const wanted = (wantedOn: string, days: number) => ({
      ...line(),
      wantedOn: wantedOn as Day,
      lead: { days, calendar },
    });
    // Tue 12 to Wed 20 May are six working days.
    expect(words({ goods: minor(50_000), lines: [wanted('2026-05-20', 6), wanted('2026-05-20', 7)] })).toEqual([
      'Tube: required date is inside the 7-working-day lead time',
    ]);
  });
});

describe('states of an order', () => {
  const events: readonly OrderEvent[] = [
    'holdOpen',
    'takeUp',
    'askSignOff',
    'signOff',
    'sendBack',
    'send',
    'confirm',
    'cancel',
  ];

  it('never leave a settled or cancelled order, and never send twice', () => {
    for (const e of events) {
      expect(canMove('settled', e)).toBe(false);
      expect(canMove('cancelled', e)).toBe(false);
    }
    expect(canMove('sent', 'send')).toBe(false);
  });

  it('are sendable exactly where nobody has sent, refused or cancelled yet', () =>
    expect(SENDABLE).toEqual(['drafting', 'heldOpen', 'readyToSend']));

  it('say when goods are overdue: awaited, and wanted before today', () => {
    const overdue = (state: OrderState, wantedOn: string | null) =>
      isOverdue({ state, wantedOn: wantedOn as Day | null }, '2026-05-12' as Day);
    expect(ORDER_STATES.filter((s) => overdue(s, '2026-05-11'))).toEqual(['sent', 'confirmed', 'partIn']);
    expect([overdue('sent', '2026-05-12'), overdue('sent', null)]).toEqual([false, false]);
  });

  it('tell in words why something cannot be done', () =>
    expect(move('partIn', 'cancel')).toMatchObject({
      message: 'This order is part received, so it can’t be cancelled.',
    }));

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
          expect(commitmentOf({ state, sentFrom: null }, { closedShort: false, invoicesEnded: false })).toBe(
            state === 'cancelled' ? 'cancelled' : wasSent ? 'sent' : 'drafted',
          );
          expect(EDITABLE.includes(state) && wasSent).toBe(false);
        }
      }),
    );
  });

  const progress = (change: Partial<LineProgress> = {}): LineProgress => ({
    kind: 'goods',
    closedShort: false,
    invoicesEnded: false,
    ordered: quantity(10),
    received: quantity(0),
    invoiced: quantity(0),
    held: quantity(0),
    givenUp: quantity(0),
    ...change,
  });
  const all = { received: quantity(10) };
  const paid = { invoiced: quantity(10) };
  it.each([
    ['nothing came', [progress()], 'sent'],
    ['some came', [progress({ received: quantity(4) })], 'partIn'],
    ['one of two lines came', [progress(all), progress()], 'partIn'],
    ['all came', [progress(all), progress({ ...all, received: quantity(12) })], 'allIn'],
    ['all came and is invoiced', [progress({ ...all, ...paid })], 'settled'],
    ['a charge is not invoiced yet', [progress({ ...all, ...paid }), progress({ kind: 'charge' })], 'allIn'],
    [
      'closed short and invoiced as received',
      [progress({ received: quantity(4), invoiced: quantity(4), closedShort: true })],
      'settled',
    ],
    ['more came than is invoiced', [progress({ received: quantity(12), ...paid })], 'allIn'],
    [
      'more came, and its invoices have ended',
      [progress({ received: quantity(12), ...paid, invoicesEnded: true })],
      'settled',
    ],
    ['a service is settled by its invoice', [progress({ kind: 'service', ...paid })], 'settled'],
    ['a service is not invoiced', [progress({ kind: 'service' })], 'sent'],
  ] as const)('%s', (_, lines, state) => expect(progressState('sent', lines)).toBe(state));

  it('take a settled order up again when a receipt is taken back', () =>
    expect(progressState('settled', [progress(paid)])).toBe('sent'));
  it('leave an unsent order alone', () => UNSENT.forEach((s) => expect(progressState(s, [progress(all)])).toBe(s)));
});

describe('what may happen to a sent order', () => {
  const nothing = {
    ordered: quantity(10),
    received: quantity(0),
    invoiced: quantity(0),
    held: quantity(0),
    givenUp: quantity(0),
  };
  const fresh = { kind: 'goods', closedShort: false, invoicesEnded: false, description: 'Tube', ...nothing } as const;
  const order = (change: Partial<Facts> = {}): Facts => ({
    number: 'K26-0001',
    state: 'sent',
    waitingInvoices: 0,
    lines: [fresh],
    ...change,
  });

  it('it is cancelled only while nothing came and nobody asks money for it', () => {
    expect(cancelFault(order())).toBeUndefined();
    expect(cancelFault(order({ waitingInvoices: 1 }))?.code).toBe('order.invoiced');
    expect(cancelFault(order({ lines: [{ ...fresh, invoiced: quantity(1) }] }))?.code).toBe('order.begun');
    expect(cancelFault(order({ state: 'sending' }))?.code).toBe('order.state');
  });

  it('a line is closed short at what came of it: pieces, or hours invoiced', () => {
    const hours = { ...fresh, kind: 'service', ordered: quantity(180_000), invoiced: quantity(170_000) } as const;
    expect(closeShortFault(order(), hours)).toBeUndefined();
    expect(endedAt(hours)).toBe('17 of 18');
    expect(closeShortFault(order(), { ...hours, invoiced: quantity(180_000) })?.code).toBe('line.in');
    expect(closeShortFault(order(), { ...fresh, received: quantity(10) })?.code).toBe('line.in');
    expect(closeShortFault(order({ state: 'drafting' }), fresh)?.code).toBe('order.state');
  });

  it('invoices end for goods that are in and were invoiced for less', () => {
    const over = { ...fresh, received: quantity(12), invoiced: quantity(10) };
    expect(endInvoicesFault(order(), over)).toBeUndefined();
    expect(endInvoicesFault(order({ waitingInvoices: 1 }), over)?.code).toBe('order.invoiced');
    expect(endInvoicesFault(order(), fresh)?.code).toBe('line.open');
    expect(endInvoicesFault(order(), { ...over, invoiced: quantity(12) })?.code).toBe('line.ended');
  });

  it('a receipt is taken back unless one of its own lines has ended', () => {
    const receipt = { number: 'R-1', back: false };
    expect(takeBackFault(receipt, [fresh], false)).toBeUndefined();
    expect(takeBackFault(receipt, [{ ...fresh, closedShort: true }], false)?.code).toBe('receipt.closed');
    const invoiced = { ...fresh, invoiced: quantity(1) };
    expect(takeBackFault(receipt, [invoiced], false)?.code).toBe('receipt.invoiced');
    expect(takeBackFault(receipt, [invoiced], true)).toBeUndefined();
    expect(takeBackFault({ ...receipt, back: true }, [fresh], false)?.code).toBe('receipt.back');
  });
});

describe('order numbers', () => {
  it('follow the company’s pattern', () => {
    expect(numberBy('K{yy}-{0000}', { year: 2026, count: 187, jobs: [] })).toBe('K26-0187');
    expect(numberBy('{yyyy}-{job}-{000}', { year: 2026, count: 12_345, jobs: ['412'] })).toBe('2026-412-12345');
    expect(numberBy('{job}{0}', { year: 2026, count: 7, jobs: ['412', '418'] })).toBe('X7');
    expect(numberBy('{job}{0}', { year: 2026, count: 7, jobs: [] })).toBe('S7');
    expect(() => numberBy('K{yy}', { year: 2026, count: 1, jobs: [] })).toThrow(RangeError);
  });
});
