/** What each column of a sheet holds, by what its heading says: the first that fits, each column once, in the order asked. */
export function columnsOf<F extends string>(
  headings: readonly string[],
  asked: Readonly<Record<F, RegExp>>,
): Partial<Record<F, number>> {
  const taken = new Set<number>();
  const found: Partial<Record<F, number>> = {};
  for (const field of Object.keys(asked) as F[]) {
    const column = headings.findIndex((h, k) => !taken.has(k) && asked[field].test(h.trim()));
    if (column < 0) continue;
    taken.add(column);
    found[field] = column;
  }
  return found;
}

/** A row of a sheet; `row` is counted as a spreadsheet does: the headings are row 1. */
export type Row = { readonly row: number; readonly cells: readonly string[] };

/** Why a row is left out. */
export type RowLeft = { readonly row: number; readonly message: string };

/** Letters as they are compared: without blanks around them, small. */
export const folded = (text: string): string => text.trim().toLowerCase();
