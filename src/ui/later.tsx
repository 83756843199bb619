'use client';

import { useEffect, useState, type ComponentType } from 'react';

const SOON = 300;

/**
 * A part that a page does not need at first: it is fetched once the page stands, so that it is there before anybody
 * asks for it, and is drawn at once then.
 */
export function later<P extends object>(load: () => Promise<{ readonly default: ComponentType<P> }>): ComponentType<P> {
  let Part: ComponentType<P> | undefined;
  const fetched = async () => void (Part = (await load()).default);
  // One that could not be fetched is asked for again when it is needed.
  if (typeof window !== 'undefined') setTimeout(() => void fetched().catch(() => undefined), SOON);
  return function Later(props: P) {
    const [, setHere] = useState(Part !== undefined);
    useEffect(() => {
      if (Part === undefined) void fetched().then(() => setHere(true));
    }, []);
    return Part === undefined ? null : <Part {...props} />;
  };
}
