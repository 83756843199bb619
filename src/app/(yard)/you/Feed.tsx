'use client';

import { useState } from 'react';
import { useAct } from '@/ui/useAct';
import { chooseFeed } from '../../acts';

/** The address under which one's own calendar reads what is expected; it is shown once, when it is made. */
export function Feed({ on }: { on: boolean }) {
  const [address, setAddress] = useState<string>();
  const act = useAct(chooseFeed, {
    said: ({ token }) => (token === null ? 'The address holds no more' : 'The address is made'),
    onDone: ({ token }) => setAddress(token === null ? undefined : `${window.location.origin}/calendar/${token}.ics`),
  });
  return (
    <section className="mb-5" aria-label="Calendar of deliveries">
      <h2 className="mb-1 text-[16px]">Calendar of deliveries</h2>
      <p className="mb-2 text-ink-2">
        {on
          ? 'Your calendar reads what is expected. Who has its address can read it too, without prices.'
          : 'An address that your own calendar reads what is expected from: iCalendar, without prices.'}
      </p>
      {address !== undefined && (
        <p className="mono mb-2 rounded-lg border border-line bg-glaze px-2 py-1 break-all">{address}</p>
      )}
      <div className="flex gap-4">
        <button type="button" className="step" disabled={act.busy} onClick={() => void act.run({ on: true })}>
          {on ? 'Make another address' : 'Make the address'}
        </button>
        {on && (
          <button type="button" className="step" disabled={act.busy} onClick={() => void act.run({ on: false })}>
            End it
          </button>
        )}
      </div>
    </section>
  );
}
