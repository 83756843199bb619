/**
 * A number with its word, in the plural unless it is one.
 * @example counted(1, 'line') // '1 line'
 */
export const counted = (n: number, word: string): string => `${n.toLocaleString('en-GB')} ${word}${n === 1 ? '' : 's'}`;
