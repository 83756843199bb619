import { useCallback, useEffect, useRef, useState } from 'react';
import { toast } from 'sonner';
import { useDraft } from '../acting/useDraft';
import { useSteps, type Steps } from './useSteps';

/** Something as it was saved last, or as it is typed since, with the version it was typed over. */
export type Kept<T> = { readonly version: number; readonly value: T };

export type Typed<T> = Kept<T> & {
  readonly steps: Steps;
  readonly set: (change: (value: T) => T) => void;
  /** Stands for all that is typed. */
  readonly keep: (kept: Kept<T>) => void;
  /** Goes back to what is saved; it can be undone for a while. */
  readonly putBack: () => void;
  /** What is typed was saved as this version; it stands until the page shows that. */
  readonly savedAs: (version: number) => void;
  /** It was saved, and the page does not show that yet: saving again would say what was said. */
  readonly waits: boolean;
  /** The version that it was saved as, as long as it waits. */
  readonly saved: number | undefined;
};

/** What is typed over something saved: kept in the browser until it is saved or put back, and undone step by step. */
export function useTyped<T>(name: string, saved: Kept<T>): Typed<T> {
  const draft = useDraft<Kept<T> | null>(name, null);
  const { set: keep, drop } = draft;
  const [done, setDone] = useState<number>();
  const over = done !== undefined && saved.version >= done;
  const typed = over ? null : draft.value;
  useEffect(() => {
    if (!over) return;
    keep(null);
    drop();
    // eslint-disable-next-line react-hooks/set-state-in-effect -- what was saved is known when the page shows it
    setDone(undefined);
  }, [over, keep, drop]);
  const base = useRef(saved);
  useEffect(() => {
    base.current = saved;
  });
  const set = useCallback(
    (change: (value: T) => T) =>
      keep((now) => {
        const { version, value } = now ?? base.current;
        return { version, value: change(value) };
      }),
    [keep],
  );
  const steps = useSteps(typed, keep);
  const putBack = () => {
    keep(null);
    toast('Changes discarded', { action: { label: 'Undo', onClick: () => keep(typed) } });
  };
  const savedAs = (version: number) => {
    // The page may be another before it shows what was saved: the browser has nothing to keep from here on.
    drop();
    setDone(version);
  };
  const waiting = over ? undefined : done;
  const told = { savedAs, waits: waiting !== undefined, saved: waiting };
  return { ...(typed ?? saved), steps, set, keep, putBack, ...told };
}
