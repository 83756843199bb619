'use client';

import { useRef, useState } from 'react';
import { readScan } from '@/formats/gs1';
import type { ItemChoice } from '@/queries/frame/choices';
import { ask, asJson } from '@/ui/acting/ask';
import { useYard } from '@/ui/frame/YardContext';
import { Slip } from '@/ui/kit/Slip';

type Props = {
  /** Puts so many more of a part on the order. */
  readonly onPart: (part: ItemChoice, count: number) => void;
  readonly onClose: () => void;
};

type Told = { readonly key: number; readonly code: string; readonly words: string; readonly fault?: true };

/** Lines by scanning: each code puts one more of its part on the order, or as many as it says. */
export default function Scan({ onPart, onClose }: Props) {
  const { today } = useYard();
  const [code, setCode] = useState('');
  const [told, setTold] = useState<readonly Told[]>([]);
  const tally = useRef(new Map<number, number>());
  // One after the other, as fast as they come.
  const turn = useRef(Promise.resolve());
  const tell = (what: Omit<Told, 'key'>) => setTold((now) => [{ key: now.length, ...what }, ...now]);
  const take = async (typed: string) => {
    const read = readScan(typed, today);
    if (!read.ok) return tell({ code: typed, words: read.refusals[0]?.message ?? '', fault: true });
    const { words, count } = read.value;
    const body = JSON.stringify({ kind: 'item', words });
    const found = await ask<(ItemChoice | null)[]>('/pick', asJson(body, new AbortController().signal));
    const part = found?.find((p) => p !== null);
    if (part != null) {
      const whole = (tally.current.get(part.id) ?? 0) + count;
      tally.current.set(part.id, whole);
      onPart(part, count);
      return tell({ code: typed, words: `${part.name}: ${whole} scanned` });
    }
    const missing = found === undefined ? 'The code couldn’t be looked up. Scan it again.' : 'No item has this code.';
    tell({ code: typed, words: missing, fault: true });
  };
  return (
    <Slip open onClose={onClose} title="Scan items" detail="Each scan adds one to the order.">
      <form
        onSubmit={(e) => {
          e.preventDefault();
          const typed = code;
          setCode('');
          if (typed.trim() !== '') turn.current = turn.current.then(() => take(typed));
        }}
      >
        <input
          aria-label="Barcode or number"
          placeholder="scan, or type and Enter"
          className="field mono"
          autoFocus
          autoComplete="off"
          spellCheck={false}
          maxLength={400}
          value={code}
          onChange={(e) => setCode(e.target.value)}
        />
      </form>
      <ul aria-label="Scanned items" aria-live="polite" className="mt-3">
        {told.map((t) => (
          <li key={t.key} className="border-b border-line-2 py-1.5">
            <span className={t.fault ? 'text-brick' : ''}>{t.words}</span>
            <span className="mono block text-[12.5px] break-all text-ink-2">{t.code}</span>
          </li>
        ))}
      </ul>
    </Slip>
  );
}
