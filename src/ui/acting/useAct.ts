'use client';

import { useRouter } from 'next/navigation';
import { useCallback, useEffect, useRef, useState } from 'react';
import { toast } from 'sonner';
import type { Outcome } from '@/actions/action';
import type { Refusal } from '@/core/result';

/** What a server action answers: an outcome, or trouble on the way. */
export type Answer<T> = {
  data?: Outcome<T>;
  serverError?: { kind: 'signedOut' | 'failed'; message: string };
  validationErrors?: unknown;
};
export type Act<I, T> = (input: I) => Promise<Answer<T> | undefined>;

export const SIGNED_OUT = 'kettle:signed-out';

export type Clashed = { readonly message: string; readonly theirs: { readonly version: number } };

type Options<T> = {
  readonly onDone?: (value: T) => void;
  readonly said?: (value: T) => string | undefined;
  /** No answer came, or none to who was signed out: what was sent can be sent again. */
  readonly onLost?: () => void;
  /** At a clash the page is brought up to date, unless its form would lose what is typed by that. */
  readonly stay?: boolean;
};

/**
 * Runs an action from a form or button: busy while it runs, refusals beside their fields, a clash to be settled.
 * A person who was signed out signs in on the spot, and the same action runs again: nothing typed is lost.
 */
export function useAct<I, T>(act: Act<I, T>, { onDone, said, onLost, stay = false }: Options<T> = {}) {
  const router = useRouter();
  const [busy, setBusy] = useState(false);
  const [refusals, setRefusals] = useState<readonly Refusal[]>([]);
  const [clash, setClash] = useState<Clashed>();
  const running = useRef(false);
  const again = useRef<(input: I) => void>(undefined);

  const run = useCallback(
    async (input: I): Promise<boolean> => {
      if (running.current) return false;
      running.current = true;
      setBusy(true);
      setRefusals([]);
      setClash(undefined);
      try {
        const answer = await act(input);
        const outcome = answer?.data;
        if (answer?.serverError?.kind === 'signedOut') {
          onLost?.();
          window.dispatchEvent(new CustomEvent(SIGNED_OUT, { detail: () => again.current?.(input) }));
          setRefusals([
            { code: 'signedOut', message: 'You were signed out. Nothing you typed is lost: sign in to carry on.' },
          ]);
        } else if (outcome?.status === 'done') {
          const words = said?.(outcome.value);
          if (words !== undefined) toast.success(words);
          onDone?.(outcome.value);
          return true;
        } else if (outcome?.status === 'refused') setRefusals(outcome.refusals);
        else if (outcome?.status === 'clash') {
          setClash({ message: outcome.message, theirs: outcome.theirs });
          if (!stay) router.refresh();
        } else
          setRefusals([
            {
              code: 'failed',
              message:
                answer?.serverError?.message ??
                'That didn’t save. Try again; if it happens again, tell your administrator.',
            },
          ]);
      } catch {
        onLost?.();
        setRefusals([
          {
            code: 'network',
            message: 'Kettle Tab isn’t responding. Nothing you typed is lost: try again in a moment.',
          },
        ]);
      } finally {
        running.current = false;
        setBusy(false);
        setTimeout(keepFocus, 150);
      }
      return false;
    },
    [act, onDone, said, onLost, stay, router],
  );

  useEffect(() => {
    again.current = (input) => void run(input);
  }, [run]);
  const faultAt = useCallback((field: string) => refusals.find((r) => r.field === field)?.message, [refusals]);
  const clear = useCallback(() => {
    setRefusals([]);
    setClash(undefined);
  }, []);
  return { run, busy, refusals, clash, faultAt, clear };
}

/** When what had the focus is gone with the act, the sheet has it, so that keys go on from there. */
function keepFocus(): void {
  if (document.activeElement === document.body && document.querySelector('[role="dialog"]') === null)
    document.getElementById('sheet-scroll')?.focus({ preventScroll: true });
}

/** A key for one opening of a form: sending it twice acts once. A new one is taken after each success. */
export function useOnce(): { readonly key: () => string; readonly renew: () => void } {
  const [once] = useState(() => {
    let key: string | undefined;
    return { key: () => (key ??= makeKey()), renew: () => void (key = undefined) };
  });
  return once;
}

/** Works without a secure context too, as on a yard's own network. */
export const makeKey = (): string =>
  Array.from(crypto.getRandomValues(new Uint8Array(16)), (b) => b.toString(16).padStart(2, '0')).join('');
