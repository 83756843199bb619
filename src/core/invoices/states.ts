/** An invoice that is taken out stays on record and claims nothing. */
export const INVOICE_STATES = ['entered', 'held', 'matched', 'takenOut'] as const;
export type InvoiceState = (typeof INVOICE_STATES)[number];

/** Invoices that ask for money and are not matched yet. */
export const WAITING: readonly InvoiceState[] = ['entered', 'held'];
/** Invoices that stand: whatever they invoice cannot be invoiced again. */
export const STANDING: readonly InvoiceState[] = [...WAITING, 'matched'];
