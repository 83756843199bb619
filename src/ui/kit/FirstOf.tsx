'use client';

import { useState, type ReactNode } from 'react';

type Props<T> = {
  readonly all: readonly T[];
  /** So many are shown until one asks for the others. */
  readonly most: number;
  /** What the others are called. @example (n) => `${n} more budgets` */
  readonly more: (n: number) => string;
  readonly children: (one: T) => ReactNode;
};

/** The first items of a list that may be long, and a button for the others. */
export function FirstOf<T>({ all, most, more, children }: Props<T>) {
  const [open, setOpen] = useState(false);
  const rest = all.length - most;
  return (
    <>
      {(open ? all : all.slice(0, most)).map(children)}
      {!open && rest > 0 && (
        <li className="py-2">
          <button type="button" className="step" onClick={() => setOpen(true)}>
            {more(rest)}
          </button>
        </li>
      )}
    </>
  );
}
