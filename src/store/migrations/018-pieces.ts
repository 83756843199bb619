/** A line of a quote that was rewritten for another number of pieces keeps how much it was written with, and for how many. */
export const name = '018-pieces';

export const up = `
ALTER TABLE quote_line ADD COLUMN basis_quantity INTEGER;
ALTER TABLE quote_line ADD COLUMN basis_pieces INTEGER;
`;
