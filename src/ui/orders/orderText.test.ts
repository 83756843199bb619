import type { Day } from '@/core/calendar/workdays';
import { minor, type UnitPrice } from '@/core/money/money';
import { PAR } from '@/core/money/rate';
import { quantity, SAME_UNIT } from '@/core/quantity/quantity';
import type { StoredOrder } from '@/store/orders';
import { differences, settle } from './orderClash';
import { chosen, NOT_CHOSEN } from '../entry/reading';
import { newLine, partsOf, STORES, withQuantity, withTerms } from './orderLineText';
import { orderText, readOrder, type OrderText } from './orderText';

const split = (id: number, jobId: number | null, q: number) => ({
  id,
  lineId: 11,
  place: 1,
  number: 1,
  jobId,
  costCodeId: jobId === null ? null : 3,
  needId: 4,
  quantity: quantity(q),
  value: minor(0),
  received: quantity(0),
  givenUp: quantity(0),
  invoiced: quantity(0),
  invoicedAmount: minor(0),
  amount: null,
});
const line = {
  id: 11,
  orderId: 1,
  place: 1,
  number: 1,
  chargeKind: null,
  grossPrice: null,
  discount: 0,
  free: false,
  note: '',
  placeId: null,
  spread: 'value' as const,
  weight: null,
  promisedOn: null,
  confirmed: null,
  confirmedPrice: null,
  factor: SAME_UNIT,
  shareUnit: 'MTR',
  received: quantity(0),
  invoiced: quantity(0),
  held: quantity(0),
  rejected: quantity(0),
  givenUp: quantity(0),
  inspected: 0,
  certificate: 0,
  invoicesEnded: null,
  kind: 'goods' as const,
  itemId: null,
  description: 'Tube',
  ourNumber: 'T1',
  theirNumber: '88',
  quantity: quantity(120_000),
  unit: 'MTR',
  price: 75_000 as UnitPrice,
  priceQuantity: 1,
  taxCodeId: 1,
  wantedOn: null,
  chargeCodeId: null,
  closedShort: null,
  net: minor(9000),
  splits: [split(1, 7, 120_000)],
};
const order: StoredOrder = {
  id: 1,
  number: 'K26-0001',
  supplierId: 2,
  state: 'drafting',
  currency: 'GBP',
  rate: PAR,
  placeId: 1,
  wantedOn: null,
  dueHereOn: null,
  dueAwayOn: null,
  missedOn: null,
  carrier: 'Van',
  instructions: '',
  net: minor(9000),
  gross: minor(10_800),
  madeBy: 1,
  madeOn: '2026-05-12' as Day,
  madeAt: '',
  sentFrom: null,
  sentOn: null,
  revision: 0,
  lastLine: 0,
  counted: 1,
  latestOn: null,
  carrierService: '',
  siteContact: '',
  theirNumber: '',
  rateOn: null,
  version: 3,
  lines: [line, { ...line, id: 12, description: 'Bar' }],
};
const names = {
  jobs: new Map([[7, { number: '412', name: 'Dunlin' }]]),
  codes: [{ id: 3, code: '03', name: 'Electrical' }],
  places: new Map([[1, { name: 'Yard' }]]),
};
const reading = (text: OrderText) => readOrder(text, 'GBP');
const mine = orderText(order, names);
const part = { job: chosen(STORES), code: NOT_CHOSEN, needId: null, quantity: '1', amount: '' };
const first = (text: OrderText) => text.lines[0] as OrderText['lines'][number];
const change = (text: OrderText, part: Partial<OrderText['lines'][number]>): OrderText => ({
  ...text,
  lines: text.lines.map((l, k) => (k === 0 ? { ...l, ...part } : l)),
});

describe('an order as it is typed', () => {
  it('reads back what it shows', () => {
    const { value, faults } = reading(mine);
    expect(faults).toEqual([]);
    expect(value).toMatchObject({
      placeId: 1,
      carrier: 'Van',
      lines: [
        {
          id: 11,
          quantity: 120_000,
          price: 75_000,
          splits: [{ id: 1, jobId: 7, costCodeId: 3, quantity: 120_000 }],
        },
        { id: 12 },
      ],
    });
  });

  it.each([
    [{ quantity: '0' }, 'lines.0.quantity'],
    [{ quantity: '1.23456' }, 'lines.0.quantity'],
    [{ price: 'x' }, 'lines.0.price'],
    [{ priceQuantity: '0' }, 'lines.0.priceQuantity'],
    [{ unitWords: 'bundle' }, 'lines.0.unit'],
    [{ chargeCode: chosen(null, '77') }, 'lines.0.chargeCodeId'],
    [{ splits: [{ ...part, job: chosen({ id: 7, number: '412', name: '' }) }] }, 'lines.0.splits.0.code'],
    [{ splits: [{ ...part, job: NOT_CHOSEN }] }, 'lines.0.splits.0.job'],
    [{ splits: [{ ...part, quantity: 'some' }] }, 'lines.0.splits.0.quantity'],
  ])('tells where %j cannot be read', (given, field) =>
    expect(reading(change(mine, given)).faults.map((f) => f.field)).toContain(field),
  );

  it('lets a single part go with its line’s quantity', () =>
    expect(withQuantity(first(mine), '5').splits[0]?.quantity).toBe('5'));
  it('counts a part of a reel in metres', () => {
    const reel = {
      ...first(mine),
      unit: 'XRL',
      bought: { unit: 'XRL', shareUnit: 'MTR', factor: { many: 60, one: 1 } },
    };
    expect(withQuantity(reel, '2').splits[0]?.quantity).toBe('120');
    expect([partsOf(reel).unit, partsOf({ ...reel, unit: 'MMT' }).factor]).toEqual(['MTR', { many: 1, one: 1000 }]);
    expect(partsOf({ ...reel, unit: 'KGM' })).toEqual({ unit: 'KGM', factor: SAME_UNIT });
  });

  it('leaves several parts as they are', () => {
    const two = {
      ...first(mine),
      splits: [...first(mine).splits, part],
    };
    expect(withQuantity(two, '5').splits.map((s) => s.quantity)).toEqual(['12', '1']);
  });
});

describe('a line of a part that its supplier lists', () => {
  const prices = [
    { from: quantity(0), price: 192_000 as UnitPrice, priceQuantity: 1 },
    { from: quantity(100_000), price: 184_000 as UnitPrice, priceQuantity: 1 },
  ];
  const terms = {
    itemId: 9,
    unit: 'C62',
    theirNumber: 'DP16C',
    prices,
    item: { unit: 'MTR', weight: null },
    leadDays: 3,
    paid: null,
    past: [],
  };
  const fresh = { ...newLine('goods', 1, 0, part), itemId: 9, asks: true as const };
  const filled = withTerms(fresh, terms, 'GBP');

  it('takes its number, unit and price, and asks no more', () =>
    expect(filled).toEqual({ ...fresh, asks: undefined, theirNumber: 'DP16C', price: '19.20' }));
  it('keeps a price that was given', () => expect(withTerms({ ...fresh, price: '17' }, terms, 'GBP').price).toBe('17'));
  it('is bought in its supplier’s unit, parts and all', () => {
    const reel = withTerms(fresh, { ...terms, unit: 'XRL' }, 'GBP');
    expect([reel.unit, partsOf(reel).unit]).toEqual(['XRL', 'XRL']);
  });
  it('goes to the break that holds, and back', () => {
    const ten = withQuantity(filled, '10', prices, 'GBP');
    expect([ten.price, withQuantity(ten, '9', prices, 'GBP').price]).toEqual(['18.40', '19.20']);
  });
  it('keeps a price that a person typed', () =>
    expect(withQuantity({ ...filled, price: '17.95' }, '10', prices, 'GBP').price).toBe('17.95'));
  it('keeps its price while the quantity cannot be read', () =>
    expect(withQuantity(filled, '1x', prices, 'GBP').price).toBe('19.20'));
});

describe('two versions of one order', () => {
  const theirs: OrderText = { ...change(mine, { price: '8.00' }), carrier: 'Parcel' };
  const typed = change(mine, {
    quantity: '14',
    splits: [
      {
        ...(first(mine).splits[0] as OrderText['lines'][number]['splits'][number]),
        quantity: '14',
      },
    ],
  });

  it('differ where they differ', () =>
    expect(differences(typed, theirs)).toEqual([
      { key: 'carrier', label: 'Carrier', mine: 'Van', theirs: 'Parcel', safe: 'mine' },
      { key: 'line 11', label: 'Line', mine: '14 m Tube at 7.50', theirs: '12 m Tube at 8.00', safe: 'mine' },
    ]));

  it('tell of lines that stand on one side only', () =>
    expect(differences({ ...mine, lines: mine.lines.slice(0, 1) }, mine)).toEqual([
      { key: 'line 12', label: 'Line', mine: 'not there', theirs: '12 m Bar at 7.50', safe: 'theirs' },
    ]));

  it('settle by what is chosen, mine where nothing is', () => {
    const settled = settle(typed, theirs, { carrier: 'theirs' });
    expect([settled.carrier, first(settled).quantity, first(settled).price]).toEqual(['Parcel', '14', '7.50']);
    expect(settle(typed, theirs, { carrier: 'mine', 'line 11': 'theirs' }).lines[0]).toEqual(first(theirs));
  });

  it('keep a line that the other person added, unless it is chosen away', () => {
    const without = { ...mine, lines: mine.lines.slice(0, 1) };
    const keys = (chosen: Parameters<typeof settle>[2]) => settle(without, mine, chosen).lines.map((l) => l.key);
    expect(keys({})).toEqual(['line 11', 'line 12']);
    expect(keys({ 'line 12': 'mine' })).toEqual(['line 11']);
  });

  it('keep lines that I added, and make a line new that they took off', () => {
    const added = { ...typed, lines: [...typed.lines, newLine('goods', 1, 5, part)] };
    const without = { ...theirs, lines: theirs.lines.slice(1) };
    const settled = settle(added, without, {});
    expect(settled.lines.map((l) => [l.key, l.id])).toEqual([
      ['line 12', 12],
      ['line 11', undefined],
      ['new 5', undefined],
    ]);
    expect(settled.lines[1]?.splits[0]?.needId).toBeNull();
  });

  it('have nothing to settle when they say the same', () =>
    expect(differences(mine, orderText(order, names))).toEqual([]));
});
