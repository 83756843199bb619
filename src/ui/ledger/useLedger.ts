'use client';

import {
  columnGroupingFeature,
  columnOrderingFeature,
  columnVisibilityFeature,
  createGroupedRowModel,
  createSortedRowModel,
  rowSortingFeature,
  tableFeatures,
  useTable,
  type ColumnDef,
  type SortingState,
} from '@tanstack/react-table';
import { useMemo, useState } from 'react';
import type { Column, Groups, Key } from './column';
import { useList, type Listed } from './Listed';

const features = tableFeatures({
  rowSortingFeature,
  columnOrderingFeature,
  columnVisibilityFeature,
  columnGroupingFeature,
  sortedRowModel: createSortedRowModel(),
  groupedRowModel: createGroupedRowModel(),
});
type Features = typeof features;

const inOrder = (x: unknown, y: unknown): number =>
  typeof x === 'number' && typeof y === 'number'
    ? x - y
    : String(x).localeCompare(String(y), 'en-GB', { numeric: true });

/** The heading of a group, or a row and its place among all rows. */
export type Entry<Row> =
  { readonly group: readonly Row[]; readonly key: string } | { readonly row: Row; readonly index: number };

const GROUP = 'group of the row';

type Options<Row> = {
  readonly rows: readonly Row[];
  readonly columns: readonly Column<Row>[];
  readonly keyOf: (row: Row) => Key;
  readonly listed: Listed | undefined;
  readonly groups: Groups<Row> | undefined;
};

/** Rows sorted and grouped, and the columns that are shown in their order. */
export function useLedger<Row extends object>({ rows, columns, keyOf, listed, groups }: Options<Row>) {
  const [own, setOwn] = useState<SortingState>([]);
  const list = useList(listed);
  const known = useMemo(() => new Map(columns.map((c) => [c.key, c])), [columns]);
  const definitions = useMemo(() => {
    const shown = columns.map((c): ColumnDef<Features, Row> => ({
      id: c.key,
      accessorFn: c.by ?? (() => ''),
      enableSorting: listed === undefined ? c.by !== undefined : listed.sorts.includes(c.key),
      sortFn: (one, other, key) => inOrder(one.getValue(key), other.getValue(key)),
    }));
    return groups === undefined ? shown : [{ id: GROUP, accessorFn: groups.of, enableSorting: false }, ...shown];
  }, [columns, listed, groups]);
  const table = useTable({
    features,
    data: rows as Row[],
    columns: definitions,
    getRowId: (row) => String(keyOf(row)),
    manualSorting: listed !== undefined,
    sortDescFirst: false,
    state: {
      sorting: listed === undefined ? own : list.sorting,
      grouping: groups === undefined ? [] : [GROUP],
      columnOrder: list.order(columns.map((c) => c.key)),
      columnVisibility: Object.fromEntries([GROUP, ...list.hidden(columns)].map((key) => [key, false])),
    },
    onSortingChange: listed === undefined ? setOwn : list.onSorting,
  });
  const entries: Entry<Row>[] = [];
  let index = 0;
  for (const line of table.getRowModel().rows) {
    const inside = line.subRows.length > 0 ? line.subRows : [line];
    if (inside !== undefined && line.subRows.length > 0)
      entries.push({ key: line.id, group: inside.map((r) => r.original) });
    for (const r of inside) entries.push({ row: r.original, index: index++ });
  }
  const shown = table.getVisibleLeafColumns().flatMap((column) => {
    const c = known.get(column.id);
    return c === undefined ? [] : [{ column, ...c }];
  });
  return { list, entries, shown };
}
