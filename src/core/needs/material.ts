import type { Day } from '../calendar/workdays';
import { counted } from '../words';

/** What of a job's material is there, line by line. */
export type Material = {
  /** Lines of goods that are needed, and those of them that keep work from starting. */
  readonly lines: number;
  readonly missing: number;
  /** Of the missing, those that are not all ordered yet, and those that are ordered without a day. */
  readonly toOrder: number;
  readonly undated: number;
  /** The last day that the rest of them is promised for, or wanted; null where none has a day. */
  readonly promisedOn: Day | null;
  /** Since when nothing is missing; null as long as something is. */
  readonly readyOn: Day | null;
};

/**
 * What is said of a job's material.
 * @param told - how a day reads
 * @example “2 of 14 lines missing: 1 to order, the rest by Tue 3 Mar”
 */
export function materialInWords(m: Material, told: (day: Day) => string): string {
  if (m.missing === 0) return m.readyOn === null ? 'complete' : `complete since ${told(m.readyOn)}`;
  const by = m.promisedOn === null ? '' : told(m.promisedOn);
  const rest = m.toOrder + m.undated;
  const parts = [
    m.toOrder > 0 && `${m.toOrder} to order`,
    m.undated > 0 && `${m.undated} with no date`,
    by !== '' && (rest === 0 ? `all expected by ${by}` : `rest expected by ${by}`),
  ].filter(Boolean);
  const of = m.missing === m.lines ? `all ${counted(m.lines, 'line')}` : `${m.missing} of ${counted(m.lines, 'line')}`;
  return `${m.lines === 1 ? '1 line' : of} outstanding: ${parts.join(', ')}`;
}
