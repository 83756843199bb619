type Numbered = { readonly id: number; readonly number: number };
type Told = { readonly id?: number | undefined; readonly number: number };

/**
 * Numbers of an order's lines, as they stand on its paper. Before an order is sent its lines are counted from 1; after
 * that a line keeps its number, and a new one gets the next that no line had.
 *
 * @param lines - as they are to be; those without an id are new
 * @param order - its lines as they are stored, and the highest number that went out, 0 for none
 * @returns a number for each line, in order
 */
export function numbersOf(
  lines: readonly { readonly id?: number | undefined }[],
  order: { readonly lastLine: number; readonly lines: readonly Numbered[] },
): number[] {
  const kept = new Map(order.lastLine === 0 ? [] : order.lines.map((l) => [l.id, l.number]));
  let last = order.lastLine;
  return lines.map(({ id }) => kept.get(id ?? 0) ?? (last += 1));
}

/**
 * Lines that an order was sent with and does not have any more, each as it was sent last.
 * @param sent - the lines of all that was sent, the first first
 */
export function cancelledLines<L extends Told>(sent: readonly (readonly L[])[], now: readonly Told[]): L[] {
  const kept = new Set(now.map((l) => l.id));
  const gone = new Map(sent.flat().map((l) => [l.id, l]));
  return [...gone.values()].filter((l) => !kept.has(l.id)).sort((a, b) => a.number - b.number);
}
