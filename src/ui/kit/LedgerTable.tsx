'use client';

import {
  columnOrderingFeature,
  columnVisibilityFeature,
  createSortedRowModel,
  rowSortingFeature,
  tableFeatures,
  useTable,
  type ColumnDef,
  type SortingState,
} from '@tanstack/react-table';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useRouter } from 'next/navigation';
import { useMemo, useRef, useState, type ReactNode } from 'react';
import { useKey } from '../keys';
import { ListFoot, useList, type Listed } from './Listed';
import { ListColumns } from './ListColumns';

export type Column<Row> = {
  readonly key: string;
  readonly head: ReactNode;
  readonly cell: (row: Row) => ReactNode;
  /** What the column sorts by; without it the column does not sort. */
  readonly by?: (row: Row) => string | number;
  readonly num?: boolean;
  readonly className?: string;
  /** Left out until a person chooses it. */
  readonly extra?: true;
  /** Left out on a phone, where the first column tells it in its second line. */
  readonly wide?: boolean;
};

type Props<Row> = {
  readonly rows: readonly Row[];
  readonly columns: readonly Column<Row>[];
  readonly keyOf: (row: Row) => string | number;
  readonly label: string;
  /** Where Enter and a click on the row lead. */
  readonly hrefOf?: (row: Row) => string;
  readonly onOpen?: (row: Row) => void;
  /** A list of the company, of which a page is shown: sorted by the server, its columns chosen by each person. */
  readonly list?: Listed | undefined;
  /** Rows that can be picked, for one action on many. */
  readonly picks?: Picks<Row> | undefined;
};

type Key = string | number;

export type Picks<Row> = {
  readonly picked: ReadonlySet<Key>;
  readonly onPick: (keys: ReadonlySet<Key>) => void;
  readonly may: (row: Row) => boolean;
  /** What a row’s box is called. */
  readonly words: (row: Row) => string;
};

const VIRTUAL_FROM = 150;
const ROW = 34;

const features = tableFeatures({
  rowSortingFeature,
  columnOrderingFeature,
  columnVisibilityFeature,
  sortedRowModel: createSortedRowModel(),
});
type Features = typeof features;

const inOrder = (x: unknown, y: unknown): number =>
  typeof x === 'number' && typeof y === 'number'
    ? x - y
    : String(x).localeCompare(String(y), 'en-GB', { numeric: true });

/** A ledger: columns sort and are chosen, arrows move the row, Enter opens it; a long one draws only the rows in view. */
export function LedgerTable<Row extends object>({
  rows,
  columns,
  keyOf,
  label,
  hrefOf,
  onOpen,
  list: listed,
  picks,
}: Props<Row>) {
  const [own, setOwn] = useState<SortingState>([]);
  const list = useList(listed);
  const [at, setAt] = useState(-1);
  const last = useRef(-1);
  const box = useRef<HTMLDivElement>(null);
  const router = useRouter();
  const known = useMemo(() => new Map(columns.map((c) => [c.key, c])), [columns]);
  const definitions = useMemo(
    () =>
      columns.map((c): ColumnDef<Features, Row> => ({
        id: c.key,
        accessorFn: c.by ?? (() => ''),
        enableSorting: listed === undefined ? c.by !== undefined : listed.sorts.includes(c.key),
        sortFn: (one, other, key) => inOrder(one.getValue(key), other.getValue(key)),
      })),
    [columns, listed],
  );
  const table = useTable({
    features,
    data: rows as Row[],
    columns: definitions,
    getRowId: (row) => String(keyOf(row)),
    manualSorting: listed !== undefined,
    sortDescFirst: false,
    state: {
      sorting: listed === undefined ? own : list.sorting,
      columnOrder: list.order(columns.map((c) => c.key)),
      columnVisibility: Object.fromEntries(list.hidden(columns).map((key) => [key, false])),
    },
    onSortingChange: listed === undefined ? setOwn : list.onSorting,
  });
  const sorted = table.getRowModel().rows.map((r) => r.original);
  const shownColumns = table.getVisibleLeafColumns();

  const open = (row: Row | undefined) => {
    if (row === undefined) return;
    if (onOpen !== undefined) onOpen(row);
    else if (hrefOf !== undefined) router.push(hrefOf(row));
  };
  const opens = onOpen !== undefined || hrefOf !== undefined;
  const moveTo = (next: number) => {
    const index = Math.max(0, Math.min(sorted.length - 1, next));
    setAt(index);
    // The keys belong to the row that is marked now, and not to a box that was clicked before.
    if (document.activeElement instanceof HTMLInputElement) document.activeElement.blur();
    virtual.scrollToIndex(index);
    box.current?.querySelector(`[data-index="${index}"]`)?.scrollIntoView({ block: 'nearest' });
  };
  useKey('ArrowDown', 'Next row', () => moveTo(at + 1), sorted.length > 0);
  useKey('ArrowUp', 'Row before', () => moveTo(at - 1), sorted.length > 0);
  useKey('Enter', 'Open the row', () => open(sorted[at]), opens && at >= 0);

  /** Picks a row or puts it back; with Shift, all from the last one up to it. */
  const pick = (index: number, whole: boolean) => {
    const row = sorted[index];
    if (picks === undefined || row === undefined || !picks.may(row)) return;
    const on = !picks.picked.has(keyOf(row));
    const [from, to] = whole && last.current >= 0 ? [last.current, index].sort((a, b) => a - b) : [index, index];
    const next = new Set(picks.picked);
    for (const r of sorted.slice(from, (to ?? index) + 1).filter(picks.may)) {
      if (on) next.add(keyOf(r));
      else next.delete(keyOf(r));
    }
    last.current = index;
    picks.onPick(next);
  };
  useKey('Space', 'Pick the row', () => pick(at, false), picks !== undefined && at >= 0);

  const long = sorted.length > VIRTUAL_FROM;
  // eslint-disable-next-line react-hooks/incompatible-library -- the virtualizer keeps its own state
  const virtual = useVirtualizer({
    count: long ? sorted.length : 0,
    getScrollElement: () => document.getElementById('sheet-scroll'),
    estimateSize: () => ROW,
    overscan: 20,
  });
  const inView = virtual.getVirtualItems();
  const first = inView[0]?.start ?? 0;
  const rest = long ? virtual.getTotalSize() - (inView.at(-1)?.end ?? 0) : 0;
  const shown = long ? inView.map((v) => v.index) : sorted.map((_, k) => k);
  const span = shownColumns.length + (picks === undefined ? 0 : 1) + (listed === undefined ? 0 : 1);

  return (
    <div ref={box} className="relative max-phone:overflow-x-auto">
      <table className="ledger" aria-label={label} aria-rowcount={sorted.length}>
        <thead>
          <tr>
            {picks !== undefined && (
              <th className="w-[34px]">
                <span className="sr-only">Picked</span>
              </th>
            )}
            {shownColumns.map((column) => {
              const c = known.get(column.id) as Column<Row>;
              const way = column.getIsSorted();
              return (
                <th
                  key={c.key}
                  scope="col"
                  aria-sort={way === false ? undefined : way === 'desc' ? 'descending' : 'ascending'}
                  className={`${c.num ? 'num' : ''} ${c.wide ? 'max-phone:hidden' : ''} ${c.className ?? ''}`}
                >
                  {!column.getCanSort() ? (
                    c.head
                  ) : (
                    <button type="button" onClick={() => column.toggleSorting()} className="hover:text-ink">
                      {c.head}
                      {way !== false && <span aria-hidden> {way === 'desc' ? '↓' : '↑'}</span>}
                    </button>
                  )}
                </th>
              );
            })}
            {listed !== undefined && (
              <th className="w-[30px] !px-0 max-phone:hidden print:hidden">
                <ListColumns list={list} columns={columns} />
              </th>
            )}
          </tr>
        </thead>
        <tbody>
          {long && first > 0 && (
            <tr aria-hidden>
              <td colSpan={span} style={{ height: first, padding: 0, border: 0 }} />
            </tr>
          )}
          {shown.map((index) => {
            const row = sorted[index] as Row;
            return (
              <tr
                key={keyOf(row)}
                data-index={index}
                data-at={index === at}
                data-picked={picks?.picked.has(keyOf(row))}
                aria-rowindex={index + 1}
                className={`${opens ? 'cursor-pointer hover:bg-glaze-2' : ''}`}
                onClick={(e) => {
                  setAt(index);
                  if (!(e.target as HTMLElement).closest('a,button,input,select')) open(row);
                }}
              >
                {picks !== undefined && (
                  <td>
                    {picks.may(row) && (
                      <input
                        type="checkbox"
                        aria-label={picks.words(row)}
                        className="size-[15px] accent-[var(--copper)]"
                        checked={picks.picked.has(keyOf(row))}
                        onClick={(e) => pick(index, e.shiftKey)}
                        onChange={() => undefined}
                      />
                    )}
                  </td>
                )}
                {shownColumns.map((column) => {
                  const c = known.get(column.id) as Column<Row>;
                  return (
                    <td
                      key={c.key}
                      className={`${c.num ? 'num' : ''} ${c.wide ? 'max-phone:hidden' : ''} ${c.className ?? ''}`}
                    >
                      {c.cell(row)}
                    </td>
                  );
                })}
                {listed !== undefined && <td className="max-phone:hidden print:hidden" />}
              </tr>
            );
          })}
          {long && rest > 0 && (
            <tr aria-hidden>
              <td colSpan={span} style={{ height: rest, padding: 0, border: 0 }} />
            </tr>
          )}
        </tbody>
        {listed !== undefined && (
          <ListFoot
            list={listed}
            shown={rows.length}
            before={picks === undefined ? 0 : 1}
            columns={shownColumns.map((column) => known.get(column.id) as Column<Row>)}
          />
        )}
      </table>
    </div>
  );
}
