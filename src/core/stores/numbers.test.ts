import fc from 'fast-check';
import { quantity } from '../quantity/quantity';
import { expandRange, numbersFault, patternFault, readNumbered, readNumbers } from './numbers';

const read = (text: string) => {
  const found = readNumbers(text);
  return found.ok ? found.value : found.refusals[0]?.code;
};
const q = (n: number) => quantity(n * 10_000);

describe('serial numbers as they are typed', () => {
  it.each([
    ['', []],
    ['SN-1', ['SN-1']],
    ['SN-1\nSN-2\r\nSN-3', ['SN-1', 'SN-2', 'SN-3']],
    ['SN-1, SN-2; SN-3\tSN-4', ['SN-1', 'SN-2', 'SN-3', 'SN-4']],
    ['SN-098…SN-101', ['SN-098', 'SN-099', 'SN-100', 'SN-101']],
    ['SN-2041..2043', ['SN-2041', 'SN-2042', 'SN-2043']],
    ['A7 to A9, B1', ['A7', 'A8', 'A9', 'B1']],
    ['SN-1\nsn-1', 'numbers.twice'],
    ['SN-1…SN-3, SN-2', 'numbers.twice'],
    ['SN-9…SN-3', 'numbers.range'],
    ['SN-1…XN-3', 'numbers.range'],
    ['SN-A…SN-B', 'numbers.range'],
    ['1…9999999', 'numbers.many'],
    ['x'.repeat(61), 'numbers.long'],
  ] as const)('%j are %j', (text, expected) => expect(read(text)).toEqual(expected));

  /** An independent expansion: a row of figures counted on digit by digit, as an odometer does. */
  const onward = (digits: string): string => {
    const row = [...digits];
    for (let k = row.length - 1; k >= 0; k -= 1) {
      if (row[k] !== '9') {
        row[k] = String(Number(row[k]) + 1);
        return row.join('');
      }
      row[k] = '0';
    }
    return `1${row.join('')}`;
  };
  it('count on as an odometer does, whatever stands before them', () => {
    const before = fc.stringMatching(/^[A-Z]{0,3}[-/]?$/);
    fc.assert(
      fc.property(
        before,
        fc.integer({ min: 0, max: 99_000 }),
        fc.integer({ min: 0, max: 60 }),
        fc.nat(7),
        (p, n, more, wide) => {
          const first = String(n).padStart(wide, '0');
          const expected = [first];
          for (let k = 0; k < more; k += 1) expected.push(onward(expected.at(-1) ?? ''));
          const range = expandRange(p + first, p + (expected.at(-1) ?? ''));
          expect(range.ok && range.value).toEqual(expected.map((e) => p + e));
        },
      ),
    );
  });

  it.each([
    ['SN-2041', 'SN-9999', true],
    ['sn-2041', 'SN-9999', true],
    ['SN-20A1', 'SN-9999', false],
    ['SN-2041x', 'SN-9999', false],
    ['AB12', 'AA**', true],
    ['A-12', 'AA**', false],
    ['whatever', '', true],
  ])('%s against %s fits: %s', (number, pattern, fits) =>
    expect(patternFault(number, pattern) === undefined).toBe(fits),
  );
});

describe('lots as they are typed', () => {
  const lots = (text: string) => {
    const found = readNumbered('lot', text, '2027-01-31', q(12));
    return found.ok ? found.value.map((l) => [l.number, l.quantity / 10_000, l.expiresOn]) : found.refusals[0]?.code;
  };
  it.each([
    ['', []],
    ['L-7', [['L-7', 12, '2027-01-31']]],
    [
      'L-7: 8\nL-8: 4',
      [
        ['L-7', 8, '2027-01-31'],
        ['L-8', 4, '2027-01-31'],
      ],
    ],
    ['L-7\nL-8: 4', 'numbers.lots'],
    ['L-7: many', 'numbers.lots'],
  ] as const)('%j are %j', (text, expected) => expect(lots(text)).toEqual(expected));
});

describe('numbers against what moves', () => {
  const item = { name: 'Pump', tracking: 'serial' as const, numberPattern: '' };
  const numbered = (...n: string[]) => n.map((number) => ({ number, expiresOn: null, quantity: q(1) }));
  it.each([
    [2, numbered('A', 'B'), undefined],
    [2, numbered('A'), 'Pump: enter 2 serial numbers (1 so far).'],
    [1, [], 'Pump: enter 1 serial number (none so far).'],
    [1, numbered('A', 'B'), 'Pump: enter 1 serial number (2 so far).'],
    [1, [{ number: 'A', expiresOn: null, quantity: q(2) }], 'A is one piece: enter quantity 1.'],
    [1, numbered(' '), 'A number of Pump is empty or too long.'],
  ])('%d pieces with %j: %s', (moved, numbers, words) =>
    expect(numbersFault(item, q(moved), numbers)?.message).toBe(words),
  );
  it('are asked of nothing that has none', () =>
    expect(numbersFault({ ...item, tracking: 'none' }, q(1), numbered('A'))?.code).toBe('numbers.none'));
});
