'use client';

import { useState } from 'react';
import { Fact, Shelf, ShelfMain, ShelfPlain } from '@/ui/kit/Shelf';
import { differences, settle } from '@/ui/orderClash';
import type { OrderText } from '@/ui/orderText';
import { counted } from '@/core/words';

type Side = 'mine' | 'theirs';
type Props = {
  readonly message: string;
  readonly mine: OrderText;
  readonly theirs: OrderText;
  readonly places: readonly { id: number; name: string }[];
  readonly onSettled: (settled: OrderText) => void;
  readonly onPutBack: () => void;
};

/** Two people changed the same order: both versions side by side, to choose from. */
export function Clash({ message, mine, theirs, places, onSettled, onPutBack }: Props) {
  const rows = differences(mine, theirs);
  const [chosen, setChosen] = useState<Readonly<Record<string, Side>>>({});
  const named = (key: string, words: string) =>
    key === 'placeId' ? (places.find((p) => String(p.id) === words)?.name ?? words) : words;
  const settled = () =>
    onSettled(settle(mine, theirs, Object.fromEntries(rows.map((r) => [r.key, chosen[r.key] ?? 'mine']))));
  const option = (key: string, side: Side, words: string) => (
    <label
      className={`flex cursor-pointer items-baseline gap-2 rounded-lg border px-3 py-2 ${(chosen[key] ?? 'mine') === side ? 'border-copper bg-copper-wash' : 'border-line'}`}
    >
      <input
        type="radio"
        name={key}
        checked={(chosen[key] ?? 'mine') === side}
        onChange={() => setChosen((now) => ({ ...now, [key]: side }))}
        className="accent-[var(--copper)]"
      />
      <span>{named(key, words)}</span>
    </label>
  );
  return (
    <section aria-label="Two versions" className="mt-4">
      <div role="alert" className="mb-3 rounded-lg border border-amber bg-amber-wash px-3 py-2 text-amber">
        <b>{message}</b> Nothing is lost: choose for each difference, then save.
      </div>
      <div className="grid grid-cols-[90px_1fr_1fr] items-start gap-x-3 gap-y-2">
        <span />
        <b>As it stands now</b>
        <b>As you typed it</b>
        {rows.map((r) => (
          <div key={r.key} role="radiogroup" aria-label={r.label} className="contents">
            <span className="pt-2 text-ink-2">{r.label}</span>
            {option(r.key, 'theirs', r.theirs)}
            {option(r.key, 'mine', r.mine)}
          </div>
        ))}
      </div>
      {rows.length === 0 && <p className="text-ink-2">Both versions say the same. Save to go on.</p>}
      <Shelf facts={<Fact strong>{counted(rows.length, 'difference')} between the two versions</Fact>}>
        <ShelfPlain onClick={onPutBack}>Take the version that stands</ShelfPlain>
        <ShelfMain onClick={settled}>Save what is chosen</ShelfMain>
      </Shelf>
    </section>
  );
}
