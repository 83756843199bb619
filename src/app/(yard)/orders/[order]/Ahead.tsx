'use client';

import { useEffect, useState } from 'react';
import type { NamedEffect } from '@/queries/effects';
import type { Ending } from '@/queries/endings';
import { ask, asJson } from '@/ui/ask';
import { EffectList } from '@/ui/EffectList';

/** What an end frees on the budgets, told before it is made. */
export function Ahead({ number, ...ending }: Ending & { readonly number: string }) {
  const [effects, setEffects] = useState<readonly NamedEffect[]>();
  const body = JSON.stringify(ending);
  useEffect(() => {
    const stop = new AbortController();
    void ask<readonly NamedEffect[]>(`/orders/${number}/ahead`, asJson(body, stop.signal)).then(setEffects);
    return () => stop.abort();
  }, [number, body]);
  return (
    <div className="mb-3" aria-live="polite">
      {effects === undefined ? (
        <p className="text-ink-2">Working out what it frees…</p>
      ) : (
        <EffectList effects={effects} />
      )}
    </div>
  );
}
