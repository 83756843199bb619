/** Columns are called what the trade calls what they hold. */
export const name = '015-names';

export const up = `
ALTER TABLE order_line RENAME COLUMN billed TO invoiced;
ALTER TABLE order_line RENAME COLUMN bills_ended TO invoices_ended;
ALTER TABLE split RENAME COLUMN billed TO invoiced;
ALTER TABLE split RENAME COLUMN billed_amount TO invoiced_amount;
`;
