'use client';

import { useCallback, useMemo } from 'react';
import { toast } from 'sonner';
import { counted } from '@/core/words';
import type { Thing } from '@/queries/things';
import type { EntryColumn } from '@/ui/entry/column';
import type { EntryChange } from '@/ui/entry/EntrySheet';
import { useTyped, type Kept } from '@/ui/entry/useTyped';
import type { JobLineText } from '@/ui/jobLineText';
import { InPassing, type Making } from '../../InPassing';

const nextNew = (lines: readonly { readonly key: string }[]): number =>
  Math.max(-1, ...lines.map((l) => Number(/^new (\d+)$/.exec(l.key)?.[1] ?? -1))) + 1;

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
    (changes: readonly EntryChange<L>[]) => set((now) => changes.reduce((all, c) => put(all, c, fresh), now)),
    [set, fresh],
  );
  const takeOff = (line: L) => {
    steps.step();
    set((now) => now.filter((l) => l.key !== line.key));
    toast(`${line.description || 'The line'} is taken off`, { action: { label: 'Undo', onClick: steps.undo } });
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
    count,
    words: `${counted(count, 'change')} not saved, kept here as you type`,
  };
}

/** Lines with a change put into one; a change to a blank line makes it the last of them. */
function put<L extends JobLineText>(
  lines: readonly L[],
  { key, change }: EntryChange<L>,
  fresh: (count: number, above: L | undefined) => L,
): readonly L[] {
  const at = lines.findIndex((l) => l.key === key);
  const line = lines[at] ?? { ...fresh(0, lines.at(-1)), key };
  const next = change(line);
  if (at >= 0) return lines.map((l, k) => (k === at ? next : l));
  return JSON.stringify(next) === JSON.stringify(line) ? lines : [...lines, next];
}

function moved<L extends { readonly key: string }>(lines: readonly L[], key: string, to: string): readonly L[] {
  const [from, onto] = [lines.findIndex((l) => l.key === key), lines.findIndex((l) => l.key === to)];
  const line = lines[from];
  if (line === undefined || onto < 0) return lines;
  const rest = lines.filter((l) => l !== line);
  return [...rest.slice(0, onto), line, ...rest.slice(onto)];
}

/** What is made in passing from a cell, and the line that it is for. */
export type MakingFor = Making & { readonly key: string };

/** A part or a supplier made in passing from a cell, put into its line when it is there. */
export function MakeForLine<L extends JobLineText>({
  making,
  columns,
  onApply,
  onClose,
}: {
  making: MakingFor | undefined;
  columns: readonly EntryColumn<L>[];
  onApply: (changes: readonly EntryChange<L>[]) => void;
  onClose: () => void;
}) {
  if (making === undefined) return null;
  const take = (column: string, thing: Thing) =>
    onApply([
      {
        key: making.key,
        change: (line) => {
          const entry = columns.find((c) => c.key === column)?.entry;
          return entry?.kind === 'pick' ? entry.take(line, thing) : line;
        },
      },
    ]);
  return (
    <InPassing
      making={making}
      onClose={onClose}
      onItem={(item) => take('description', item)}
      onSupplier={(supplier) => take('supplier', supplier)}
    />
  );
}
