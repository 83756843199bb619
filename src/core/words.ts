import { groupMark } from './locale/locale';

/** @example groupDigits('1234567', ',') // '1,234,567' */
export function groupDigits(digits: string, mark: string): string {
  let text = digits.slice(-3);
  for (let at = digits.length - 3; at > 0; at -= 3) text = `${digits.slice(Math.max(at - 3, 0), at)}${mark}${text}`;
  return text;
}

/** @example grouped(1200) // '1,200' */
export const grouped = (n: number): string => `${n < 0 ? '−' : ''}${groupDigits(String(Math.abs(n)), groupMark())}`;

/**
 * A number with its word, in the plural unless it is one.
 * @example counted(1, 'line') // '1 line'
 */
export const counted = (n: number, word: string): string => `${grouped(n)} ${word}${n === 1 ? '' : 's'}`;

/** @example together(['tube', 'bar', 'bolts']) // 'tube, bar and bolts' */
export const together = (words: readonly string[]): string =>
  words.length < 2 ? (words[0] ?? '') : `${words.slice(0, -1).join(', ')} and ${words.at(-1)}`;

/**
 * Some things by name, and how many more.
 * @example someOf(['tube', 'bar', 'bolts', 'nuts', 'pins']) // 'tube, bar, bolts and 2 more'
 */
export const someOf = (all: readonly string[]): string =>
  together(all.length > 4 ? [...all.slice(0, 3), `${all.length - 3} more`] : all);
