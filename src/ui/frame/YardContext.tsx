'use client';

import { createContext, useContext, useMemo, type ReactNode } from 'react';
import { formatDay, howFar, type Day } from '@/core/calendar/workdays';
import { writeAs, type Locale } from '@/core/locale/locale';
import type { Right } from '@/core/people/rights';
import type { Frame } from '@/queries/frame/frame';

export type Yard = {
  readonly today: Day;
  readonly currency: string;
  readonly rights: readonly Right[];
  readonly week: readonly number[];
  readonly off: readonly string[];
  readonly locale: Locale;
  /** Codes of units that are not offered. */
  readonly unitsUnused: readonly string[];
  /** How this person looks at lists. */
  readonly lists: Frame['lists'];
};

const YardContext = createContext<Yard | undefined>(undefined);

export function YardProvider({ yard, children }: { yard: Yard; children: ReactNode }) {
  // Everything under this writes days and numbers, on the server too, so it is said before any of it is drawn.
  writeAs(yard.locale);
  return <YardContext.Provider value={yard}>{children}</YardContext.Provider>;
}

/** The day, the currency and the person's rights, which every place needs. */
export function useYard() {
  const yard = useContext(YardContext);
  if (yard === undefined) throw new Error('This stands outside the frame.');
  const { week, off } = yard;
  const calendar = useMemo(() => ({ week: new Set(week), off: new Set(off) }), [week, off]);
  return {
    ...yard,
    calendar,
    day: (day: Day | null) => (day === null ? '–' : formatDay(day, yard.today)),
    far: (day: Day) => howFar(day, yard.today, calendar),
    may: (right: Right) => yard.rights.includes(right),
  };
}
