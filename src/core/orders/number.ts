import { refusal, type Refusal } from '../result';

/** What a pattern for numbers can say of an order. */
export type Numbered = {
  readonly year: number;
  readonly count: number;
  /** The jobs it is for, by number; none when it is for stores. */
  readonly jobs: readonly string[];
};

const COUNT = /\{0+\}/;
const SEVERAL = 'X';
const STORES = 'S';

/**
 * Writes a document number by the company's pattern: {yy} or {yyyy} is the year, {0000} the count with at least as many
 * digits as zeros, {job} the job's number, X for several jobs and S for stores; anything else stands as it is.
 *
 * @throws RangeError when the pattern has no place for the count
 * @example numberBy('K{yy}-{0000}', { year: 2026, count: 187, jobs: ['412'] }) // 'K26-0187'
 */
export function numberBy(pattern: string, { year, count, jobs }: Numbered): string {
  if (!COUNT.test(pattern)) throw new RangeError(`“${pattern}” has no place for the count. Type it like {yy}-{0000}.`);
  const job = jobs.length > 1 ? SEVERAL : (jobs[0] ?? STORES);
  return pattern
    .replace('{yyyy}', String(year))
    .replace('{yy}', String(year).slice(-2))
    .replace('{job}', job)
    .replace(COUNT, (zeros) => String(count).padStart(zeros.length - 2, '0'));
}

/**
 * What stands before and after the count in the numbers of a year, by the company's pattern.
 *
 * @example around('J{yy}-{000}', 2026) // { before: 'J26-', after: '', digits: 3 }
 */
export function around(pattern: string, year: number): { before: string; after: string; digits: number } {
  const [before = '', after = ''] = pattern
    .replace('{yyyy}', String(year))
    .replace('{yy}', String(year).slice(-2))
    .split(COUNT);
  return { before, after, digits: (COUNT.exec(pattern)?.[0].length ?? 3) - 2 };
}

/** What keeps words from being the number of an order: it stands in addresses, names of files and subjects of mails. */
export const numberFault = (number: string): Refusal | undefined =>
  /^[\p{L}\p{N}][\p{L}\p{N}._-]*$/u.test(number)
    ? undefined
    : refusal('order.number', 'Use only letters, digits, dots, dashes and underscores.', 'number');
