'use client';

import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { counted } from '@/core/words';
import type { listToCount } from '@/queries/stores/counts';
import { useKey } from '@/ui/frame/keys';
import { ChoiceField, Faults } from '@/ui/kit/Field';
import { Fact, Shelf, ShelfMain } from '@/ui/kit/Shelf';
import { Slip } from '@/ui/kit/Slip';
import { useAct, useOnce } from '@/ui/acting/useAct';
import { acts } from '../../../actions';

type Place = Awaited<ReturnType<typeof listToCount>>[number];
type Props = { readonly places: readonly Place[]; readonly may: boolean; readonly open: number };

/** The shelf of the counts, with the way to begin one. */
export function BeginCount({ places, may, open }: Props) {
  const [asking, setAsking] = useState(false);
  useKey('N', 'New count', () => setAsking(true), may);
  return (
    <>
      <Shelf facts={<Fact strong>{counted(open, 'count')} in progress</Fact>}>
        {may && (
          <ShelfMain onClick={() => setAsking(true)} hint="N">
            New count
          </ShelfMain>
        )}
      </Shelf>
      {asking && <BeginSlip places={places} onClose={() => setAsking(false)} />}
    </>
  );
}

function BeginSlip({ places, onClose }: { places: readonly Place[]; onClose: () => void }) {
  const router = useRouter();
  const once = useOnce();
  const own = [...new Map(places.map((p) => [p.placeId, p.place]))];
  const [placeId, setPlace] = useState(own[0]?.[0] ?? 0);
  const [binId, setBin] = useState<number | null>(null);
  const [blind, setBlind] = useState(false);
  const bins = places.filter((p) => p.placeId === placeId && p.binId !== null);
  const act = useAct(acts.beginCount, {
    said: ({ number }) => `Count ${number} started`,
    onDone: ({ id }) => router.push(`/stores/count/${id}`),
  });
  const begin = () => void act.run({ once: once.key(), placeId, binId, blind });
  useKey('Ctrl+Enter', 'Start count', begin, !act.busy);
  return (
    <Slip
      open
      onClose={onClose}
      title="New count"
      detail="Book quantities are taken now; movements while you count are allowed for."
      foot={
        <div className="grid gap-2">
          <Faults messages={act.refusals.map((r) => r.message)} />
          <button type="button" className="btn btn-main justify-self-end" disabled={act.busy} onClick={begin}>
            Start{' '}
            <span className="kbd" aria-hidden>
              Ctrl ↵
            </span>
          </button>
        </div>
      }
    >
      <div className="grid gap-3">
        <ChoiceField
          label="Location"
          value={placeId}
          onChange={(e) => {
            setPlace(Number(e.target.value));
            setBin(null);
          }}
        >
          {own.map(([id, name]) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </ChoiceField>
        <ChoiceField
          label="Bin"
          value={binId ?? ''}
          onChange={(e) => setBin(e.target.value === '' ? null : Number(e.target.value))}
        >
          <option value="">whole location</option>
          {bins.map((b) => (
            <option key={b.binId} value={b.binId ?? ''}>
              {b.bin}
            </option>
          ))}
        </ChoiceField>
        <label className="flex min-h-[44px] items-center gap-2">
          <input type="checkbox" className="box" checked={blind} onChange={(e) => setBlind(e.target.checked)} />
          Blind count: book quantities hidden
        </label>
      </div>
    </Slip>
  );
}
