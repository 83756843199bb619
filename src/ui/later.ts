import dynamic from 'next/dynamic';
import type { ComponentType } from 'react';

const SOON = 300;

/**
 * A part that a page does not need at first: it is fetched once the page stands, so that it is there before anybody
 * asks for it.
 */
export function later<P extends object>(load: () => Promise<{ readonly default: ComponentType<P> }>): ComponentType<P> {
  if (typeof window !== 'undefined') setTimeout(() => void load().catch(() => undefined), SOON);
  return dynamic(load, { ssr: false });
}
