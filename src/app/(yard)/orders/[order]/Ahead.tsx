'use client';

import type { NamedEffect } from '@/workings/orders/effects';
import type { Ending } from '@/queries/orders/ending';
import { EffectList } from '@/ui/jobs/EffectList';
import { useAnswer } from '@/ui/acting/useAnswer';

/** What an end frees on the budgets, told before it is made. */
export function Ahead({ number, ...ending }: Ending & { readonly number: string }) {
  const effects = useAnswer<readonly NamedEffect[]>(`/orders/${number}/ahead`, JSON.stringify(ending));
  return (
    <div className="mb-3" aria-live="polite">
      {effects === undefined ? <p className="text-ink-2">Working out the effect…</p> : <EffectList effects={effects} />}
    </div>
  );
}
