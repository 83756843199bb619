import { LIMITS, TooLarge } from '../limits';
import { ONE, PLACES, quantity, type Quantity } from '../quantity/quantity';
import { unitOf } from '../quantity/units';
import { done, refusal, refused, type Result } from '../result';
import type { Bom, BomBranch, BomLine, Boms } from './bom';
import { loopFrom } from './levels';

/** A number as it is, without rounding: `over` ÷ 10^`places`. */
type Exact = { readonly over: bigint; readonly places: number };

/** The most branches that one BOM may come to; more is a mistake, or is planned by its parts. */
export const MOST_PARTS = 50_000;

const SCRAP_PLACES = 4;
const WITHOUT_SCRAP = 10n ** BigInt(SCRAP_PLACES);

function ofLine(line: BomLine, batch: Exact): Exact {
  const each = { over: BigInt(line.quantity), places: PLACES };
  const whole = line.per === 'batch' ? each : { over: each.over * batch.over, places: each.places + batch.places };
  const grown =
    line.scrap === 0
      ? whole
      : { over: whole.over * (WITHOUT_SCRAP + BigInt(line.scrap)), places: whole.places + SCRAP_PLACES };
  return shortened(grown);
}

function shortened({ over, places }: Exact): Exact {
  let [left, at] = [over, places];
  while (at >= PLACES && left % WITHOUT_SCRAP === 0n) [left, at] = [left / WITHOUT_SCRAP, at - PLACES];
  return { over: left, places: at };
}

/** Rounded up, so that nothing is short: to four places, or to whole pieces. */
function roundedUp({ over, places }: Exact, unit: string): Quantity {
  const step = unitOf(unit).whole === true ? 0 : PLACES;
  const size = over * 10n ** BigInt(step);
  const per = 10n ** BigInt(places);
  const up = Number((size + per - 1n) / per) * 10 ** (PLACES - step);
  if (up > LIMITS.quantity) throw new TooLarge();
  return quantity(up);
}

/**
 * Works out what a batch of an item takes, over all levels of its BOM: for each branch quantity per × batch × (1 +
 * scrap). Nothing is rounded on the way down, so that what a batch takes grows evenly with it where no component is
 * needed once for the batch; each branch is rounded up by itself.
 *
 * @param bom - the BOM that the batch is made by
 * @param batch - how many are made, in ten-thousandths
 * @param boms - the BOMs of parts that are made in their turn; a part without one is made of nothing that is known
 * @returns the branches from the top down, each after the one that it belongs to; or why there is no answer
 * @example 10 ladders of 2 stringers, each of 2.4 m tube with 3 % scrap: 20 stringers, 49.44 m tube
 */
export function explode(bom: Bom, batch: Quantity, boms: Boms): Result<BomBranch[]> {
  const loop = loopFrom(bom, boms);
  if (loop !== undefined)
    return refused(refusal('bom.loop', 'This BOM contains itself. Remove one of its lines.', 'lines'));
  const parts: BomBranch[] = [];
  // What is still to be taken apart, the next at the end: branches stand in the order of their lines.
  const open: { line: BomLine; parent: number | undefined; level: number; batch: Exact }[] = [];
  const put = (lines: readonly BomLine[], parent: number | undefined, level: number, of: Exact) => {
    for (const line of lines.toReversed()) open.push({ line, parent, level, batch: of });
  };
  put(bom.lines, undefined, 1, { over: BigInt(batch), places: PLACES });
  try {
    for (let next = open.pop(); next !== undefined; next = open.pop()) {
      const { line, parent, level } = next;
      const exact = ofLine(line, next.batch);
      const own = line.gotBy === 'made' && line.itemId !== null ? boms.get(line.itemId) : undefined;
      parts.push({ parent, level, line, bom: own, quantity: roundedUp(exact, line.unit) });
      if (parts.length > MOST_PARTS)
        return refused(
          refusal(
            'bom.large',
            `This BOM has more than ${MOST_PARTS} lines over all levels. Plan its sub-assemblies separately.`,
          ),
        );
      if (own !== undefined) put(own.lines, parts.length - 1, level + 1, exact);
    }
  } catch (error) {
    if (!(error instanceof TooLarge)) throw error;
    return refused(
      refusal(
        'bom.quantity',
        `That quantity needs more of an item than can be held: the most is ${LIMITS.quantity / ONE}.`,
      ),
    );
  }
  return done(parts);
}
