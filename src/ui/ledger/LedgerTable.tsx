'use client';

import { useVirtualizer } from '@tanstack/react-virtual';
import { useRouter } from 'next/navigation';
import { useEffect, useEffectEvent, useRef, useState, type MouseEvent, type ReactNode } from 'react';
import { useKey } from '../frame/keys';
import { Box } from './Box';
import type { Column, Groups, Key, Picks } from './column';
import { BodyCell, FootCell, GroupRow, HeadCell } from './LedgerCells';
import { ListFoot, type Listed } from './Listed';
import { ListColumns } from './ListColumns';
import { useLedger, type Entry } from './useLedger';
import { usePicking } from './usePicking';

type Props<Row> = {
  readonly rows: readonly Row[];
  readonly columns: readonly Column<Row>[];
  readonly keyOf: (row: Row) => Key;
  readonly label: string;
  /** Where Enter and a click on the row lead. */
  readonly hrefOf?: (row: Row) => string;
  readonly onOpen?: (row: Row) => void;
  /** A list of the company, of which a page is shown: sorted by the server, its columns chosen by each person. */
  readonly list?: Listed | undefined;
  /** Rows that can be picked, for one action on many. */
  readonly picks?: Picks<Row> | undefined;
  /** A click on a row picks it, where most rows are picked and few are opened. */
  readonly clickPicks?: true;
  readonly groups?: Groups<Row> | undefined;
  /** What all rows come to, by column. */
  readonly foot?: Readonly<Record<string, ReactNode>> | undefined;
  readonly toneOf?: (row: Row) => string;
  /** A phone shows all columns, and names each value. */
  readonly whole?: boolean;
  readonly className?: string;
  /** There is more than these rows: called when one comes to their end. */
  readonly onEnd?: (() => void) | undefined;
};

/** So near to the last row one is at the end. */
const NEAR = 40;
const VIRTUAL_FROM = 150;
const ROW = 34;

const placed = <Row,>(entry: Entry<Row> | undefined, place: number) => (entry === undefined ? [] : [{ entry, place }]);

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
  clickPicks,
  groups,
  foot,
  toneOf,
  whole = false,
  className = '',
  onEnd,
}: Props<Row>) {
  const { list, entries, shown } = useLedger({ rows, columns, keyOf, listed, groups });
  const sorted = entries.flatMap((e) => ('row' in e ? e.row : []));
  const { isPicked, pick, put } = usePicking(picks, keyOf, sorted);
  const [at, setAt] = useState(-1);
  const box = useRef<HTMLDivElement>(null);
  const router = useRouter();

  const open = (row: Row | undefined) => {
    if (row === undefined) return;
    if (onOpen !== undefined) onOpen(row);
    else if (hrefOf !== undefined) router.push(hrefOf(row));
  };
  const opens = onOpen !== undefined || hrefOf !== undefined;
  const moves = (opens || picks !== undefined) && sorted.length > 0;
  const moveTo = (next: number) => {
    const index = Math.max(0, Math.min(sorted.length - 1, next));
    setAt(index);
    // The keys belong to the row that is marked now, and not to a box or button that was clicked before.
    if (document.activeElement instanceof HTMLElement) document.activeElement.blur();
    virtual.scrollToIndex(entries.findIndex((e) => 'row' in e && e.index === index));
    box.current?.querySelector(`[data-index="${index}"]`)?.scrollIntoView({ block: 'nearest' });
  };
  useKey('ArrowDown', 'Next row', () => moveTo(at + 1), moves);
  useKey('ArrowUp', 'Previous row', () => moveTo(at - 1), moves);
  useKey('Enter', 'Open row', () => open(sorted[at]), opens && at >= 0);
  useKey('Space', 'Select row', () => pick(at, false), picks !== undefined && at >= 0);

  const onClick = (event: MouseEvent, row: Row, index: number) => {
    setAt(index);
    if ((event.target as HTMLElement).closest('a,button,input,select,label')) return;
    if (picks !== undefined && (clickPicks || event.ctrlKey || event.metaKey || event.shiftKey))
      pick(index, event.shiftKey);
    else open(row);
  };

  const long = entries.length > VIRTUAL_FROM || onEnd !== undefined;
  // eslint-disable-next-line react-hooks/incompatible-library -- the virtualizer keeps its own state
  const virtual = useVirtualizer({
    count: long ? entries.length : 0,
    getScrollElement: () => document.getElementById('sheet-scroll'),
    estimateSize: () => ROW,
    overscan: 20,
    indexAttribute: 'data-entry',
  });
  const inView = virtual.getVirtualItems();
  const drawn = long ? inView.flatMap((v) => placed(entries[v.index], v.index)) : entries.flatMap(placed);
  const near = long && (inView.at(-1)?.index ?? 0) >= entries.length - NEAR;
  const atEnd = useEffectEvent(() => onEnd?.());
  useEffect(() => {
    if (near) atEnd();
  }, [near, entries.length]);
  const before = picks === undefined ? 0 : 1;
  const span = shown.length + before + (listed === undefined ? 0 : 1);
  const gap = (height: number) =>
    long &&
    height > 0 && (
      <tr aria-hidden>
        <td colSpan={span} style={{ height, padding: 0, border: 0 }} />
      </tr>
    );

  return (
    <div ref={box} className="relative max-phone:overflow-x-auto">
      <table className={`ledger ledger-rows ${className}`} aria-label={label} aria-rowcount={sorted.length}>
        <thead>
          <tr>
            {picks !== undefined && (
              <th className="w-[34px]">
                <span className="sr-only">Selected</span>
              </th>
            )}
            {shown.map((c) => (
              <HeadCell key={c.key} column={c} />
            ))}
            {listed !== undefined && (
              <th className="w-[30px] !px-0 max-phone:hidden print:hidden">
                <ListColumns list={list} columns={columns} />
              </th>
            )}
          </tr>
        </thead>
        <tbody>
          {gap(inView[0]?.start ?? 0)}
          {drawn.map(({ entry, place }) => {
            const measured = long ? { ref: virtual.measureElement, 'data-entry': place } : {};
            if ('group' in entry) {
              return (
                <GroupRow key={entry.key} group={entry.group} {...{ span, picks, groups, isPicked, put, measured }} />
              );
            }
            const { row, index } = entry;
            return (
              <tr
                key={keyOf(row)}
                {...measured}
                data-index={index}
                data-at={index === at}
                data-picked={picks === undefined ? undefined : isPicked(row)}
                aria-rowindex={index + 1}
                className={`${opens || clickPicks ? 'cursor-pointer hover:bg-glaze-2' : ''} ${toneOf?.(row) ?? ''}`}
                onClick={(e) => onClick(e, row, index)}
              >
                {picks !== undefined && (
                  <td className="row-pick">
                    {picks.may(row) && (
                      <Box label={picks.words(row)} picked={isPicked(row)} onPick={(stretch) => pick(index, stretch)} />
                    )}
                  </td>
                )}
                {shown.map((c) => (
                  <BodyCell key={c.key} column={c} whole={whole} row={row} />
                ))}
                {listed !== undefined && <td className="max-phone:hidden print:hidden" />}
              </tr>
            );
          })}
          {gap(virtual.getTotalSize() - (inView.at(-1)?.end ?? 0))}
          {foot !== undefined && (
            <tr className="whole">
              {picks !== undefined && <td />}
              {shown.map((c) => (
                <FootCell key={c.key} column={c} whole={whole} value={foot[c.key]} />
              ))}
            </tr>
          )}
        </tbody>
        {listed !== undefined && <ListFoot list={listed} shown={rows.length} before={before} columns={shown} />}
      </table>
    </div>
  );
}
