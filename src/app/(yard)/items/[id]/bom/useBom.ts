'use client';

import { useRouter } from 'next/navigation';
import { useCallback, useMemo, useState } from 'react';
import { toast } from 'sonner';
import type { BomOfItem } from '@/queries/items/boms';
import { useAct, useOnce } from '@/ui/acting/useAct';
import { unknownWords } from '@/ui/entry/reading';
import { put } from '@/ui/entry/rows';
import type { EntryChange } from '@/ui/entry/sheet';
import { useTyped } from '@/ui/entry/useTyped';
import { useKey } from '@/ui/frame/keys';
import { useYard } from '@/ui/frame/YardContext';
import { bomLineText, newBomLine, readBomLines, type BomLineText } from '@/ui/items/bomText';
import { acts } from '../../../../actions';

export type BomItem = { readonly id: number; readonly number: string; readonly name: string; readonly unit: string };

type TypedBom = {
  readonly fromDay: string;
  readonly note: string;
  readonly makingDays: string;
  readonly lines: readonly BomLineText[];
};

const wholeDays = (text: string): number =>
  /^\d{1,4}$/.test(text.trim()) ? Number(text) : text.trim() === '' ? 0 : NaN;

/**
 * A version of a bill of materials as it is typed, kept on this device until it is saved.
 * @param fresh - a new version is written, from what the last one says
 */
export function useBom(item: BomItem, of: BomOfItem, fresh: boolean) {
  const { currency, today, may } = useYard();
  const router = useRouter();
  const { bom } = of;
  const isNew = fresh || bom === undefined;
  const saved = useMemo(
    () => ({
      version: isNew ? 0 : bom.version,
      value: {
        fromDay: isNew ? today : bom.fromDay,
        note: isNew ? '' : bom.note,
        makingDays: bom === undefined ? '0' : String(bom.makingDays),
        lines: (bom?.lines ?? []).map((l): BomLineText => {
          const { id, ...line } = bomLineText(l, currency);
          return isNew || id === undefined ? line : { ...line, id };
        }),
      } as TypedBom,
    }),
    [bom, isNew, today, currency],
  );
  const typed = useTyped(`bom of ${item.number} ${isNew ? 'new' : bom.id}`, saved);
  const { value, steps } = typed;
  const { lines } = value;
  const { set } = typed;
  const setLines = useCallback(
    (change: (lines: readonly BomLineText[]) => readonly BomLineText[]) =>
      set((now) => ({ ...now, lines: change(now.lines) })),
    [set],
  );
  const onApply = useCallback(
    (changes: readonly EntryChange<BomLineText>[]) =>
      setLines((now) => changes.reduce((all, c) => put(all, c.key, c.change, () => newBomLine(0)), now)),
    [setLines],
  );
  const [tried, setTried] = useState(false);
  const once = useOnce();
  const act = useAct(acts.saveBom, {
    stay: true,
    said: () => `BOM of ${item.number} saved`,
    onDone: ({ id, version }) => {
      once.renew();
      setTried(false);
      typed.savedAs(version);
      if (isNew) {
        typed.keep(saved);
        router.push(`/items/${item.id}/bom?version=${id}`);
      }
    },
  });
  const dropping = useAct(acts.removeBom, {
    said: () => 'Version removed',
    onDone: () => router.push(`/items/${item.id}/bom`),
  });
  const read = useMemo(() => readBomLines(lines), [lines]);
  const days = wholeDays(value.makingDays);
  const save = () => {
    setTried(true);
    if (read.faults.length > 0 || Number.isNaN(days)) return;
    void act.run({
      once: once.key(),
      ...{ itemId: item.id, bomId: isNew ? null : bom.id, version: typed.version },
      ...{ fromDay: value.fromDay, note: value.note, makingDays: days, lines: read.value },
    });
  };
  const changed = JSON.stringify(value) !== JSON.stringify(saved.value);
  const mayKeep = may('keep BOMs');
  useKey('Ctrl+Enter', 'Save BOM', save, mayKeep && changed && !act.busy && !typed.waits);
  const faults = [...(tried ? read.faults : unknownWords(read.faults)), ...act.refusals];
  const takeOff = (line: BomLineText) => {
    steps.step();
    setLines((now) => now.filter((l) => l.key !== line.key));
    toast(`${line.description || 'The line'}: line removed`, { action: { label: 'Undo', onClick: steps.undo } });
  };
  return {
    ...{ bom, isNew, value, lines, steps, setLines, onApply, typed, days, faults, changed, mayKeep, act, dropping },
    ...{ save, takeOff },
    type: (name: keyof Omit<TypedBom, 'lines'>, text: string) => set((now) => ({ ...now, [name]: text })),
    remove: () => bom !== undefined && void dropping.run({ bomId: bom.id, version: bom.version }),
  };
}
