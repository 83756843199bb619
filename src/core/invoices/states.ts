/** A bill that is taken out stays on record and claims nothing. */
export const INVOICE_STATES = ['entered', 'held', 'matched', 'takenOut'] as const;
export type InvoiceState = (typeof INVOICE_STATES)[number];

/** Bills that ask for money and are not matched yet. */
export const WAITING: readonly InvoiceState[] = ['entered', 'held'];
/** Bills that stand: whatever they bill cannot be billed again. */
export const STANDING: readonly InvoiceState[] = [...WAITING, 'matched'];
