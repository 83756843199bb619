import { parseBarcode } from 'gs1-barcode-parser-mod';
import { asDay, type Day } from '@/core/calendar/workdays';
import { isGtin } from '@/core/find/gtin';
import { done, refusal, refused, type Result } from '@/core/result';

/** What a scanner read: what the part can be called by, the surest first, how many there are, and what else it says. */
export type Scanned = {
  readonly words: readonly string[];
  readonly count: number;
  /** The lot (AI 10), the serial number (21), the day to use it by (17, else 15) and our order's number (400). */
  readonly lot?: string;
  readonly serial?: string;
  readonly expiresOn?: Day;
  readonly order?: string;
};

/** The separator that ends an element of variable length (FNC1 as scanners send it, ASCII 29). */
const FNC1 = '\u001d';

/** What scanners put before a code to say its kind (ISO/IEC 15424), where it holds GS1 elements. */
const SYMBOLOGY = /^\](C1|e0|d2|Q3|J1)/;

/** Elements as they are printed beneath a code, as scanners send them: “(01)09521101530001(10)ABC”. */
const unbracketed = (text: string): string =>
  text.startsWith('(')
    ? text
        .slice(1)
        .replaceAll(/\((\d{2,4})\)/g, `${FNC1}$1`)
        .replace(/^(\d{2,4})\)/, '$1')
    : text;

/** A GTIN is filled up with noughts to 14 figures in an element; what it is called by may be shorter. */
const callsOf = (gtin: string): string[] =>
  [gtin, gtin.slice(1), gtin.slice(2), gtin.slice(6)].filter(
    (short) => gtin.endsWith(short) && /^0*$/.test(gtin.slice(0, gtin.length - short.length)) && isGtin(short),
  );

type Element = { readonly ai: string; readonly raw: string };

/** What a code says beside the part that it is of. */
function beside(of: (...ais: readonly string[]) => readonly string[], today: Day): Omit<Scanned, 'words' | 'count'> {
  const [lot] = of('10');
  const [serial] = of('21');
  const [order] = of('400');
  const expiresOn = dayOf(of('17')[0] ?? of('15')[0], today);
  return {
    ...(lot === undefined ? {} : { lot }),
    ...(serial === undefined ? {} : { serial }),
    ...(order === undefined ? {} : { order }),
    ...(expiresOn === undefined ? {} : { expiresOn }),
  };
}

function elementsIn(text: string): readonly Element[] | undefined {
  try {
    return parseBarcode(text).parsedCodeItems;
  } catch {
    return undefined;
  }
}

/**
 * A date of an element, YYMMDD; a day of 00 is the last of its month (GS1 General Specifications, section 3.4). Its year is
 * the one of these figures from 49 years before this one to 50 after it (section 7.12, from memory).
 */
function dayOf(raw: string | undefined, today: Day): Day | undefined {
  const [, figures = '', month = '', day = ''] = /^(\d\d)(\d\d)(\d\d)$/.exec(raw ?? '') ?? [];
  if (figures === '') return undefined;
  const thisYear = Number(today.slice(0, 4));
  const apart = Number(figures) - (thisYear % 100);
  const year = thisYear + apart + (apart > 50 ? -100 : apart <= -50 ? 100 : 0);
  if (day !== '00') return asDay(`${year}-${month}-${day}`);
  const last = new Date(Date.UTC(year, Number(month), 0)).getUTCDate();
  return asDay(`${year}-${month}-${String(last).padStart(2, '0')}`);
}

const bad = (code: string, message: string) => refused(refusal(code, message));

/**
 * Reads what a scanner typed: a GTIN (8, 12, 13 or 14 figures), GS1 elements with a GTIN in them (GS1 General
 * Specifications, section 3), or a number as it is, ours or a supplier's.
 *
 * @param today - the day it is read: years of two figures are told by it
 * @returns refused for a code of which only a part came, whose check digit does not fit, or that names no part
 * @example readScan('(01)09521101530001(30)12', today) // words 09521101530001 and 9521101530001, count 12
 */
export function readScan(typed: string, today: Day): Result<Scanned> {
  const text = typed.trim();
  if (text === '') return bad('scan.nothing', 'No code was read. Scan it again.');
  const bare = text.replace(SYMBOLOGY, '');
  if (isGtin(bare)) return done({ words: callsOf(bare.padStart(14, '0')), count: 1 });
  // A code that says it has elements has to have them; any other text may be a number that only looks so.
  const says = bare !== text || bare.startsWith('(') || bare.startsWith(FNC1);
  const elements = elementsIn(unbracketed(bare).replace(new RegExp(`^${FNC1}`), ''));
  const of = (...ais: readonly string[]) => elements?.filter((e) => ais.includes(e.ai)).map((e) => e.raw) ?? [];
  const [gtin] = of('01', '02');
  if (gtin !== undefined && isGtin(gtin)) {
    const [count = '1'] = of('30', '37');
    return done({
      words: [...callsOf(gtin), ...of('240', '241')],
      count: Math.max(Number(count), 1),
      ...beside(of, today),
    });
  }
  if (!says) return done({ words: [text], count: 1 });
  if (elements === undefined) return bad('scan.part', 'The code was read only in part. Scan it again.');
  if (gtin !== undefined) return bad('scan.digit', `The check digit of ${gtin} is wrong. Scan it again.`);
  const words = of('240', '241');
  return words.length === 0 ? bad('scan.names', 'This code holds no item number.') : done({ words, count: 1 });
}
