import { useEffect, useMemo, useRef } from 'react';

export type Steps = {
  /** Before a change, so that it can be undone as one step. */
  readonly step: () => void;
  /** Takes back what came since the last `step`, if anything did. */
  readonly cancel: () => void;
  readonly undo: () => void;
  readonly redo: () => void;
};

/** Steps back and forth over a value that is kept elsewhere. */
export function useSteps<T>(value: T, set: (value: T) => void): Steps {
  const now = useRef({ value, set });
  useEffect(() => {
    now.current = { value, set };
  });
  return useMemo(() => {
    const past: T[] = [];
    const ahead: T[] = [];
    const back = () => {
      const before = past.pop();
      if (before === undefined || before === now.current.value) return before === undefined;
      ahead.push(now.current.value);
      now.current.set(before);
      return true;
    };
    return {
      step: () => {
        if (past.at(-1) !== now.current.value) past.push(now.current.value);
        ahead.length = 0;
      },
      cancel: () => void back(),
      undo: () => {
        while (!back());
      },
      redo: () => {
        const after = ahead.pop();
        if (after === undefined) return;
        past.push(now.current.value);
        now.current.set(after);
      },
    };
  }, []);
}
