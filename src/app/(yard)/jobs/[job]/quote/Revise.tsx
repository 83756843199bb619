'use client';

import { useRouter } from 'next/navigation';
import type { QuoteView } from '@/queries/jobs/job';
import { ShelfPlain } from '@/ui/kit/Shelf';
import { useAct, useOnce } from '@/ui/acting/useAct';
import { acts } from '../../../../actions';

/** Writes a quote anew from this one, which stays as it is. */
export function Revise({ quote, job }: { readonly quote: QuoteView; readonly job: string }) {
  const router = useRouter();
  const once = useOnce();
  const act = useAct(acts.reviseQuote, {
    said: ({ number }) => `${number} created as a copy to change; ${quote.number} is unchanged`,
    onDone: () => {
      once.renew();
      router.push(`/jobs/${job}/quote`);
    },
  });
  return (
    <ShelfPlain
      disabled={act.busy}
      onClick={() => void act.run({ once: once.key(), quoteId: quote.id, version: quote.version })}
    >
      Revise quote
    </ShelfPlain>
  );
}
