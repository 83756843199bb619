'use client';

import { useAllKeys, useKey } from './keys';
import { Question } from '../kit/Slip';

const named = (combo: string) =>
  combo.replace('ArrowDown', '↓').replace('ArrowUp', '↑').replace('Escape', 'Esc').replace(/^\?$/, '?');

/** The keys of the place that is open. */
export function KeysList({ open, setOpen }: { open: boolean; setOpen: (open: boolean) => void }) {
  const all = useAllKeys();
  useKey('?', 'Show keyboard shortcuts', () => setOpen(true));
  return (
    <Question open={open} onClose={() => setOpen(false)} title="Keyboard shortcuts">
      <dl className="grid grid-cols-[auto_1fr] gap-x-4 gap-y-1.5">
        {open &&
          [...new Map(all().map((k) => [k.combo, k])).values()].map((k) => (
            <div key={k.combo} className="contents">
              <dt>
                <span className="kbd">{named(k.combo)}</span>
              </dt>
              <dd>{k.words}</dd>
            </div>
          ))}
      </dl>
    </Question>
  );
}
