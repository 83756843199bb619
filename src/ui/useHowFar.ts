'use client';

import { useEffect, useState } from 'react';
import { ask } from './ask';
import type { useOnce } from './useAct';

const EVERY = 300;

/** How far what was started under a key has come, in words, as long as it is busy. */
export function useHowFar(once: ReturnType<typeof useOnce>, busy: boolean): string | undefined {
  const [far, setFar] = useState<string>();
  useEffect(() => {
    if (!busy) return;
    const stop = new AbortController();
    const look = async () => {
      const told = await ask<{ done: number; of: number } | null>(`/progress/${once.key()}`, { signal: stop.signal });
      if (told != null && told.of > 0)
        setFar(`${told.done.toLocaleString('en-GB')} of ${told.of.toLocaleString('en-GB')}…`);
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
