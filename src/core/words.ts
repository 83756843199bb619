/** @example grouped(1200) // '1,200' */
export const grouped = (n: number): string => n.toLocaleString('en-GB');

/**
 * A number with its word, in the plural unless it is one.
 * @example counted(1, 'line') // '1 line'
 */
export const counted = (n: number, word: string): string => `${grouped(n)} ${word}${n === 1 ? '' : 's'}`;
