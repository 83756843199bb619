import fc from 'fast-check';
import { cancelledLines, numbersOf } from './numbering';

type Line = { readonly id: number; readonly number: number };

describe('numbers of an order’s lines', () => {
  it('are counted from 1 as long as nothing went out', () =>
    expect(numbersOf([{ id: 7 }, {}], { lastLine: 0, lines: [{ id: 7, number: 4 }] })).toEqual([1, 2]));

  it('are kept over any revisions, and none is had by two lines ever', () => {
    const revision = fc.record({ keep: fc.array(fc.boolean()), fresh: fc.nat(4) });
    fc.assert(fc.property(fc.array(revision, { maxLength: 8 }), (course) => holdsOver(course)));
  });
});

/** Goes through revisions with a plain account beside them: which line was given which number, ever. */
function holdsOver(course: readonly { readonly keep: readonly boolean[]; readonly fresh: number }[]): void {
  const given = new Map<number, number>();
  const sent: Line[][] = [];
  let lines: Line[] = [];
  let ids = 0;
  for (const { keep, fresh } of [{ keep: [], fresh: 3 }, ...course]) {
    const next: { id?: number }[] = [
      ...lines.filter((_, k) => keep[k] ?? true),
      ...Array.from({ length: fresh }, () => ({})),
    ].reverse();
    const numbers = numbersOf(next, { lastLine: Math.max(0, ...given.values()), lines });
    lines = next.map(({ id = (ids += 1) }, k) => ({ id, number: numbers[k] ?? 0 }));
    for (const { id, number } of lines) {
      expect([undefined, number]).toContain(given.get(id));
      given.set(id, number);
    }
    expect(new Set(given.values()).size).toBe(given.size);
    sent.push(lines);
    // Each line that ever had a number is either there or cancelled, once.
    const all = [...lines, ...cancelledLines(sent, lines)].map((l) => [l.id, l.number] as const);
    expect(new Map(all)).toEqual(given);
    expect(all.length).toBe(given.size);
  }
}
