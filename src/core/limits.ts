/**
 * How large what people enter may be. The largest document stays a thousand times below what a number keeps exactly,
 * so that sums over a company's documents do too.
 */
export const LIMITS = {
  /** In ten-thousandths of a unit: ten million units. Nothing on a job is bought in larger numbers. */
  quantity: 100_000_000_000,
  /** In ten-thousandths of a currency's major unit, for the price quantity: a hundred million. */
  price: 1_000_000_000_000,
  /** What a price may be for: per 1, 100, 1000. */
  priceQuantity: 100_000,
  /** Net amount of one line, in minor units. */
  line: 100_000_000_000,
  /** Total of one document, in minor units. */
  document: 1_000_000_000_000,
  /** Lines of one order, and of what is filled in at a time on a quote or a buy list. */
  sheetLines: 1000,
  /** What may stand on one cost code of a job, in minor units. */
  account: 100_000_000_000_000,
  /** Either side of a conversion between two units. */
  factor: 1_000_000,
  /** Bytes of a file that is brought in. */
  file: 8 * 1024 * 1024,
  /** Bytes of a file that goes with an order, and of all that go with one mail. */
  attached: 20 * 1024 * 1024,
  /** Bytes of a photo or a paper of a delivery. */
  paper: 15 * 1024 * 1024,
  mail: 25 * 1024 * 1024,
} as const;

/** A figure that cannot be kept exactly. An action that meets it is refused as a whole. */
export class TooLarge extends RangeError {
  constructor() {
    super('The amount is too large. Check quantity and price.');
  }
}
