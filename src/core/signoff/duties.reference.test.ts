import type { Day } from '../calendar/workdays';
import { minor } from '../money/money';
import { may, type Role } from '../people/rights';
import { maySign, signatories, stepNow, type AskedSignature, type Matter, type Signatory } from './signing';

/**
 * Separation of duties against NIST Special Publication 800-53 Revision 5, “Security and Privacy Controls for Information
 * Systems and Organizations” (2020): AC-3(2) dual authorization, AC-5 separation of duties, AC-6 least privilege, AU-10
 * non-repudiation. The controls are named and paraphrased from memory; the cases are ours.
 */
const TODAY = '2026-05-12' as Day;
const person = (id: number, name: string, ...roles: Role[]): Signatory => ({ id, name, roles });
const [MINA, ASHA, TOMAS, IDA, WREN] = [
  person(1, 'Mina', 'buyer'),
  person(2, 'Asha', 'lead'),
  person(3, 'Tomas', 'manager'),
  person(4, 'Ida', 'accounts'),
  person(5, 'Wren', 'administrator'),
];

const waits = (place: number, change: Partial<AskedSignature> = {}): AskedSignature => ({
  place,
  by: { kind: 'role', role: 'manager' },
  handedTo: null,
  state: 'waiting',
  decidedBy: null,
  forId: null,
  ...change,
});

const matter = (change: Partial<Matter> = {}): Matter => ({
  number: 'K26-0031',
  value: minor(418_000),
  currency: 'GBP',
  writers: new Map([[1, minor(0)]]),
  asked: [],
  people: [MINA, ASHA, TOMAS, IDA, WREN],
  deputies: [],
  today: TODAY,
  ...change,
});

const may1 = (id: number, asked: AskedSignature, change: Partial<Matter> = {}) => {
  const result = maySign(id, asked, matter(change));
  return result.ok ? result.value : result.refusals[0]?.code;
};

const byPerson = (personId: number) => ({ by: { kind: 'person', personId } }) as const;
const deputy = (personId: number, deputyId: number, toDay = '2026-05-15') => ({
  personId,
  deputyId,
  fromDay: '2026-05-11' as Day,
  toDay: toDay as Day,
});
const signed = (place: number, decidedBy: number, forId: number | null = null) =>
  waits(place, { state: 'signed', decidedBy, forId });

describe('AC-5 separation of duties: who raises an order does not approve it', () => {
  it.each([
    ['the one who raised it, named', 1, waits(1, byPerson(1)), {}, 'signOff.own'],
    ['the one who raised it, by a role', 3, waits(1), { writers: new Map([[3, minor(0)]]) }, 'signOff.own'],
    [
      'somebody who only changed it',
      3,
      waits(1),
      {
        writers: new Map([
          [1, minor(0)],
          [3, minor(0)],
        ]),
      },
      'signOff.own',
    ],
    ['the one who raised it, as a deputy', 1, waits(1), { deputies: [deputy(3, 1)] }, 'signOff.own'],
    ['the one who raised it, to whom it was handed on', 1, waits(1, { handedTo: 1 }), {}, 'signOff.own'],
    ['one minor unit above the limit', 3, waits(1), { writers: new Map([[3, minor(417_999)]]) }, 'signOff.own'],
    ['at the limit that the company gave', 3, waits(1), { writers: new Map([[3, minor(418_000)]]) }, null],
    ['somebody else', 3, waits(1), {}, null],
  ] as const)('%s', (_, id, asked, change, outcome) => expect(may1(id, asked, change)).toBe(outcome));

  it('who sets the ladder neither raises nor sends orders', () => {
    expect(may({ roles: ['administrator'] }, 'manage people')).toBe(true);
    expect(may({ roles: ['administrator'] }, 'draft orders')).toBe(false);
    expect(may({ roles: ['administrator'] }, 'send orders')).toBe(false);
  });
});

describe('AC-3(2) dual authorization: two steps take two people', () => {
  it.each([
    ['signed as oneself, then for another', 4, [signed(1, 4), waits(2)], 'signOff.twice'],
    ['signed for another, then for a third', 4, [signed(1, 4, 2), waits(2)], 'signOff.twice'],
    ['signed for nobody yet', 4, [signed(1, 2), waits(2)], 3],
  ] as const)('%s', (_, id, asked, outcome) =>
    expect(may1(id, waits(2), { asked, deputies: [deputy(3, 4)] })).toBe(outcome),
  );

  it('somebody who holds two steps in their own right signs both', () =>
    expect(may1(3, waits(2), { asked: [signed(1, 3), waits(2)] })).toBeNull());
});

describe('AC-6 least privilege: nobody signs what is not theirs', () => {
  it.each([
    ['another role', 4, waits(1), 'signOff.notYours'],
    ['another person', 2, waits(1, byPerson(3)), 'signOff.notYours'],
    ['who handed it on', 3, waits(1, { handedTo: 4 }), 'signOff.notYours'],
    ['to whom it was handed on', 4, waits(1, { handedTo: 4 }), null],
    ['somebody who signs no orders', 9, waits(1, byPerson(9)), 'signOff.right'],
  ] as const)('%s', (_, id, asked, outcome) => expect(may1(id, asked)).toBe(outcome));

  it('a deputy signs on their days only, in the other’s name', () => {
    expect(may1(4, waits(1, byPerson(3)), { deputies: [deputy(3, 4)] })).toBe(3);
    expect(may1(4, waits(1, byPerson(3)), { deputies: [deputy(3, 4, '2026-05-11')] })).toBe('signOff.notYours');
  });

  it('a deputy’s deputy signs for the first', () =>
    expect(may1(5, waits(1, byPerson(3)), { deputies: [deputy(3, 4), deputy(4, 5)] })).toBe(3));
});

describe('AU-10 non-repudiation: what is signed says by whom, for whom, and in which sequence', () => {
  it('only the first open step is signed', () => {
    expect(stepNow([signed(1, 2), waits(2), waits(3)])).toBe(2);
    expect(stepNow([waits(2), waits(1)])).toBe(1);
    expect(stepNow([signed(1, 2)])).toBeUndefined();
  });

  it('everybody who may sign is known by name, and who raised it is not among them', () => {
    const all = signatories(waits(1), matter({ writers: new Map([[3, minor(0)]]), deputies: [deputy(3, 4)] }));
    expect(all.map((p) => p.name)).toEqual(['Ida']);
  });
});
