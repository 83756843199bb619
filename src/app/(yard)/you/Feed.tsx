'use client';

import { useState } from 'react';
import { useAct } from '@/ui/acting/useAct';
import { acts } from '../../actions';

/** The address under which one's own calendar reads what is expected; it is shown once, when it is made. */
export function Feed({ on }: { on: boolean }) {
  const [address, setAddress] = useState<string>();
  const act = useAct(acts.chooseFeed, {
    said: ({ token }) => (token === null ? 'Calendar address turned off' : 'Calendar address created'),
    onDone: ({ token }) => setAddress(token === null ? undefined : `${window.location.origin}/calendar/${token}.ics`),
  });
  return (
    <section className="mb-5" aria-label="Delivery calendar">
      <h2 className="mb-1 text-[16px]">Delivery calendar</h2>
      <p className="mb-2 text-ink-2">
        {on
          ? 'Subscribe in your own calendar to see expected deliveries. Anyone with this address can see them (no prices).'
          : 'An address that your own calendar reads expected deliveries from (iCalendar, no prices).'}
      </p>
      {address !== undefined && (
        <p className="mono mb-2 rounded-lg border border-line bg-glaze px-2 py-1 break-all">{address}</p>
      )}
      <div className="flex gap-4">
        <button type="button" className="step" disabled={act.busy} onClick={() => void act.run({ on: true })}>
          {on ? 'Replace address' : 'Create address'}
        </button>
        {on && (
          <button type="button" className="step" disabled={act.busy} onClick={() => void act.run({ on: false })}>
            Turn off
          </button>
        )}
      </div>
    </section>
  );
}
