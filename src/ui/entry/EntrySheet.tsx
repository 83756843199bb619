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
import { flushSync } from 'react-dom';
import {
  useLayoutEffect,
  useMemo,
  useRef,
  useState,
  type ClipboardEvent,
  type KeyboardEvent,
  type MouseEvent,
} from 'react';
import { toast } from 'sonner';
import { readTypedDay } from '@/core/calendar/typed';
import type { Thing, ThingKind } from '@/queries/things';
import { ask, asJson } from '../ask';
import { useKey, useToldKey } from '../keys';
import { useYard } from '../YardContext';
import { copied, fills, type EntryColumn } from './column';
import type { Edit } from './EntryCell';
import { EntryRow } from './EntryRow';
import type { Steps } from './useSteps';
import { below, nextFilled, step, type Shape, type Spot } from './moves';
import { layOut, meaningsOf, MOST_PASTED, putRow, readPasted, wordsOf } from './paste';
import { grouped } from '@/core/words';

export type EntryChange<Row> = { readonly key: string; readonly change: (row: Row) => Row };

/** What stands at the head of a row, before its first column. */
const HEAD = { key: '#' } as const;
/** A ditto mark, pressed on a cell, copies what stands above. */
const DITTO = '"';
/** So many rows are drawn only as they come into view. */
const LONG = 60;

type Props<Row> = {
  readonly label: string;
  readonly columns: readonly EntryColumn<Row>[];
  readonly rows: readonly Row[];
  /** The row that is filled in next: the n-th new one from here, from 0. The first stands at the foot of the sheet. */
  readonly blank: ((n: number) => Row) | undefined;
  /** A row that was added beside the sheet: its first cell is filled in next. */
  readonly begin?: { readonly key: string } | undefined;
  readonly keyOf: (row: Row) => string;
  /** What a screen reader calls a row, such as “Line 3”. */
  readonly nameOf: (row: Row) => string;
  /** What stands at the head of a row: its number, mostly. */
  readonly headOf: (row: Row) => React.ReactNode;
  /** 1 for a row, 2 for a part of the one above it. */
  readonly levelOf?: (row: Row) => number;
  /** Whether what belongs to the row stands open below it; undefined where nothing can. */
  readonly openOf?: (row: Row) => boolean | undefined;
  /** What is wrong in a row, by column. */
  readonly faultsOf: (row: Row) => Readonly<Record<string, string>> | undefined;
  /** Whether a row is drawn as another was; by default the very same one is. */
  readonly sameRow?: (one: Row, other: Row) => boolean;
  /** Puts changes into rows, in this order. A key of a blank row makes it a row. */
  readonly onApply: (changes: readonly EntryChange<Row>[]) => void;

  readonly steps: Steps;
  readonly onOpen?: (row: Row) => void;
  readonly onTakeOff?: (row: Row) => void;
  readonly onMove?: (key: string, to: string) => void;
  /** Adds a part to a row, and says where that is filled in. */
  readonly onPart?: (row: Row) => Mark | undefined;
  /** What stands below a row; undefined for nothing. */
  readonly detail?: (row: Row) => React.ReactNode;
};

type Mark = { readonly row: string; readonly col: string };

/**
 * Rows filled in where they stand, like cells of a spreadsheet. Typing replaces a cell, F2 or Enter changes it, Tab and
 * Enter move on, arrows too; a ditto mark copies from above; rows are pasted, dragged and taken off.
 */
export function EntrySheet<Row>(props: Props<Row>) {
  const { label, columns, rows, blank, keyOf, onApply, steps, onOpen, onTakeOff, onMove, onPart } = props;
  const yard = useYard();
  const box = useRef<HTMLDivElement>(null);
  const all = useMemo(() => (blank === undefined ? rows : [...rows, blank(0)]), [rows, blank]);
  const keys = useMemo(() => all.map(keyOf), [all, keyOf]);
  const cols = useMemo(() => [HEAD.key, ...columns.map((c) => c.key)], [columns]);
  /** With the row's place: a row that was saved has another key, and is found there again. */
  const [mark, setMark] = useState<Mark & { readonly place: number }>();
  const focused = useRef(false);
  const [edit, setEdit] = useState<Edit>();
  const [begun, setBegun] = useState(props.begin);
  if (props.begin !== begun) {
    setBegun(props.begin);
    setMark({ row: props.begin?.key ?? '', col: columns[0]?.key ?? '', place: rows.length - 1 });
    setEdit({});
  }
  /** The column in which a run of Tabs began: Enter goes on below it. */
  const run = useRef<number>(undefined);
  const columnAt = (col: number) => columns[col - 1];
  const shape: Shape = {
    rows: all.length,
    cols: cols.length,
    fills: ({ row, col }) => all[row] !== undefined && fills(columnAt(col), all[row]),
  };
  const known = mark === undefined ? 0 : keys.indexOf(mark.row);
  const at: Spot = {
    row: known >= 0 ? known : Math.min(mark?.place ?? 0, all.length - 1),
    col: mark === undefined ? 1 : Math.max(0, cols.indexOf(mark.col)),
  };
  const wantsFocus = useRef(false);
  const go = (spot: Spot | undefined, how?: Edit) => {
    if (spot === undefined) return;
    wantsFocus.current = how === undefined;
    setMark({ row: keys[spot.row] ?? '', col: cols[spot.col] ?? '', place: spot.row });
    setEdit(undefined);
    if (how !== undefined) begin(spot, how);
  };
  const begin = (spot: Spot, how: Edit) => {
    const row = all[spot.row];
    if (row === undefined || !fills(columnAt(spot.col), row)) return;
    steps.step();
    setEdit(how);
  };
  useLayoutEffect(() => {
    const lost = focused.current && document.activeElement === document.body;
    if (!wantsFocus.current && !lost) return;
    const cell = cellAt(box.current, { row: keys[at.row] ?? '', col: cols[at.col] ?? '' });
    if (cell === null || cell === undefined || edit !== undefined) return;
    wantsFocus.current = false;
    cell.focus();
  });

  const apply = (row: number, change: (row: Row) => Row) => {
    steps.step();
    onApply([{ key: keys[row] ?? '', change }]);
  };
  /** What is typed in an open field is put down before the mark moves on. */
  const settle = () => {
    if (edit !== undefined && document.activeElement instanceof HTMLElement) document.activeElement.blur();
  };

  const editingKey = (event: KeyboardEvent): void => {
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
      return setEdit(undefined);
    }
    if (key === 'Enter') {
      const from = { row: at.row, col: run.current ?? at.col };
      run.current = undefined;
      return onward(event.shiftKey ? step(shape, at, 'ArrowUp', false) : below(shape, from));
    }
    if ((key === 'ArrowDown' || key === 'ArrowUp') && !taken) onward(step(shape, at, key, false));
  };

  const cellKey = (event: KeyboardEvent): void => {
    const { key } = event;
    const row = all[at.row];
    const column = columnAt(at.col);
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
        does(() =>
          apply(at.row, (now) => (entry.kind === 'pick' ? entry.take(entry.put(now, ''), null) : entry.put(now, ''))),
        );
      return;
    }
    if (key === '+' && onPart !== undefined && column?.entry?.kind !== 'text')
      return does(() => {
        const to = onPart(row);
        wantsFocus.current = to !== undefined;
        if (to !== undefined) setMark({ ...to, place: at.row });
      });
    if (key === DITTO && column !== undefined && fills(column, row)) {
      const above = all.slice(0, at.row).findLast((r) => fills(column, r));
      if (above !== undefined) does(() => apply(at.row, (now) => copied(column, above, now)));
      return;
    }
    if (key.length === 1 && key !== '/' && key !== '?' && fills(column, row))
      does(() => begin(at, { begin: key === ' ' ? '' : key }));
  };

  const onKeyDown = (event: KeyboardEvent<HTMLElement>) => {
    const target = event.target as HTMLElement;
    if (target.closest('[role="gridcell"],[role="rowheader"]') === null || target.closest('.entry-detail') !== null)
      return;
    if (edit !== undefined && target.tagName === 'INPUT') return editingKey(event);
    if (target.getAttribute('role') !== null && ['gridcell', 'rowheader'].includes(target.getAttribute('role') ?? ''))
      cellKey(event);
  };

  const onPaste = async (event: ClipboardEvent) => {
    if (edit !== undefined || (event.target as HTMLElement).closest('.entry-detail,input')) return;
    const pasted = readPasted(event.clipboardData.getData('text/plain'));
    event.preventDefault();
    if (pasted.length > MOST_PASTED) {
      toast.error(`${grouped(pasted.length)} rows were copied; paste at most ${grouped(MOST_PASTED)} at a time.`);
      return;
    }
    const laid = layOut(pasted, columns, cols[at.col] ?? '');
    const meanings = await meaningsOf(wordsOf(laid, columns), columns, lookUp);
    const readDay = (text: string) => {
      const read = readTypedDay(text, yard.today, yard.calendar, 'ahead');
      return read.ok ? (read.value ?? '') : text;
    };
    const level = props.levelOf ?? (() => 1);
    const targets = rows.filter((r, k) => k >= at.row && level(r) === 1).map(keyOf);
    steps.step();
    onApply(
      laid.rows.map((cells, k) => ({
        key: targets[k] ?? (blank === undefined ? '' : keyOf(blank(k - targets.length))),
        change: (now) => putRow(now, cells, laid, columns, meanings, readDay),
      })),
    );
  };

  const onClick = (event: MouseEvent) => {
    const cell = (event.target as HTMLElement).closest<HTMLElement>('[data-col]');
    const row = cell?.closest<HTMLElement>('[data-row]')?.dataset.row;
    if (cell === null || row === undefined || (event.target as HTMLElement).closest('button,input,a,select') !== null)
      return;
    run.current = undefined;
    const spot = { row: keys.indexOf(row), col: cols.indexOf(cell.dataset.col ?? '') };
    go(spot, cell.dataset.fills === undefined ? undefined : {});
  };

  useKey('ArrowDown', 'Into the sheet', () => go(at));
  useKey('N', 'A new line', () => go({ row: all.length - 1, col: 1 }), blank !== undefined);
  useToldKey('Enter', 'Change what stands in a cell, or open the line at its number');
  useToldKey('Tab', 'Next cell; Enter goes on below the first');
  useToldKey(DITTO, 'The same as in the line above');
  useToldKey('Delete', 'Empty the cell, or take the line off at its number');
  useToldKey('Alt+↑↓', 'Move the line', onMove !== undefined);
  useToldKey('+', 'A part for another job', onPart !== undefined);
  useToldKey('Ctrl+Z', 'Undo what was typed; Ctrl+Y does it again');

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
        onPaste={(e) => void onPaste(e)}
        onCopy={(e) => {
          const row = all[at.row];
          const text = row === undefined || edit !== undefined ? undefined : columnAt(at.col)?.entry?.text(row);
          if (text === undefined) return;
          e.preventDefault();
          e.clipboardData.setData('text/plain', text);
        }}
        onClick={onClick}
        onFocus={() => (focused.current = true)}
        onBlur={(e) => {
          focused.current =
            e.relatedTarget === null ? focused.current : (box.current?.contains(e.relatedTarget) ?? false);
          if (
            e.relatedTarget !== null &&
            !box.current?.contains(e.relatedTarget) &&
            e.relatedTarget.closest('[data-radix-popper-content-wrapper]') === null
          )
            setEdit(undefined);
        }}
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
            <span className="sr-only">Take off</span>
          </span>
        </div>
        <SortableContext items={keys} strategy={verticalListSortingStrategy}>
          {all.map((row, k) => {
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

const cellAt = (box: HTMLElement | null, { row, col }: Mark) =>
  box?.querySelector<HTMLElement>(`[data-row="${CSS.escape(row)}"] [data-col="${CSS.escape(col)}"]`);

async function lookUp(kind: ThingKind, words: readonly string[]): Promise<readonly (Thing | null)[]> {
  const asked = asJson(JSON.stringify({ kind, words }), new AbortController().signal);
  return (await ask<(Thing | null)[]>('/pick', asked)) ?? words.map(() => null);
}

export type SheetProps<Row> = Props<Row>;
