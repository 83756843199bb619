import { done, refusal, refused, type Result } from '../result';
import type { Offset } from './bom';

/**
 * Reads when a component is needed: so many working days after the start of the work, or, with a minus before them, before
 * its end. Nothing typed is the start itself.
 *
 * @example parseOffset('3') // value { days: 3, from: 'start' }
 * @example parseOffset('-2') // value { days: 2, from: 'end' }
 */
export function parseOffset(text: string): Result<Offset> {
  const bare = text.trim().replace(/^\u2212/, '-');
  if (bare === '') return done({ days: 0, from: 'start' });
  const read = /^(-?)\+?(\d{1,4})$/.exec(bare);
  if (read === null)
    return refused(
      refusal(
        'offset.wrong',
        `“${text.trim()}” isn’t a number of days. Type 3 for 3 days after the start, -2 for 2 before the end.`,
      ),
    );
  return done({ days: Number(read[2]), from: read[1] === '-' ? 'end' : 'start' });
}

/** The same as it is typed. @example offsetText({ days: 2, from: 'end' }) // '-2' */
export const offsetText = ({ days, from }: Offset): string =>
  from === 'end' ? `-${days}` : days === 0 ? '' : String(days);

/** The same in words. @example offsetWords({ days: 2, from: 'end' }) // '2 before end' */
export const offsetWords = ({ days, from }: Offset): string =>
  days === 0 ? `at ${from}` : from === 'start' ? `${days} after start` : `${days} before end`;
