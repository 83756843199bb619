/** What a label says to a scanner: Code 128 (ISO/IEC 15417), or QR code (ISO/IEC 18004). */
export const LABEL_CODES = ['bars', 'square'] as const;

/** One label on a page of its own, or fourteen on a sheet of A4. */
export const LABEL_SHEETS = ['roll', 'a4'] as const;

export type LabelWay = {
  readonly code: (typeof LABEL_CODES)[number];
  readonly sheet: (typeof LABEL_SHEETS)[number];
};
