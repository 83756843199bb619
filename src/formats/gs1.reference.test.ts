import barcoder from 'barcoder';
import fc from 'fast-check';
import { isGtin } from '@/core/find/gtin';
import type { Day } from '@/core/calendar/workdays';
import { readScan } from './gs1';

const FNC1 = '\u001d';
const read = (text: string, today = '2026-05-12') => {
  const told = readScan(text, today as Day);
  return told.ok ? told.value : told.refusals[0]?.code;
};

describe('a GTIN', () => {
  it('has the check digit that an independent library says (barcoder)', () => {
    fc.assert(
      // Numbers that begin with a nought it takes for shorter ones.
      fc.property(fc.constantFrom(8, 12, 13, 14), fc.bigInt(10n ** 13n, 10n ** 14n - 1n), (length, number) => {
        const text = String(number).slice(0, length);
        expect(isGtin(text)).toBe(barcoder.validate(text));
      }),
      { numRuns: 2000 },
    );
  });

  it('is read however long it is, and called by without the noughts it is filled up with', () => {
    // Examples of the GS1 General Specifications, section 7.9 and figures of section 3; from memory.
    expect(read('6291041500213')).toEqual({ words: ['06291041500213', '6291041500213'], count: 1 });
    expect(read('96385074')).toEqual({
      words: ['00000096385074', '0000096385074', '000096385074', '96385074'],
      count: 1,
    });
    expect(read('614141000036')).toEqual({ words: ['00614141000036', '0614141000036', '614141000036'], count: 1 });
    expect(read('10614141000415')).toEqual({ words: ['10614141000415'], count: 1 });
  });
});

describe('element strings', () => {
  // GS1 DataMatrix Guideline, section 2.2 and GS1 General Specifications, section 3; from memory.
  it.each([
    [`(01)03453120000011(17)191125(10)ABCD1234`, ['03453120000011', '3453120000011'], 1],
    [`]d201034531200000111719112510ABCD1234`, ['03453120000011', '3453120000011'], 1],
    [`]C101095211015300013712${FNC1}10AB-123`, ['09521101530001', '9521101530001'], 12],
    [`${FNC1}010952110153000130250`, ['09521101530001', '9521101530001'], 250],
    [`(240)GL-M20`, ['GL-M20'], 1],
  ])('%j', (text, words, count) => expect(read(text)).toMatchObject({ words, count }));

  it('are read in every order, with the separator where an element has no set length', () => {
    const word = fc.stringMatching(/^[A-Z0-9-]{1,20}$/);
    const parts = fc.record({ lot: word, serial: word, count: fc.integer({ min: 1, max: 99_999_999 }) });
    fc.assert(
      fc.property(parts, fc.shuffledSubarray(['01', '10', '21', '17', '30'], { minLength: 5 }), (made, order) => {
        const value = {
          '01': '09521101530001',
          '10': made.lot,
          '21': made.serial,
          '17': '261231',
          '30': `${made.count}`,
        };
        const open = ['10', '21', '30'];
        const text = order
          .map((ai, k) => `${ai}${value[ai as '01']}${open.includes(ai) && k < order.length - 1 ? FNC1 : ''}`)
          .join('');
        const printed = order.map((ai) => `(${ai})${value[ai as '01']}`).join('');
        const expected = {
          words: ['09521101530001', '9521101530001'],
          count: made.count,
          lot: made.lot,
          serial: made.serial,
          expiresOn: '2026-12-31',
        };
        expect(read(`]C1${text}`)).toEqual(expected);
        expect(read(printed)).toEqual(expected);
      }),
    );
  });

  // A day of 00 is the last of its month: GS1 General Specifications, section 3.4.7.
  it.each([
    ['(01)09521101530001(17)260200', { expiresOn: '2026-02-28' }],
    ['(01)09521101530001(17)280200', { expiresOn: '2028-02-29' }],
    ['(01)09521101530001(15)270131', { expiresOn: '2027-01-31' }],
    ['(01)09521101530001(400)K26-0019', { order: 'K26-0019' }],
  ])('%s says %j beside its part', (text, said) => expect(read(text)).toMatchObject(said));

  it.each([
    ['', 'scan.nothing'],
    [']C10109521101530', 'scan.part'],
    ['(01)0952110153', 'scan.part'],
    ['(01)09521101530002(10)A', 'scan.digit'],
    ['(10)ABC', 'scan.names'],
    [']C1', 'scan.names'],
    ['(', 'scan.names'],
  ])('%j is refused', (text, code) => expect(read(text)).toBe(code));

  it.each(['TU-316-38', '9521101530002', '10-4', '0109521', 'ß'.repeat(500)])(
    '%j that only looks like one is a number',
    (text) => expect(read(text)).toEqual({ words: [text], count: 1 }),
  );

  // GS1 General Specifications, section 7.12: 51 and more years on is the century before, 50 and more back the next; from memory.
  it.each([
    ['760101', '2026-05-12', '2076-01-01'],
    ['770101', '2026-05-12', undefined],
    ['991231', '2026-05-12', undefined],
    ['991231', '2049-05-12', '2099-12-31'],
    ['991231', '2048-05-12', undefined],
    ['020101', '2051-05-12', '2002-01-01'],
    ['000228', '2050-05-12', '2100-02-28'],
    ['260512', '2076-05-12', undefined],
  ])('tells the century of %s, read on %s', (raw, today, day) => {
    const told = read(`(01)09521101530001(17)${raw}`, today);
    expect(typeof told === 'object' ? told.expiresOn : told).toBe(day);
  });
});
