'use client';

import { useEffect, useState } from 'react';
import { ask } from './ask';
import type { useOnce } from './useAct';

const EVERY = 300;

type HowFar = { readonly done: number; readonly of: number };

/** How far what was started under a key has come, as long as it is busy. */
export function useHowFar(once: ReturnType<typeof useOnce>, busy: boolean): HowFar | undefined {
  const [far, setFar] = useState<HowFar>();
  useEffect(() => {
    if (!busy) return;
    const stop = new AbortController();
    const look = async () => {
      const told = await ask<HowFar | null>(`/progress/${once.key()}`, { signal: stop.signal });
      if (told != null && told.of > 0) setFar(told);
    };
    const timer = setInterval(() => void look(), EVERY);
    return () => {
      clearInterval(timer);
      stop.abort();
      setFar(undefined);
    };
  }, [once, busy]);
  return far;
}
