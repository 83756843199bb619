'use client';

import { useCallback, useMemo } from 'react';
import { toast } from 'sonner';
import { counted } from '@/core/words';
import type { Thing } from '@/queries/things';
import type { EntryColumn } from '@/ui/entry/column';
import type { EntryChange } from '@/ui/entry/EntrySheet';
import { moved, nextNew, put } from '@/ui/entry/rows';
import { useTyped, type Kept } from '@/ui/entry/useTyped';
import type { JobLineText } from '@/ui/jobLineText';
import { InPassing, type Making } from '../../InPassing';

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
