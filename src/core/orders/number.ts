/**
 * Writes a document number by the company's pattern: {yy} or {yyyy} is the year, {0000} the count with at least
 * as many digits as zeros.
 *
 * @throws RangeError when the pattern has no place for the count
 * @example numberBy('K{yy}-{0000}', 2026, 187) // 'K26-0187'
 */
export function numberBy(pattern: string, year: number, count: number): string {
  if (!/\{0+\}/.test(pattern)) throw new RangeError(`“${pattern}” has no place for the count, such as {0000}.`);
  return pattern
    .replace('{yyyy}', String(year))
    .replace('{yy}', String(year).slice(-2))
    .replace(/\{(0+)\}/, (_, zeros: string) => String(count).padStart(zeros.length, '0'));
}
