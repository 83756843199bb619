'use client';

import { createContext, useContext, type ReactNode } from 'react';
import { formatDay, howFar, type Day } from '@/core/calendar/workdays';
import type { Right } from '@/core/people/rights';

export type Yard = {
  readonly today: Day;
  readonly currency: string;
  readonly rights: readonly Right[];
  readonly week: readonly number[];
  readonly off: readonly string[];
};

const YardContext = createContext<Yard | undefined>(undefined);

export const YardProvider = ({ yard, children }: { yard: Yard; children: ReactNode }) => (
  <YardContext.Provider value={yard}>{children}</YardContext.Provider>
);

/** The day, the currency and the person's rights, which every place needs. */
export function useYard() {
  const yard = useContext(YardContext);
  if (yard === undefined) throw new Error('This stands outside the frame.');
  return {
    ...yard,
    day: (day: Day | null) => (day === null ? '–' : formatDay(day, yard.today)),
    far: (day: Day) => howFar(day, yard.today, { week: new Set(yard.week), off: new Set(yard.off) }),
    may: (right: Right) => yard.rights.includes(right),
  };
}
