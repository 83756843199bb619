/**
 * Whether a text is a GTIN: 8, 12, 13 or 14 figures, the last of which is the check digit. From the right, every other
 * figure counts three times, and the whole is a multiple of ten (GS1 General Specifications, section 7.9).
 *
 * @example isGtin('6291041500213') // true
 */
export function isGtin(text: string): boolean {
  if (!/^(\d{8}|\d{12,14})$/.test(text)) return false;
  const figures = [...text].reverse().map(Number);
  return figures.reduce((sum, figure, k) => sum + figure * (k % 2 === 0 ? 1 : 3), 0) % 10 === 0;
}
