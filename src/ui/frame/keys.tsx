'use client';

import { createContext, useContext, useEffect, useMemo, useRef, useState, type ReactNode } from 'react';

type Key = {
  readonly combo: string;
  readonly words: string;
  /** Undefined for a key that is heard where it is used, and only told here. */
  readonly press: ((event: KeyboardEvent) => void) | undefined;
};
type Keys = { readonly hold: (key: Key) => () => void; readonly all: () => readonly Key[] };

const KeysContext = createContext<Keys | undefined>(undefined);

const isTyping = (target: EventTarget | null) =>
  target instanceof HTMLElement &&
  (target.isContentEditable || ['INPUT', 'TEXTAREA', 'SELECT'].includes(target.tagName)) &&
  !(target instanceof HTMLInputElement && ['checkbox', 'radio'].includes(target.type));

/** What has the focus is pressed by these keys, whatever else they mean in the place. */
const pressesItself = (target: EventTarget | null, combo: string) =>
  target instanceof HTMLElement &&
  ((combo === 'Space' && ['BUTTON', 'A', 'INPUT'].includes(target.tagName)) ||
    (combo === 'Enter' && ['BUTTON', 'A', 'SUMMARY'].includes(target.tagName)));

function comboOf(event: KeyboardEvent): string {
  const key = event.key === ' ' ? 'Space' : event.key.length === 1 ? event.key.toUpperCase() : event.key;
  return [event.ctrlKey || event.metaKey ? 'Ctrl' : '', event.altKey ? 'Alt' : '', key].filter(Boolean).join('+');
}

/** Holds the keys of the place that is open. The newest holder of a key has it. */
export function KeysProvider({ children }: { children: ReactNode }) {
  const held = useRef<Key[]>([]);
  const keys = useMemo<Keys>(
    () => ({
      hold: (key) => {
        held.current.push(key);
        return () => void (held.current = held.current.filter((k) => k !== key));
      },
      all: () => held.current,
    }),
    [],
  );
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const combo = comboOf(event);
      const inDialog = document.querySelector('[role="dialog"]') !== null;
      // Esc leaves a field, so that the keys of the place are heard again.
      if (combo === 'Escape' && !inDialog && !event.defaultPrevented && isTyping(event.target))
        return (event.target as HTMLElement).blur();
      const key = held.current.findLast((k) => k.combo === combo && k.press !== undefined);
      if (key?.press === undefined || event.defaultPrevented) return;
      if (!combo.includes('+') && (isTyping(event.target) || inDialog)) return;
      if (pressesItself(event.target, combo)) return;
      event.preventDefault();
      key.press(event);
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, []);
  return <KeysContext.Provider value={keys}>{children}</KeysContext.Provider>;
}

/** Gives a key its meaning while the component is there; `words` stand in the list of keys. */
export function useKey(combo: string, words: string, press: (event: KeyboardEvent) => void, on = true): void {
  const keys = useContext(KeysContext);
  const latest = useRef(press);
  useEffect(() => {
    latest.current = press;
  });
  useEffect(
    () => (on ? keys?.hold({ combo, words, press: (e) => latest.current(e) }) : undefined),
    [keys, combo, words, on],
  );
}

/** A key that its part of the page hears by itself, told in the list of keys. */
export function useToldKey(combo: string, words: string, on = true): void {
  const keys = useContext(KeysContext);
  useEffect(() => (on ? keys?.hold({ combo, words, press: undefined }) : undefined), [keys, combo, words, on]);
}

/** The keys of this place, read when the list is opened. */
export function useAllKeys(): () => readonly Pick<Key, 'combo' | 'words'>[] {
  const keys = useContext(KeysContext);
  const [read] = useState(() => () => keys?.all() ?? []);
  return read;
}
