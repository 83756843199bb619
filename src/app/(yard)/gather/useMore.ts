import { useSearchParams } from 'next/navigation';
import { useEffect, useEffectEvent, useRef, useState } from 'react';
import type { NeedLine } from '@/queries/buying/needLine';
import { ask } from '@/ui/acting/ask';

export type Page = { readonly rows: readonly NeedLine[]; readonly next: string | undefined };

const SIZE = 250;

/**
 * A list of which the first page is given, and the others are read as one comes to them. When the first is read anew,
 * as many as were there are, too; until then they stay as they were.
 * @returns all lines read so far, and how to read on; undefined when all are there
 */
export function useMore(first: Page): { rows: readonly NeedLine[]; onEnd: (() => void) | undefined } {
  const asked = useSearchParams().toString();
  const [more, setMore] = useState<Page & { readonly after: Page; readonly asked: string }>();
  const kept = more?.asked === asked && first.next !== undefined ? more : undefined;
  const known = kept ?? { rows: [], next: first.next };
  const busy = useRef(false);
  const read = async (after: string, size: number, before: readonly NeedLine[]) => {
    if (busy.current) return;
    busy.current = true;
    const query = new URLSearchParams(asked);
    query.set('after', after);
    query.set('size', String(size));
    const page = await ask<Page>(`/gather/lines?${query}`, {});
    busy.current = false;
    if (page !== undefined) setMore({ rows: [...before, ...page.rows], next: page.next, after: first, asked });
  };
  const renew = useEffectEvent(() => {
    if (kept !== undefined && kept.after !== first && first.next !== undefined)
      void read(first.next, kept.rows.length, []);
  });
  // eslint-disable-next-line react-hooks/set-state-in-effect -- set once the server has answered
  useEffect(() => renew(), [first]);
  const { next } = known;
  const own = new Set(first.rows.map((r) => r.id));
  return {
    rows: known.rows.length === 0 ? first.rows : [...first.rows, ...known.rows.filter((r) => !own.has(r.id))],
    onEnd: next === undefined ? undefined : () => void read(next, SIZE, known.rows),
  };
}
