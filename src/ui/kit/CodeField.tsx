'use client';

import { lazy, Suspense, useRef, useState } from 'react';
import { BURST, useWedge } from './useWedge';

/** The decoder is large, and few need it: it comes when it is asked for. */
const Camera = lazy(() => import('./Camera'));

/** What comes as fast as a scanner types and stops for so long, in milliseconds, is a whole code without its Enter. */
const PAUSE = 250;

/** The one field that takes what a scanner types; it has the cursor again after each code and each press. A phone’s camera can scan, too. */
export function CodeField({ onCode }: { onCode: (code: string) => void }) {
  const [camera, setCamera] = useState(false);
  const [typing, setTyping] = useState(false);
  const field = useRef<HTMLInputElement>(null);
  useWedge(field, onCode);
  const typed = useRef({ since: 0, timer: undefined as ReturnType<typeof setTimeout> | undefined });
  const take = () => {
    clearTimeout(typed.current.timer);
    const code = field.current?.value.trim() ?? '';
    if (field.current !== null) field.current.value = '';
    if (code !== '') onCode(code);
  };
  const watch = () => {
    const length = field.current?.value.length ?? 0;
    const at = performance.now();
    if (length <= 1) typed.current.since = at;
    clearTimeout(typed.current.timer);
    const burst = length >= BURST.atLeast && (at - typed.current.since) / length < BURST.each;
    if (burst) typed.current.timer = setTimeout(take, PAUSE);
  };
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        take();
      }}
    >
      <input
        ref={field}
        aria-label="Barcode or number"
        placeholder="Scan or type a code…"
        className="field mono h-[46px] border-2 border-copper text-[16px]"
        autoFocus
        // A phone shows its keyboard only to who taps the field: a scanner needs none.
        inputMode={typing ? 'text' : 'none'}
        onPointerDown={() => setTyping(true)}
        onBlur={() => setTyping(false)}
        autoComplete="off"
        autoCapitalize="off"
        spellCheck={false}
        maxLength={400}
        onChange={watch}
      />
      <button
        type="button"
        className="step mt-1.5 inline-flex items-center max-phone:min-h-[44px]"
        aria-pressed={camera}
        onClick={() => setCamera(!camera)}
      >
        {camera ? 'Camera off' : 'Use the camera'}
      </button>
      {camera && (
        <Suspense fallback={<p className="mt-2 text-ink-2">Starting camera…</p>}>
          <Camera onCode={onCode} />
        </Suspense>
      )}
    </form>
  );
}
