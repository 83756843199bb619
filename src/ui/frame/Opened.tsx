'use client';

import { useEffect } from 'react';
import type { FindKind } from '@/store/find';
import { tell } from '../acting/ask';

/** Notes that the person opened a thing, so that Find offers it before anything is typed. */
export function Opened({ kind, id }: { kind: FindKind; id: number }) {
  useEffect(() => void tell('/used', { kind, id }), [kind, id]);
  return null;
}
