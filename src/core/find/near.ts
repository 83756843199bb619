/** Words shorter than this are as likely another word as a slip. */
const LEAST = 4;

/** Whether two words differ by one letter that is wrong, missing, too much, or by two that are swapped. */
function isOneSlip(a: string, b: string): boolean {
  let from = 0;
  while (from < a.length && a[from] === b[from]) from += 1;
  let [endA, endB] = [a.length, b.length];
  while (endA > from && endB > from && a[endA - 1] === b[endB - 1]) [endA, endB] = [endA - 1, endB - 1];
  const [restA, restB] = [a.slice(from, endA), b.slice(from, endB)];
  if (restA.length <= 1 && restB.length <= 1) return true;
  return restA.length === 2 && restA === [...restB].reverse().join('');
}

/** As the index has words: in small letters, without marks. */
export const plainWord = (word: string): string => word.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase();

/** Whether a slip in a word may be forgiven: a number is meant as it is typed. */
export const mayHaveSlip = (word: string): boolean => word.length >= LEAST && !/\p{N}/u.test(word);

/**
 * Whether a word may be what was meant, or begins with it: the typed one but for one slip.
 * @example isNear('galvansing', 'galvanising') // true
 */
export const isNear = (typed: string, word: string): boolean =>
  [-1, 0, 1].some((by) => isOneSlip(typed, word.slice(0, typed.length + by)));
