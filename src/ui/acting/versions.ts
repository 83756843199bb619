/** Where two people's versions of one thing differ, each side told in words. */
export type Difference = {
  readonly key: string;
  readonly label: string;
  readonly mine: string;
  readonly theirs: string;
  /** The side that loses nothing while nobody has chosen. */
  readonly safe: Side;
};
export type Side = 'mine' | 'theirs';
export type Chosen = Readonly<Record<string, Side>>;

type Line = { readonly key: string };

/** Whether a line was never saved. */
const isNew = ({ key }: Line): boolean => key.startsWith('new');

type Telling<L> = {
  readonly told: (line: L) => string;
  /** Whether two lines that are told alike are so. */
  readonly same: (one: L, other: L) => boolean;
  /** What tells two lines apart that are told alike. */
  readonly beside: (line: L) => string;
};

/** Where two versions of lines differ, line by line; lines I added stand in no one's way. */
export function lineDifferences<L extends Line>(
  mine: readonly L[],
  theirs: readonly L[],
  { told, same, beside }: Telling<L>,
): Difference[] {
  const keys = [...new Set([...theirs, ...mine.filter((l) => !isNew(l))].map((l) => l.key))];
  return keys.flatMap((key): Difference[] => {
    const [m, t] = [mine.find((l) => l.key === key), theirs.find((l) => l.key === key)];
    if (m !== undefined && t !== undefined && same(m, t)) return [];
    const alike = m !== undefined && t !== undefined && told(m) === told(t);
    const words = (l: L | undefined) => (l === undefined ? 'not there' : alike ? `${told(l)}, ${beside(l)}` : told(l));
    return [{ key, label: 'Line', mine: words(m), theirs: words(t), safe: m === undefined ? 'theirs' : 'mine' }];
  });
}

/** The side that was chosen of a difference, or the one that loses nothing. */
export const sideOf = (differences: readonly Difference[], chosen: Chosen, key: string): Side =>
  chosen[key] ?? differences.find((d) => d.key === key)?.safe ?? 'mine';

/**
 * The lines of one version from two: for each difference the side that was chosen; lines I added stay.
 * @param over - makes of a line of mine one that is saved over theirs, or a new one where they have none
 */
export function settleLines<L extends Line>(
  mine: readonly L[],
  theirs: readonly L[],
  side: (key: string) => Side,
  over: (line: L, theirs: L | undefined) => L,
): L[] {
  const keys = [...new Set([...theirs, ...mine].map((l) => l.key))];
  return keys.flatMap((key) => {
    const [m, t] = [mine.find((l) => l.key === key), theirs.find((l) => l.key === key)];
    if (m !== undefined && isNew(m)) return [m];
    const chosen = side(key) === 'theirs' ? t : m && over(m, t);
    return chosen ?? [];
  });
}
