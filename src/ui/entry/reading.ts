import type { Result } from '@/core/result';
import type { Named } from './column';

/** Something picked, or words that stand for nothing that is known. */
export type PickedText = { readonly thing: Named | null; readonly words: string };
export const chosen = (thing: Named | null, words = ''): PickedText => ({ thing, words });
export const NOT_CHOSEN = chosen(null);

/** How a choice is written in its cell. */
export const wordsOfChoice = ({ thing, words }: PickedText): string =>
  thing === null ? words : [thing.number, thing.name].filter(Boolean).join(' ');

export type Fault = { readonly field: string; readonly message: string };

/** Reads what was typed into a sheet; what cannot be read is told by field, as `lines.2.price`. */
export function beginReading() {
  const faults: Fault[] = [];
  const say = (field: string, message: string) => void faults.push({ field, message });
  return {
    faults,
    say,
    take: <T>(field: string, read: Result<T>, instead: T): T => {
      if (read.ok) return read.value;
      say(field, read.refusals[0]?.message ?? '');
      return instead;
    },
    /** The id of what was chosen; `missing` is said when nothing was. */
    idOf: (field: string, { thing, words }: PickedText, missing?: string): number | null => {
      if (thing === null && words !== '') say(field, `“${words}” isn’t in the list. Choose one, or add it.`);
      else if (thing === null && missing !== undefined) say(field, missing);
      return thing?.id ?? null;
    },
    unit: (field: string, words: string) => {
      if (words !== '') say(field, `“${words}” isn’t a unit in use. Choose one, or add it under Units.`);
    },
  };
}

/** What is said while one still types: words that stand for nothing. The rest is told once saving was tried. */
export const unknownWords = (faults: readonly Fault[]): Fault[] => faults.filter((f) => f.message.startsWith('“'));

/** Faults of one row of a sheet, by column: `columns` tells which column a field stands in. */
export const faultsIn = (
  faults: readonly { readonly field?: string; readonly message: string }[],
  at: string,
  columns: Readonly<Record<string, string>>,
): Record<string, string> =>
  Object.fromEntries(
    Object.entries(columns).flatMap(([field, column]) => {
      const fault = faults.find((f) => f.field === `${at}.${field}`);
      return fault === undefined ? [] : [[column, fault.message]];
    }),
  );

/** What stands in the way, told where the next action is: the first fault with its line, and how many more there are. */
export function standing(
  faults: readonly { readonly field?: string; readonly message: string }[],
  lineOf: (k: number) => number = (k) => k + 1,
): string | undefined {
  const [first, ...rest] = faults;
  if (first === undefined) return undefined;
  const line = /^lines\.(\d+)/.exec(first.field ?? '');
  const where = line === null ? '' : `Line ${lineOf(Number(line[1]))}: `;
  return `${where}${first.message}${rest.length === 0 ? '' : ` And ${rest.length} more to correct.`}`;
}
