'use client';

import { useVirtualizer } from '@tanstack/react-virtual';
import { useRouter } from 'next/navigation';
import { useMemo, useRef, useState, type ReactNode } from 'react';
import { useKey } from '../keys';

export type Column<Row> = {
  readonly key: string;
  readonly head: ReactNode;
  readonly cell: (row: Row) => ReactNode;
  /** What the column sorts by; without it the column does not sort. */
  readonly by?: (row: Row) => string | number;
  readonly num?: boolean;
  readonly className?: string;
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
  readonly foot?: ReactNode;
};

const VIRTUAL_FROM = 150;
const ROW = 34;

/** A ledger: columns sort, arrows move the row, Enter opens it; a long one draws only the rows in view. */
export function LedgerTable<Row>({ rows, columns, keyOf, label, hrefOf, onOpen, foot }: Props<Row>) {
  const [sort, setSort] = useState<{ key: string; down: boolean }>();
  const [at, setAt] = useState(-1);
  const box = useRef<HTMLDivElement>(null);
  const router = useRouter();
  const sorted = useMemo(() => {
    const by = columns.find((c) => c.key === sort?.key)?.by;
    if (by === undefined) return rows;
    const order = (a: Row, b: Row) => {
      const [x, y] = [by(a), by(b)];
      return typeof x === 'number' && typeof y === 'number'
        ? x - y
        : String(x).localeCompare(String(y), 'en-GB', { numeric: true });
    };
    return [...rows].sort((a, b) => (sort?.down ? order(b, a) : order(a, b)));
  }, [rows, columns, sort]);

  const open = (row: Row | undefined) => {
    if (row === undefined) return;
    if (onOpen !== undefined) onOpen(row);
    else if (hrefOf !== undefined) router.push(hrefOf(row));
  };
  const opens = onOpen !== undefined || hrefOf !== undefined;
  const moveTo = (next: number) => {
    const index = Math.max(0, Math.min(sorted.length - 1, next));
    setAt(index);
    virtual.scrollToIndex(index);
    box.current?.querySelector(`[data-index="${index}"]`)?.scrollIntoView({ block: 'nearest' });
  };
  useKey('ArrowDown', 'Next row', () => moveTo(at + 1), sorted.length > 0);
  useKey('ArrowUp', 'Row before', () => moveTo(at - 1), sorted.length > 0);
  useKey('Enter', 'Open the row', () => open(sorted[at]), opens && at >= 0);

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
  const toggle = (key: string) =>
    setSort((now) => (now?.key !== key ? { key, down: false } : now.down ? undefined : { key, down: true }));

  return (
    <div ref={box} className="max-phone:overflow-x-auto">
      <table className="ledger" aria-label={label} aria-rowcount={sorted.length}>
        <thead>
          <tr>
            {columns.map((c) => (
              <th
                key={c.key}
                scope="col"
                aria-sort={sort?.key === c.key ? (sort.down ? 'descending' : 'ascending') : undefined}
                className={`${c.num ? 'num' : ''} ${c.wide ? 'max-phone:hidden' : ''} ${c.className ?? ''}`}
              >
                {c.by === undefined ? (
                  c.head
                ) : (
                  <button type="button" onClick={() => toggle(c.key)} className="hover:text-ink">
                    {c.head}
                    {sort?.key === c.key && <span aria-hidden> {sort.down ? '↓' : '↑'}</span>}
                  </button>
                )}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {long && first > 0 && (
            <tr aria-hidden>
              <td colSpan={columns.length} style={{ height: first, padding: 0, border: 0 }} />
            </tr>
          )}
          {shown.map((index) => {
            const row = sorted[index] as Row;
            return (
              <tr
                key={keyOf(row)}
                data-index={index}
                data-at={index === at}
                aria-rowindex={index + 1}
                className={opens ? 'cursor-pointer hover:bg-glaze-2' : ''}
                onClick={(e) => {
                  setAt(index);
                  if (!(e.target as HTMLElement).closest('a,button,input,select')) open(row);
                }}
              >
                {columns.map((c) => (
                  <td
                    key={c.key}
                    className={`${c.num ? 'num' : ''} ${c.wide ? 'max-phone:hidden' : ''} ${c.className ?? ''}`}
                  >
                    {c.cell(row)}
                  </td>
                ))}
              </tr>
            );
          })}
          {long && rest > 0 && (
            <tr aria-hidden>
              <td colSpan={columns.length} style={{ height: rest, padding: 0, border: 0 }} />
            </tr>
          )}
        </tbody>
        {foot}
      </table>
    </div>
  );
}
