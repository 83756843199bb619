'use client';

import { useEffect, useRef, type RefObject } from 'react';

/** A scanner types faster than anybody: so many characters at least, this fast each, in milliseconds. */
export const BURST = { each: 35, atLeast: 6 };
/** After so long a pause, what is typed begins anew. */
const ANEW = 120;

const inDialog = () => document.querySelector('[role="dialog"]') !== null;
const isText = (e: EventTarget | null): e is HTMLInputElement =>
  e instanceof HTMLInputElement && ['text', 'number', 'search', ''].includes(e.type) && e.role !== 'combobox';

/** Puts a value back into a field of React’s, as if it had been typed. */
function putBack(field: HTMLInputElement, value: string): void {
  Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value')?.set?.call(field, value);
  field.dispatchEvent(new Event('input', { bubbles: true }));
}

/**
 * Keeps the cursor in the field that a scanner types into: it comes back after what was pressed or chosen by pointer, and
 * a code that was scanned into another field, or onto a button, is taken out of there and counted.
 */
export function useWedge(field: RefObject<HTMLInputElement | null>, onCode: (code: string) => void): void {
  const take = useRef(onCode);
  useEffect(() => {
    take.current = onCode;
  });
  useEffect(() => {
    let typed = { keys: '', since: 0, last: 0, before: '' };
    let byPointer = false;
    const onKey = (e: KeyboardEvent) => {
      byPointer = false;
      if (e.target === field.current || e.key === 'Shift' || e.ctrlKey || e.altKey || e.metaKey || inDialog()) return;
      const now = e.timeStamp;
      if (e.key.length === 1) {
        if (now - typed.last > ANEW)
          typed = { keys: '', since: now, last: now, before: isText(e.target) ? e.target.value : '' };
        typed = { ...typed, keys: typed.keys + e.key, last: now };
        return;
      }
      const { keys, since, before } = typed;
      typed = { ...typed, last: 0 };
      if (e.key !== 'Enter' || keys.length < BURST.atLeast || (now - since) / keys.length > BURST.each) return;
      e.preventDefault();
      e.stopPropagation();
      if (isText(e.target)) putBack(e.target, before);
      take.current(keys);
      field.current?.focus();
    };
    const onPointer = () => {
      byPointer = true;
    };
    const comeBack = (e: Event) => {
      const target = e.target instanceof Element ? e.target : null;
      const pressed = e.type === 'click' && target?.closest('button') !== null && target?.closest('a[href]') === null;
      const chosen = e.type === 'change' && target instanceof HTMLSelectElement;
      if (!byPointer || !(pressed || chosen)) return;
      // What was pressed may have opened a field of its own, which has the cursor then.
      setTimeout(() => {
        const at = document.activeElement;
        if (!inDialog() && !(at instanceof HTMLInputElement || at instanceof HTMLTextAreaElement))
          field.current?.focus({ preventScroll: true });
      });
    };
    window.addEventListener('keydown', onKey, true);
    window.addEventListener('pointerdown', onPointer, true);
    window.addEventListener('click', comeBack);
    window.addEventListener('change', comeBack);
    return () => {
      window.removeEventListener('keydown', onKey, true);
      window.removeEventListener('pointerdown', onPointer, true);
      window.removeEventListener('click', comeBack);
      window.removeEventListener('change', comeBack);
    };
  }, [field]);
}
