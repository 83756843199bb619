import fc from 'fast-check';
import { isNear, mayHaveSlip, plainWord } from './near';

const word = fc.string({ unit: fc.constantFrom(...'abcdefghij'), minLength: 4, maxLength: 12 });

describe('a word with a slip', () => {
  it.each([
    ['galvansing', 'galvanising', true],
    ['galvanisign', 'galvanising', true],
    ['galvaniding', 'galvanising', true],
    ['bearring', 'bearing', true],
    ['baering', 'bearing', true],
    ['bera', 'bearing', true],
    ['pelam', 'pellam', true],
    ['paint', 'plate', false],
    ['bolts', 'bearing', false],
  ])('“%s” may mean %s: %s', (typed, meant, near) => expect(isNear(typed, meant)).toBe(near));

  it('is near whatever letter is wrong, missing or too much, and whichever two are swapped', () =>
    fc.assert(
      fc.property(word, fc.nat(20), fc.constantFrom(...'abcxyz'), (meant, k, letter) => {
        const at = k % meant.length;
        const [before, after] = [meant.slice(0, at), meant.slice(at + 1)];
        const swapped = before + (meant[at + 1] ?? '') + (meant[at] ?? '') + meant.slice(at + 2);
        for (const typed of [before + letter + after, before + after, before + letter + meant.slice(at), swapped])
          expect([typed, isNear(typed, meant)]).toEqual([typed, true]);
      }),
    ));

  it('is not sought of numbers and short words', () =>
    expect(['K26', '4120', 'nut', 'bolt', 'M12x40'].map(mayHaveSlip)).toEqual([false, false, false, true, false]));

  it('is without marks', () => expect(plainWord('Ölwänne')).toBe('olwanne'));
});
