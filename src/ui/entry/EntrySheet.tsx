'use client';

import {
  closestCenter,
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
  type DragEndEvent,
} from '@dnd-kit/core';
import { SortableContext, verticalListSortingStrategy } from '@dnd-kit/sortable';
import { useRef, useSyncExternalStore, type KeyboardEvent, type MouseEvent } from 'react';
import { useKey, useToldKey } from '../frame/keys';
import { EntryRow } from './EntryRow';
import type { SheetProps } from './sheet';
import { cellKey, DITTO, editingKey } from './sheetKeys';
import { useMark } from './useMark';
import { usePaste } from './usePaste';

/** So many rows are drawn only as they come into view. */
const LONG = 60;
/** So many fill a screen. */
const SCREEN = 25;

/** The server sends the first rows of a long sheet; the browser draws the others at once. */
const never = () => () => {};

/**
 * Rows filled in where they stand, like cells of a spreadsheet. Typing replaces a cell, F2 or Enter changes it, Tab and
 * Enter move on, arrows too; a ditto mark copies from above; rows are pasted, dragged and taken off.
 */
export function EntrySheet<Row>(props: SheetProps<Row>) {
  const { label, columns, rows, blank, onMove, onPart } = props;
  const box = useRef<HTMLDivElement>(null);
  const marking = useMark(props, box);
  const { all, keys, cols, at, edit, runRef, go } = marking;
  const paste = usePaste(props, marking);
  const upTo = useSyncExternalStore(
    never,
    () => Infinity,
    () => SCREEN,
  );
  const onKeyDown = (event: KeyboardEvent<HTMLElement>) => {
    const target = event.target as HTMLElement;
    const role = target.getAttribute('role');
    if (target.closest('[role="gridcell"],[role="rowheader"]') === null || target.closest('.entry-detail') !== null)
      return;
    if (edit !== undefined && target.tagName === 'INPUT') editingKey(event, props, marking);
    else if (role === 'gridcell' || role === 'rowheader') cellKey(event, props, marking);
  };
  const onClick = (event: MouseEvent) => {
    const cell = (event.target as HTMLElement).closest<HTMLElement>('[data-col]');
    const row = cell?.closest<HTMLElement>('[data-row]')?.dataset.row;
    if (cell === null || row === undefined || (event.target as HTMLElement).closest('button,input,a,select') !== null)
      return;
    runRef.current = undefined;
    const spot = { row: keys.indexOf(row), col: cols.indexOf(cell.dataset.col ?? '') };
    go(spot, cell.dataset.fills === undefined ? undefined : {});
  };

  useKey('ArrowDown', 'Enter the sheet', () => go(at));
  useKey('N', 'New line', () => go({ row: all.length - 1, col: 1 }), blank !== undefined);
  useToldKey('Enter', 'Edit cell, or open the line from its number');
  useToldKey('Tab', 'Next cell; Enter starts the next line');
  useToldKey(DITTO, 'Copy from line above');
  useToldKey('Delete', 'Clear cell, or remove the line from its number');
  useToldKey('Alt+↑↓', 'Move the line', onMove !== undefined);
  useToldKey('+', 'Split to another job', onPart !== undefined);
  useToldKey('Ctrl+Z', 'Undo; Ctrl+Y redoes');

  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 6 } }),
    useSensor(KeyboardSensor, { keyboardCodes: { start: [], cancel: [], end: [] } }),
  );
  const onDragEnd = ({ active, over }: DragEndEvent) => {
    if (over !== null && over.id !== active.id) onMove?.(String(active.id), String(over.id));
  };
  const template = `28px ${columns.map((c) => c.width).join(' ')} 26px`;
  return (
    <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={onDragEnd}>
      <div
        ref={box}
        role="grid"
        aria-label={label}
        aria-rowcount={all.length + 1}
        aria-colcount={cols.length + 1}
        className={`entry-sheet ${all.length > LONG ? 'entry-long' : ''}`}
        style={{ ['--entry-columns' as string]: template }}
        onKeyDown={onKeyDown}
        onPaste={(e) => void paste(e)}
        onCopy={(e) => {
          const { row, column } = marking;
          const text = row === undefined || edit !== undefined ? undefined : column?.entry?.text(row);
          if (text === undefined) return;
          e.preventDefault();
          e.clipboardData.setData('text/plain', text);
        }}
        onClick={onClick}
        onFocus={marking.onFocus}
        onBlur={marking.onBlur}
      >
        <div role="row" aria-rowindex={1} className="entry-row entry-heads">
          <span role="columnheader" className="entry-head">
            <span className="sr-only">Line</span>
          </span>
          {columns.map((c) => (
            <span key={c.key} role="columnheader" className={`entry-head ${c.num === true ? 'num' : ''}`}>
              {c.title}
            </span>
          ))}
          <span role="columnheader">
            <span className="sr-only">Remove</span>
          </span>
        </div>
        <SortableContext items={keys} strategy={verticalListSortingStrategy}>
          {all.slice(0, upTo).map((row, k) => {
            const key = keys[k] ?? '';
            const here = k === at.row;
            return (
              <EntryRow
                key={key}
                sheet={props}
                row={row}
                index={k}
                blank={k === rows.length}
                open={props.openOf?.(row)}
                faults={props.faultsOf(row)}
                marked={here ? cols[at.col] : undefined}
                edit={here ? edit : undefined}
                detail={props.detail?.(row)}
              />
            );
          })}
        </SortableContext>
      </div>
    </DndContext>
  );
}
