/** The words that anything is found by, one by one, so that one typed with a slip finds what was meant. */
export const name = '019-near';

export const up = `
CREATE VIRTUAL TABLE find_word USING fts5vocab(find, 'row');
`;
