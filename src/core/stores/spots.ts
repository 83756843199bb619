import { addQ, formatQuantity, least, NONE, subtractQ, type Quantity } from '../quantity/quantity';
import { done, refusal, refused, type Result } from '../result';

/** Where some of a pile lies: in a bin, or none; by its lot or serial number, or none. In the item's unit. */
export type Spot = { readonly binId: number | null; readonly lotId: number | null; readonly quantity: Quantity };

/** A spot as lists have it: the numbers that are used up first stand first. */
export type KnownSpot = Spot & { readonly bin: string; readonly expiresOn: string | null };

/** What is wanted of a pile: so much of anything, or of a lot or a serial number. */
export type Wanted = { readonly lotId: number | null; readonly binId?: number | null; readonly quantity: Quantity };

const before = (a: KnownSpot, b: KnownSpot): number =>
  (a.expiresOn ?? '~').localeCompare(b.expiresOn ?? '~') ||
  a.bin.localeCompare(b.bin, undefined, { numeric: true }) ||
  (a.lotId ?? 0) - (b.lotId ?? 0);

/**
 * Where to take goods of a pile from: what passes its date first, then bin by bin in the order in which one walks by
 * them. What is wanted by its number, or from a bin, is taken there alone.
 *
 * @returns what is taken at each spot; refused where that is more than lies there
 */
export function takeFrom(spots: readonly KnownSpot[], wanted: readonly Wanted[], name: string): Result<Spot[]> {
  const left = new Map([...spots].sort(before).map((s) => [s, s.quantity]));
  const taken: Spot[] = [];
  for (const want of wanted) {
    let missing = want.quantity;
    const fits = [...left].filter(
      ([s]) => (want.lotId === null || s.lotId === want.lotId) && (want.binId === undefined || s.binId === want.binId),
    );
    for (const [spot, there] of fits) {
      const part = least(missing, there);
      if (part <= 0) continue;
      taken.push({ binId: spot.binId, lotId: spot.lotId, quantity: part });
      left.set(spot, subtractQ(there, part));
      missing = subtractQ(missing, part);
    }
    if (missing > 0) {
      const there = addQ(NONE, ...fits.map(([, q]) => q));
      return refused(
        refusal(
          'stores.short',
          `Only ${formatQuantity(there)} of ${name} in stock there. Enter ${formatQuantity(there)} or less, or count the stock first.`,
          'quantity',
        ),
      );
    }
  }
  return done(taken);
}
