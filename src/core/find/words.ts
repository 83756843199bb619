const MOST_WORDS = 8;
const MOST_LETTERS = 40;

/** The words of what is typed: letters and figures, parted by everything else. */
export const wordsOf = (text: string): string[] =>
  (
    text
      .normalize('NFC')
      .toLowerCase()
      .match(/[\p{L}\p{N}]+/gu) ?? []
  )
    .slice(0, MOST_WORDS)
    .map((w) => w.slice(0, MOST_LETTERS));

/** How well a thing's own number or name fits what is typed: it is it, begins with it, or merely has its words. */
export function closeness(typed: string, own: string): 0 | 1 | 2 {
  const [asked, has] = [typed, own].map((t) => wordsOf(t).join(''));
  if (asked === undefined || has === undefined || asked === '') return 2;
  if (has === asked) return 0;
  return has.startsWith(asked) ? 1 : 2;
}
