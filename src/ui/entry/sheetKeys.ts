import { flushSync } from 'react-dom';
import type { KeyboardEvent } from 'react';
import { copied, fills } from './column';
import { below, nextFilled, step, type Spot } from './moves';
import type { SheetProps } from './sheet';
import type { Marking } from './useMark';

/** A ditto mark, pressed on a cell, copies what stands above. */
export const DITTO = '"';

/** A key pressed in the field of a cell. */
export function editingKey<Row>(event: KeyboardEvent, { steps }: SheetProps<Row>, marking: Marking<Row>): void {
  const { at, shape, runRef: run, go, settle, stop } = marking;
  const { key, defaultPrevented: taken } = event;
  if (event.ctrlKey && key === 'Enter') flushSync(settle);
  if (event.ctrlKey || event.metaKey || event.altKey) return;
  if (key === 'Escape' && !taken) {
    // A field that took the key has put itself back; else the cell is as it was, and what was typed can be done again.
    event.preventDefault();
    steps.cancel();
    return go(at);
  }
  const onward = (spot: Spot | undefined) => {
    event.preventDefault();
    settle();
    go(spot ?? at);
  };
  if (key === 'Tab') {
    run.current ??= at.col;
    const next = nextFilled(shape, at, event.shiftKey ? -1 : 1);
    if (next !== undefined) return onward(next);
    settle();
    return stop();
  }
  if (key === 'Enter') {
    const from = { row: at.row, col: run.current ?? at.col };
    run.current = undefined;
    return onward(event.shiftKey ? step(shape, at, 'ArrowUp', false) : below(shape, from));
  }
  if ((key === 'ArrowDown' || key === 'ArrowUp') && !taken) onward(step(shape, at, key, false));
}

/** A key pressed on a cell that is marked. */
export function cellKey<Row>(event: KeyboardEvent, props: SheetProps<Row>, marking: Marking<Row>): void {
  const { steps, onOpen, onTakeOff, onMove, onPart } = props;
  const { at, all, keys, row, column, shape, runRef: run, go, begin, apply } = marking;
  const { key } = event;
  if (row === undefined || event.metaKey) return;
  const does = (what: () => void) => {
    event.preventDefault();
    event.stopPropagation();
    what();
  };
  if (event.altKey) {
    const to = key === 'ArrowUp' ? keys[at.row - 1] : key === 'ArrowDown' ? keys[at.row + 1] : undefined;
    if (to !== undefined && onMove !== undefined) does(() => onMove(keys[at.row] ?? '', to));
    return;
  }
  if (event.ctrlKey) {
    if (key === 'z') does(steps.undo);
    if (key === 'y') does(steps.redo);
    const far = step(shape, at, key, true);
    if (far !== undefined && (key === 'Home' || key === 'End')) does(() => go(far));
    return;
  }
  const moved = step(shape, at, key, false);
  if (moved !== undefined) {
    run.current = undefined;
    return does(() => go(moved));
  }
  if (key === 'Tab') {
    const next = nextFilled(shape, at, event.shiftKey ? -1 : 1);
    if (next === undefined) return;
    run.current ??= at.col;
    return does(() => go(next));
  }
  if (key === 'Enter' || key === 'F2') return does(() => (fills(column, row) ? begin(at, {}) : onOpen?.(row)));
  if (key === 'Delete' || key === 'Backspace') {
    if (column === undefined) return does(() => onTakeOff?.(row));
    const { entry } = column;
    if (entry !== undefined && fills(column, row))
      does(() => apply((now) => (entry.kind === 'pick' ? entry.take(entry.put(now, ''), null) : entry.put(now, ''))));
    return;
  }
  if (key === '+' && onPart !== undefined && column?.entry?.kind !== 'text')
    return does(() => {
      const to = onPart(row);
      if (to !== undefined) marking.goWhenThere(to);
    });
  if (key === DITTO && column !== undefined && fills(column, row)) {
    const above = all.slice(0, at.row).findLast((r) => fills(column, r));
    if (above !== undefined) does(() => apply((now) => copied(column, above, now)));
    return;
  }
  if (key.length === 1 && key !== '/' && key !== '?' && fills(column, row))
    does(() => begin(at, { begin: key === ' ' ? '' : key }));
}
