import { useLayoutEffect, useMemo, useRef, useState, type FocusEvent, type RefObject } from 'react';
import { fills, type EntryColumn } from './column';
import type { Edit } from './EntryCell';
import type { Shape, Spot } from './moves';
import { HEAD, type Mark, type SheetProps } from './sheet';

const cellAt = (box: HTMLElement | null, { row, col }: Mark) =>
  box?.querySelector<HTMLElement>(`[data-row="${CSS.escape(row)}"] [data-col="${CSS.escape(col)}"]`);

export type Marking<Row> = ReturnType<typeof useMark<Row>>;

/** Which cell of a sheet is marked, and whether it is being filled in. The focus goes with the mark. */
export function useMark<Row>(props: SheetProps<Row>, box: RefObject<HTMLElement | null>) {
  const { columns, rows, blank, keyOf, onApply, steps } = props;
  const all = useMemo(() => (blank === undefined ? rows : [...rows, blank(0)]), [rows, blank]);
  const keys = useMemo(() => all.map(keyOf), [all, keyOf]);
  const cols = useMemo(() => [HEAD, ...columns.map((c) => c.key)], [columns]);
  /** With the row's place: a row that was saved has another key, and is found there again. */
  const [mark, setMark] = useState<Mark & { readonly place: number }>();
  const [edit, setEdit] = useState<Edit>();
  const [begun, setBegun] = useState(props.begin);
  if (props.begin !== begun) {
    setBegun(props.begin);
    setMark({ row: props.begin?.key ?? '', col: props.begin?.col ?? columns[0]?.key ?? '', place: rows.length - 1 });
    setEdit({});
  }
  /** The column in which a run of Tabs began: Enter goes on below it. */
  const runRef = useRef<number>(undefined);
  const focused = useRef(false);
  const wantsFocus = useRef(false);

  const known = mark === undefined ? 0 : keys.indexOf(mark.row);
  const at: Spot = {
    row: known >= 0 ? known : Math.min(mark?.place ?? 0, all.length - 1),
    col: mark === undefined ? 1 : Math.max(0, cols.indexOf(mark.col)),
  };
  const columnAt = (col: number): EntryColumn<Row> | undefined => columns[col - 1];
  const shape: Shape = {
    rows: all.length,
    cols: cols.length,
    fills: ({ row, col }) => all[row] !== undefined && fills(columnAt(col), all[row]),
  };
  const begin = (spot: Spot, how: Edit) => {
    if (!shape.fills(spot)) return;
    steps.step();
    setEdit(how);
  };
  /** Marks a cell, and begins to fill it in when it is said how. */
  const go = (spot: Spot | undefined, how?: Edit) => {
    if (spot === undefined) return;
    wantsFocus.current = how === undefined;
    setMark({ row: keys[spot.row] ?? '', col: cols[spot.col] ?? '', place: spot.row });
    setEdit(undefined);
    if (how !== undefined) begin(spot, how);
  };
  /** Marks a cell that is there only after the next drawing. */
  const goWhenThere = (to: Mark) => {
    wantsFocus.current = true;
    setMark({ ...to, place: at.row });
  };
  const apply = (change: (row: Row) => Row) => {
    steps.step();
    onApply([{ key: keys[at.row] ?? '', change }]);
  };
  /** What is typed in an open field is put down before the mark moves on. */
  const settle = () => {
    if (edit !== undefined && document.activeElement instanceof HTMLElement) document.activeElement.blur();
  };
  const onBlur = ({ relatedTarget: to }: FocusEvent) => {
    if (to === null) return;
    focused.current = box.current?.contains(to) ?? false;
    if (!focused.current && to.closest('[data-radix-popper-content-wrapper]') === null) setEdit(undefined);
  };
  useLayoutEffect(() => {
    const lost = focused.current && document.activeElement === document.body;
    if ((!wantsFocus.current && !lost) || edit !== undefined) return;
    const cell = cellAt(box.current, { row: keys[at.row] ?? '', col: cols[at.col] ?? '' });
    if (cell == null) return;
    // A cell that only has its focus again is not scrolled to.
    cell.focus({ preventScroll: !wantsFocus.current });
    wantsFocus.current = false;
  });
  return {
    all,
    keys,
    cols,
    at,
    edit,
    shape,
    runRef,
    row: all[at.row],
    column: columnAt(at.col),
    go,
    goWhenThere,
    begin,
    stop: () => setEdit(undefined),
    apply,
    settle,
    onFocus: () => void (focused.current = true),
    onBlur,
  };
}
