'use client';

import { useCallback, useMemo } from 'react';
import { toast } from 'sonner';
import { counted } from '@/core/words';
import type { EntryChange } from '@/ui/entry/sheet';
import { moved, nextNew, put } from '@/ui/entry/rows';
import { useTyped, type Kept } from '@/ui/entry/useTyped';
import type { JobLineText } from '@/ui/jobs/jobLineText';
import { lineDifferences, settleLines, sideOf, type Chosen } from '@/ui/acting/versions';

/** Lines of a quote or of a buy list as they are typed over what is saved, kept in the browser. */
export function useLines<L extends JobLineText>(
  name: string,
  saved: Kept<readonly L[]>,
  fresh: (count: number, above: L | undefined) => L,
) {
  const typed = useTyped(name, saved);
  const { value: lines, set, steps } = typed;
  const blank = useCallback((n: number) => fresh(nextNew(lines) + n, lines.at(-1)), [fresh, lines]);
  const onApply = useCallback(
    (changes: readonly EntryChange<L>[]) =>
      set((now) => changes.reduce((all, c) => put(all, c.key, c.change, () => fresh(0, all.at(-1))), now)),
    [set, fresh],
  );
  const takeOff = (line: L) => {
    steps.step();
    set((now) => now.filter((l) => l.key !== line.key));
    toast(`${line.description || 'The line'}: line removed`, { action: { label: 'Undo', onClick: steps.undo } });
  };
  const onMove = (key: string, to: string) => {
    steps.step();
    set((now) => moved(now, key, to));
  };
  const changed = useMemo(() => {
    const before = new Map(saved.value.map((l) => [l.key, JSON.stringify(l)]));
    return lines.filter((l) => before.get(l.key) !== JSON.stringify(l));
  }, [saved.value, lines]);
  const gone = saved.value.filter((l) => !lines.some((now) => now.key === l.key)).length;
  /** Two people's versions, line by line, and what is made of them by choosing; `told` tells all that can be changed. */
  const versions = (told: (line: L) => string) => {
    const same = (one: L, other: L) => told(one) === told(other);
    const rows = lineDifferences(lines, saved.value, { told, same, beside: () => '' });
    const settled = (over: (line: L, theirs: L | undefined) => L) => (chosen: Chosen) => ({
      version: saved.version,
      value: settleLines(lines, saved.value, (key) => sideOf(rows, chosen, key), over),
    });
    return { rows, settled };
  };
  const reordered = lines.map((l) => l.key).join() !== saved.value.map((l) => l.key).join();
  const count = changed.length + gone + (reordered && changed.length + gone === 0 ? 1 : 0);
  return {
    typed,
    lines,
    steps,
    blank,
    onApply,
    takeOff,
    onMove,
    changed,
    versions,
    count,
    words: `${counted(count, 'unsaved change')} · kept on this device`,
  };
}
