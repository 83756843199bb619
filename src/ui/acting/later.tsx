'use client';

import { useEffect, useState, type ComponentType } from 'react';
import { toast } from 'sonner';

const SOON = 300;

/** A part of the program that could not be fetched; nothing typed is lost by that. */
export const tellMissing = (): void =>
  void toast.error('Kettle Tab isn’t responding. Nothing you typed is lost: try again in a moment.');

/**
 * A part that a page does not need at first: it is fetched once the page stands, so that it is there before anybody
 * asks for it, and is drawn at once then.
 * @param Meanwhile what keeps its room until it is there
 */
export function later<P extends object>(
  load: () => Promise<{ readonly default: ComponentType<P> }>,
  Meanwhile?: ComponentType,
): ComponentType<P> {
  let Part: ComponentType<P> | undefined;
  const fetched = async () => void (Part = (await load()).default);
  // One that could not be fetched is asked for again when it is needed.
  if (typeof window !== 'undefined') setTimeout(() => void fetched().catch(() => undefined), SOON);
  return function Later(props: P) {
    const [, setHere] = useState(Part !== undefined);
    useEffect(() => {
      fetched()
        .then(() => setHere(true))
        .catch(tellMissing);
    }, []);
    if (Part !== undefined) return <Part {...props} />;
    return Meanwhile === undefined ? null : <Meanwhile />;
  };
}
