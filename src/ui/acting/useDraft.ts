'use client';

import { useCallback, useEffect, useState } from 'react';
import { forgetInBrowser, keepInBrowser, keptInBrowser } from './keptInBrowser';

/**
 * State that is kept in the browser as it is typed, until it is dropped. `fresh` is the start when nothing was kept.
 * @returns the value, a setter, whether it came from an earlier visit, `drop` to forget what was kept, and `restart` to
 * go back to `fresh` as well
 */
export function useDraft<T>(
  name: string,
  fresh: T,
): { value: T; set: (next: T | ((now: T) => T)) => void; kept: boolean; drop: () => void; restart: () => void } {
  const [value, setValue] = useState(fresh);
  const [kept, setKept] = useState(false);
  useEffect(() => {
    const before = keptInBrowser(name);
    if (before === undefined) return;
    // eslint-disable-next-line react-hooks/set-state-in-effect -- what the browser kept is known only after the first paint
    setValue(before as T);
    setKept(true);
  }, [name]);
  const set = useCallback(
    (next: T | ((now: T) => T)) =>
      setValue((now) => {
        const then = typeof next === 'function' ? (next as (now: T) => T)(now) : next;
        keepInBrowser(name, then);
        return then;
      }),
    [name],
  );
  const drop = useCallback(() => {
    forgetInBrowser(name);
    setKept(false);
  }, [name]);
  const restart = () => {
    drop();
    setValue(fresh);
  };
  return { value, set, kept, drop, restart };
}
