'use client';

import { useState } from 'react';
import { Fact, Shelf, ShelfMain, ShelfPlain } from './Shelf';
import { sideOf, type Chosen, type Difference, type Side } from '../acting/versions';
import { counted } from '@/core/words';

type Props = {
  readonly message: string;
  readonly rows: readonly Difference[];
  /** Writes one side of a difference where its words are an id. */
  readonly written?: (key: string, words: string) => string;
  readonly onSettled: (chosen: Chosen) => void;
  readonly onPutBack: () => void;
};

/** Two people changed the same thing: both versions side by side, to choose from. */
export function Versions({ message, rows, written = (_, words) => words, onSettled, onPutBack }: Props) {
  const [chosen, setChosen] = useState<Chosen>({});
  const side = (key: string) => sideOf(rows, chosen, key);
  const option = (key: string, own: Side, words: string) => (
    <label
      className={`flex cursor-pointer items-baseline gap-2 rounded-lg border px-3 py-2 ${side(key) === own ? 'border-copper bg-copper-wash' : 'border-line'}`}
    >
      <input
        type="radio"
        name={key}
        checked={side(key) === own}
        onChange={() => setChosen((now) => ({ ...now, [key]: own }))}
        className="accent-[var(--copper)]"
      />
      <span>{written(key, words)}</span>
    </label>
  );
  return (
    <section aria-label="Two versions" className="mt-4">
      <div role="alert" className="mb-3 rounded-lg border border-amber bg-amber-wash px-3 py-2 text-amber">
        <b>{message}</b> Someone else saved changes while you were editing. Choose for each difference, then save.
      </div>
      <div className="grid grid-cols-[90px_1fr_1fr] items-start gap-x-3 gap-y-2">
        <span />
        <b>Saved version</b>
        <b>Your version</b>
        {rows.map((r) => (
          <div key={r.key} role="radiogroup" aria-label={r.label} className="contents">
            <span className="pt-2 text-ink-2">{r.label}</span>
            {option(r.key, 'theirs', r.theirs)}
            {option(r.key, 'mine', r.mine)}
          </div>
        ))}
      </div>
      {rows.length === 0 && <p className="text-ink-2">The versions now match. Save to continue.</p>}
      <Shelf facts={<Fact strong>{counted(rows.length, 'difference')} between the two versions</Fact>}>
        <ShelfPlain onClick={onPutBack}>Use the saved version</ShelfPlain>
        <ShelfMain onClick={() => onSettled(chosen)}>Save my choices</ShelfMain>
      </Shelf>
    </section>
  );
}
