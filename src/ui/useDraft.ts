'use client';

import { useCallback, useEffect, useState } from 'react';

const PREFIX = 'kettle draft ';

/** A browser that has no room left, or may keep nothing, still lets one type: it stands on the page until it is saved. */
function keepInBrowser(key: string, value: unknown): void {
  try {
    localStorage.setItem(key, JSON.stringify(value));
  } catch (error) {
    if (!(error instanceof DOMException)) throw error;
  }
}

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
    const text = localStorage.getItem(PREFIX + name);
    if (text === null) return;
    try {
      // eslint-disable-next-line react-hooks/set-state-in-effect -- what the browser kept is known only after the first paint
      setValue(JSON.parse(text) as T);
      setKept(true);
    } catch {
      localStorage.removeItem(PREFIX + name);
    }
  }, [name]);
  const set = useCallback(
    (next: T | ((now: T) => T)) =>
      setValue((now) => {
        const then = typeof next === 'function' ? (next as (now: T) => T)(now) : next;
        keepInBrowser(PREFIX + name, then);
        return then;
      }),
    [name],
  );
  const drop = useCallback(() => {
    localStorage.removeItem(PREFIX + name);
    setKept(false);
  }, [name]);
  const restart = () => {
    drop();
    setValue(fresh);
  };
  return { value, set, kept, drop, restart };
}
