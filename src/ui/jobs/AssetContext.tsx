'use client';

import { createContext, useContext, type ReactNode } from 'react';

const WorkedOnContext = createContext('');

/** What of the customer's the things under this are for; parts are looked up for it. */
export const WorkedOn = ({ words, children }: { words: string; children: ReactNode }) => (
  <WorkedOnContext.Provider value={words}>{children}</WorkedOnContext.Provider>
);

/** What parts are looked up for here, in words; empty where that is not known. */
export const useWorkedOn = (): string => useContext(WorkedOnContext);
