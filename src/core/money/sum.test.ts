import Big from 'big.js';
import fc from 'fast-check';
import { usualFor, writeAs } from '../locale/locale';
import { isSum, parseTyped, readAs } from './sum';

const read = (text: string, places = 4) => {
  const value = parseTyped(text, { places });
  return value.ok ? value.value : value.refusals.map((r) => r.code);
};
afterEach(() => writeAs(usualFor('en-GB')));

describe('a number typed', () => {
  it.each([
    ['3*12+4', 400_000],
    ['3 × 12 + 4', 400_000],
    ['4+3*12', 400_000],
    ['(4+3)*12', 840_000],
    ['60/4', 150_000],
    ['100 ÷ 3', 333_333],
    ['200/3', 666_667],
    ['2.5*4', 100_000],
    ['1,200*2', 24_000_000],
    ['10-2.5', 75_000],
    ['10−2', 80_000],
    ['-2*-3', 60_000],
    ['-5', -50_000],
    ['2*(3+(4-1))', 120_000],
    ['12', 120_000],
  ])('“%s” is %s ten-thousandths', (text, value) => expect(read(text)).toBe(value));

  it.each([
    ['3*', 'number.sum'],
    ['3**4', 'number.sum'],
    ['(3+4', 'number.sum'],
    ['3)', 'number.sum'],
    ['4/0', 'number.sum'],
    ['2*x', 'number.sum'],
    ['9999*999999', 'number.large'],
    ['9'.repeat(15) + '*' + '9'.repeat(15) + '*' + '9'.repeat(15), 'number.sum'],
    ['1+'.repeat(80) + '1', 'number.sum'],
    ['two', 'number.wrong'],
    ['', 'number.missing'],
  ])('“%s” is refused', (text, code) => expect(read(text)).toEqual([code]));

  it('takes the company’s decimal mark', () => {
    writeAs(usualFor('de-DE'));
    expect(read('2,5*4')).toBe(100_000);
    expect(read('1.250')).toBe(12_500_000);
    expect(readAs('1.250')).toBe('read as 1\u202f250, with no decimals');
    expect(readAs('2,5*1000')).toBe('= 2.500');
  });

  it('tells what was made of it only where that could be doubted', () => {
    expect(readAs('3*12+4')).toBe('= 40');
    expect(readAs('1,250')).toBe('read as 1\u202f250, with no decimals');
    expect([readAs('1250'), readAs('1.25'), readAs('-3'), readAs('3*')]).toEqual(Array(4).fill(undefined));
    expect([isSum('-3'), isSum('+3'), isSum('3-1')]).toEqual([false, false, true]);
  });

  it('comes to what big.js makes of it', () => {
    const part = fc.integer({ min: 1, max: 99_999 }).map((n) => n / 100);
    const sign = fc.constantFrom('+', '-', '*', '/' as const);
    fc.assert(
      fc.property(part, fc.array(fc.tuple(sign, part), { minLength: 1, maxLength: 3 }), (first, rest) => {
        // big.js rounds quotients; with 40 places that is far below what is kept.
        Big.DP = 40;
        const terms: [Big, Big][] = [[new Big(first), new Big(1)]];
        for (const [s, n] of rest) {
          const last = terms.at(-1) as [Big, Big];
          if (s === '+' || s === '-') terms.push([new Big(s === '+' ? n : -n), new Big(1)]);
          else if (s === '*') last[0] = last[0].times(n);
          else last[1] = last[1].times(n);
        }
        const sum = terms.reduce((all, [over, under]) => all.plus(over.div(under)), new Big(0));
        const text = `${first}${rest.map(([s, n]) => s + n).join('')}`;
        fc.pre(sum.abs().lt(1e9));
        expect(read(text, 4)).toBe(Number(sum.times(10_000).round(0, Big.roundHalfUp).toString()));
      }),
    );
  });
});
