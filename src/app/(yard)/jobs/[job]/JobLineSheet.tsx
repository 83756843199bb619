'use client';

import { useMemo, useState } from 'react';
import type { Choice } from '@/queries/frame/choices';
import type { EntryColumn } from '@/ui/entry/column';
import { EntrySheet } from '@/ui/entry/EntrySheet';
import type { JobLineText } from '@/ui/jobs/jobLineText';
import { later } from '@/ui/acting/later';
import { useYard } from '@/ui/frame/YardContext';
import type { Making } from '../../_shared/items/InPassing';
import { jobLineColumns } from './jobLineColumns';
import type { useLines } from './useLines';

const InPassing = later(() => import('../../_shared/items/InPassing'));

type Props<L extends JobLineText> = {
  readonly label: string;
  readonly sheet: Pick<ReturnType<typeof useLines<L>>, 'lines' | 'blank' | 'onApply' | 'steps'>;
  /** How many lines stand before those that are shown. */
  readonly before: number;
  /** The columns, from those that quotes and buy lists have in common; the same function every time. */
  readonly columnsOf: (
    common: ReturnType<typeof jobLineColumns<L & JobLineText>>,
    currency: string,
  ) => EntryColumn<L>[];
  readonly faultsOf: (line: L) => Readonly<Record<string, string>> | undefined;
  readonly onTakeOff: (line: L) => void;
  readonly onMove?: (key: string, to: string) => void;
};

/** Lines of a quote or of a buy list, filled in where they stand; parts and suppliers are made in passing. */
export function JobLineSheet<L extends JobLineText>(props: Props<L>) {
  const { sheet, before, columnsOf, ...rest } = props;
  const { lines, blank, onApply, steps } = sheet;
  const { currency, may } = useYard();
  const [making, setMaking] = useState<Making & { readonly key: string }>();
  const [money, mayMake] = [may('see money'), may('keep suppliers')];
  const columns = useMemo(() => {
    const onMake = (kind: Making['kind'], line: L, typed: string) => setMaking({ kind, typed, key: line.key });
    return columnsOf(jobLineColumns<L>({ currency, money, onMake: mayMake ? onMake : undefined }), currency);
  }, [columnsOf, currency, money, mayMake]);
  const placeOf = (line: L) => before + 1 + (lines.includes(line) ? lines.indexOf(line) : lines.length);
  const take = (column: string, thing: Choice) =>
    onApply([
      {
        key: making?.key ?? '',
        change: (line) => {
          const entry = columns.find((c) => c.key === column)?.entry;
          return entry?.kind === 'pick' ? entry.take(line, thing) : line;
        },
      },
    ]);
  return (
    <>
      <EntrySheet
        {...rest}
        columns={columns}
        rows={lines}
        keyOf={(l) => l.key}
        nameOf={(l) => `Line ${placeOf(l)}`}
        headOf={placeOf}
        blank={blank}
        steps={steps}
        onApply={onApply}
      />
      {making !== undefined && (
        <InPassing
          making={making}
          onClose={() => setMaking(undefined)}
          onItem={(item) => take('description', item)}
          onSupplier={(supplier) => take('supplier', supplier)}
        />
      )}
    </>
  );
}
