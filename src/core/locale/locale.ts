import type { Locale as DateWords } from 'date-fns';
import { de, enAU, enGB, enUS, fr } from 'date-fns/locale';

/** What parts a number's places from its whole. */
export type DecimalMark = '.' | ',';

export const LANGUAGES = ['en-GB', 'en-US', 'en-AU', 'de-DE', 'fr-FR'] as const;
export type Language = (typeof LANGUAGES)[number];

export const LANGUAGE_NAMES: Readonly<Record<Language, string>> = {
  'en-GB': 'English, United Kingdom',
  'en-US': 'English, United States',
  'en-AU': 'English, Australia',
  'de-DE': 'German, Germany',
  'fr-FR': 'French, France',
};

export const PAPERS = ['A4', 'LETTER'] as const;
export type Paper = (typeof PAPERS)[number];

/** How a company writes days and numbers, on screen, on paper and in files. */
export type Locale = {
  readonly language: Language;
  readonly decimalMark: DecimalMark;
  /** ISO weekday with which a week begins: 1 is Monday, 7 is Sunday. */
  readonly firstDay: 1 | 7;
  readonly paper: Paper;
};

type Ways = {
  readonly words: DateWords;
  /** How a day is told, and with its year (patterns of date-fns). */
  readonly told: string;
  readonly toldWithYear: string;
  /** How a day is written in figures. */
  readonly figures: string;
  readonly decimalMark: DecimalMark;
  readonly group: string;
  readonly firstDay: 1 | 7;
  readonly paper: Paper;
};

const ENGLISH = { decimalMark: '.', group: ',' } as const;
const A4 = { firstDay: 1, paper: 'A4' } as const;
const NARROW_SPACE = '\u202f';

/** Names of days and months are those of date-fns; order, marks and first day of the week are those of Unicode CLDR. */
export const WAYS: Readonly<Record<Language, Ways>> = {
  'en-GB': {
    words: enGB,
    told: 'EEE d MMM',
    toldWithYear: 'EEE d MMM yyyy',
    figures: 'dd/MM/yyyy',
    ...ENGLISH,
    ...A4,
  },
  'en-US': {
    words: enUS,
    told: 'EEE, MMM d',
    toldWithYear: 'EEE, MMM d, yyyy',
    figures: 'MM/dd/yyyy',
    ...ENGLISH,
    firstDay: 7,
    paper: 'LETTER',
  },
  'en-AU': {
    words: enAU,
    told: 'EEE d MMM',
    toldWithYear: 'EEE d MMM yyyy',
    figures: 'dd/MM/yyyy',
    ...ENGLISH,
    ...A4,
  },
  'de-DE': {
    words: de,
    told: 'EEEEEE d. MMM',
    toldWithYear: 'EEEEEE d. MMM yyyy',
    figures: 'dd.MM.yyyy',
    decimalMark: ',',
    group: '.',
    ...A4,
  },
  'fr-FR': {
    words: fr,
    told: 'EEE d MMM',
    toldWithYear: 'EEE d MMM yyyy',
    figures: 'dd/MM/yyyy',
    decimalMark: ',',
    group: NARROW_SPACE,
    ...A4,
  },
};

/** What a language brings along, before the company settles anything of its own. */
export const usualFor = (language: Language): Locale => ({
  language,
  decimalMark: WAYS[language].decimalMark,
  firstDay: WAYS[language].firstDay,
  paper: WAYS[language].paper,
});

/** The part of a record that says how days and numbers are written. */
export const localeOf = ({ language, decimalMark, firstDay, paper }: Locale): Locale => ({
  language,
  decimalMark,
  firstDay,
  paper,
});

type WithLocale = typeof globalThis & { kettleLocale?: Locale };

/**
 * Sets how days and numbers are written from here on, as `setDefaultOptions` of date-fns does. A program serves one
 * company, so there is one way at a time; it is held globally because a bundler may load this file more than once.
 */
export const writeAs = (locale: Locale): void => void ((globalThis as WithLocale).kettleLocale = localeOf(locale));

const EN_GB = usualFor('en-GB');
export const locale = (): Locale => (globalThis as WithLocale).kettleLocale ?? EN_GB;

/** The sign between thousands: the language's own, unless the company writes decimals with it. */
export function groupMark(): string {
  const { language, decimalMark } = locale();
  const { group } = WAYS[language];
  if (group !== decimalMark) return group;
  return decimalMark === '.' ? ',' : '.';
}

/** A number as it stands in a field, where nothing parts the thousands. */
export const ungrouped = (text: string): string => text.replaceAll(groupMark(), '');
