/** A row of a sheet, by its key: `line 12` for one that is saved, `new 3` for one that is not. */
type Keyed = { readonly key: string };

/** The number of the next new row: each has a key of its own. */
export const nextNew = (rows: readonly Keyed[]): number =>
  Math.max(-1, ...rows.map((r) => Number(/^new (\d+)$/.exec(r.key)?.[1] ?? -1))) + 1;

/** Rows with one moved to where another stands. */
export function moved<R extends Keyed>(rows: readonly R[], key: string, to: string): readonly R[] {
  const [row, onto] = [rows.find((r) => r.key === key), rows.findIndex((r) => r.key === to)];
  if (row === undefined || onto < 0) return rows;
  const rest = rows.filter((r) => r !== row);
  return [...rest.slice(0, onto), row, ...rest.slice(onto)];
}

/** Rows with a change put into one; a change to the blank row makes it the last of them. */
export function put<R extends Keyed>(
  rows: readonly R[],
  key: string,
  change: (row: R) => R,
  blank: () => R,
): readonly R[] {
  if (rows.some((r) => r.key === key)) return rows.map((r) => (r.key === key ? change(r) : r));
  const row = { ...blank(), key };
  const next = change(row);
  return JSON.stringify(next) === JSON.stringify(row) ? rows : [...rows, next];
}
