import { isGtin } from './gtin';
import { closeness, wordsOf } from './words';

describe('a GTIN', () => {
  // 6291041500213 is the worked example of the check digit in GS1's own guide; the others are from memory.
  it.each(['6291041500213', '96385074', '036000291452', '10012345678902'])('%s is one', (text) =>
    expect(isGtin(text)).toBe(true),
  );
  it.each(['6291041500214', '629104150021', '', '96385075', '6291041500213x', '123456789012345'])(
    '%s is none',
    (text) => expect(isGtin(text)).toBe(false),
  );
  it('is none when one figure is another', () => {
    for (let at = 0; at < 13; at += 1) {
      const figures = [...'6291041500213'];
      figures[at] = String((Number(figures[at]) + 1) % 10);
      expect(isGtin(figures.join(''))).toBe(false);
    }
  });
});

describe('words', () => {
  it.each([
    ['TU-316-38', ['tu', '316', '38']],
    ['  Ölwanne, 6 mm ', ['ölwanne', '6', 'mm']],
    ['"; drop', ['drop']],
    ['---', []],
  ])('of “%s” are %s', (text, words) => expect(wordsOf(text)).toEqual(words));
  it('are few and short enough to be looked for', () => {
    expect(wordsOf('a '.repeat(100))).toHaveLength(8);
    expect(wordsOf('x'.repeat(1000))[0]).toHaveLength(40);
  });
  it.each([
    ['412', '412', 0],
    ['tu31638', 'TU-316-38', 0],
    ['tu-3', 'TU-316-38', 1],
    ['38', 'TU-316-38', 2],
    ['', 'TU', 2],
  ])('“%s” fits %s by %s', (typed, own, close) => expect(closeness(typed, own)).toBe(close));
});
