import { quantity, type Quantity } from '../quantity/quantity';
import {
  invoicedChargeFaults,
  orderChanges,
  reviseFault,
  revisionFaults,
  type RevisedLine,
  type SentLine,
  type ToldOrder,
} from './revising';

const q = (n: number): Quantity => quantity(n * 10_000);
const sent = (change: Partial<SentLine> = {}): SentLine => ({
  id: 1,
  description: 'Hose',
  kind: 'goods',
  itemId: 5,
  unit: 'MTR',
  quantity: q(12),
  received: q(0),
  held: q(0),
  givenUp: q(0),
  invoiced: q(0),
  claimed: q(0),
  traced: false,
  ended: false,
  splits: [{ id: 11, jobId: 7, costCodeId: 3, quantity: q(12), received: q(0), givenUp: q(0), invoiced: q(0) }],
  ...change,
});
const as = (change: Partial<RevisedLine> = {}): RevisedLine => ({
  id: 1,
  kind: 'goods',
  itemId: 5,
  unit: 'MTR',
  quantity: q(12),
  splits: [{ id: 11, jobId: 7, costCodeId: 3, quantity: q(12) }],
  ...change,
});
const part = (change: Partial<SentLine['splits'][number]>) => [
  { id: 11, jobId: 7, costCodeId: 3, quantity: q(12), received: q(0), givenUp: q(0), invoiced: q(0), ...change },
];
const held = { held: q(8), traced: true };
const came = { received: q(5), traced: true, splits: part({ received: q(5) }) };

describe('a revision', () => {
  it.each([
    ['changes what nothing came of as it likes', sent(), [as({ unit: 'C62', itemId: null, quantity: q(1) })], []],
    ['takes a line off that nothing came of', sent(), [], []],
    ['keeps a line that something came of', sent(came), [], ['revise.gone']],
    ['keeps a line whose receipt was taken back', sent({ traced: true }), [], ['revise.gone']],
    ['goes down to what came', sent(came), [as({ quantity: q(5), splits: part({ quantity: q(5) }) })], []],
    ['goes no lower than what came', sent(came), [as({ quantity: q(4) })], ['revise.less']],
    [
      'goes no lower than what is invoiced and claimed',
      sent({ invoiced: q(3), claimed: q(4), traced: true }),
      [as({ quantity: q(6) })],
      ['revise.less'],
    ],
    [
      'goes no lower than what is held at the door',
      sent({ ...held, received: q(1) }),
      [as({ quantity: q(8) })],
      ['revise.less'],
    ],
    ['goes down to what is held at the door', sent(held), [as({ quantity: q(8) })], []],
    [
      'goes no lower than what came with what went back for credit',
      sent({ ...came, givenUp: q(2) }),
      [as({ quantity: q(6) })],
      ['revise.less'],
    ],
    ['leaves what came what it is', sent(came), [as({ itemId: 6 })], ['revise.other']],
    ['leaves a part that came with its job', sent(came), [as({ splits: part({ jobId: 8 }) })], ['revise.part']],
    [
      'leaves a part that came as large as that',
      sent(came),
      [as({ splits: [...part({ quantity: q(4) }), { jobId: 8, costCodeId: 3, quantity: q(8) }] })],
      ['revise.part'],
    ],
    [
      'shares what is outstanding with another job',
      sent(came),
      [as({ splits: [...part({ quantity: q(6) }), { jobId: 8, costCodeId: 3, quantity: q(6) }] })],
      [],
    ],
    ['leaves a line that has ended', sent({ ended: true }), [as({ quantity: q(13) })], ['revise.ended']],
    ['adds lines', sent(), [as(), as({ id: undefined })], []],
  ] as const)('%s', (_, before, after, codes) =>
    expect(revisionFaults([before], after as readonly RevisedLine[]).map((f) => f.code)).toEqual(codes),
  );

  it('keeps the jobs that an invoiced charge follows', () => {
    const charge = sent({ id: 2, kind: 'charge', description: 'Carriage', traced: true, splits: part({ id: 21 }) });
    expect(invoicedChargeFaults([charge], [{ id: 2, splits: [{ id: 21 }, { id: undefined }] }])).toEqual([]);
    expect(invoicedChargeFaults([charge], [{ id: 2, splits: [{ id: 22 }] }]).map((f) => f.code)).toEqual([
      'revise.charge',
    ]);
    expect(invoicedChargeFaults([{ ...charge, traced: false }], [])).toEqual([]);
  });

  it('is of an order that is with its supplier', () => {
    expect(reviseFault({ number: 'K1', state: 'partIn' })).toBeUndefined();
    for (const state of ['drafting', 'sending', 'settled', 'cancelled'] as const)
      expect(reviseFault({ number: 'K1', state })?.code).toBe('order.state');
  });
});

describe('what a revision changes', () => {
  const told = (lines: ToldOrder['lines'], wanted = 'Tue'): ToldOrder => ({
    terms: { 'Required by': wanted, Carrier: 'Van' },
    lines,
  });
  const hose = { id: 1, number: 1, name: 'Hose', says: { Quantity: '12 m', Price: '8.00' } };
  const clamp = { id: 2, number: 2, name: 'Clamp', says: { Quantity: '9', Price: '3.33' } };

  it('is told term by term and line by line', () => {
    const revised = told(
      [
        { ...clamp, says: { ...clamp.says, Quantity: '10' } },
        { number: 3, name: 'Seal', says: { Quantity: '1' } },
      ],
      'Wed',
    );
    expect(orderChanges(told([hose, clamp]), revised)).toEqual([
      { number: 0, how: 'term', name: 'Required by', changes: [{ what: 'Required by', was: 'Tue', is: 'Wed' }] },
      { number: 2, how: 'changed', name: 'Clamp', changes: [{ what: 'Quantity', was: '9', is: '10' }] },
      { number: 3, how: 'new', name: 'Seal', changes: [{ what: 'Quantity', was: '', is: '1' }] },
      {
        number: 1,
        how: 'gone',
        name: 'Hose',
        changes: [
          { what: 'Quantity', was: '12 m', is: '' },
          { what: 'Price', was: '8.00', is: '' },
        ],
      },
    ]);
  });

  it('is nothing where only the order of the lines is another', () =>
    expect(orderChanges(told([hose, clamp]), told([clamp, hose]))).toEqual([]));
});
