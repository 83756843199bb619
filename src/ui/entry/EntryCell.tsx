'use client';

import { useEffect, useEffectEvent, useRef, useState, type ReactNode } from 'react';
import { asDay } from '@/core/calendar/workdays';
import { readAs } from '@/core/money/sum';
import { DateField } from '../kit/DateField';
import { PickField } from '../kit/PickField';
import { useYard } from '../frame/YardContext';
import { fills, type Entry, type EntryColumn } from './column';

/** How a cell began to be filled in: with the key that was pressed, which stands for all that was there, or as it is. */
export type Edit = { readonly begin?: string };

type Props<Row> = {
  readonly row: Row;
  readonly column: EntryColumn<Row>;
  /** The words a screen reader says for the cell's field. */
  readonly label: string;
  readonly marked: boolean;
  readonly edit: Edit | undefined;
  readonly fault: string | undefined;
  readonly colIndex: number;
  readonly onPut: (change: (row: Row) => Row) => void;
};

/** A cell of a sheet: what stands in it, and while it is filled in the field for that. */
export function EntryCell<Row>({ row, column, label, marked, edit, fault, colIndex, onPut }: Props<Row>) {
  // A thing that was still looked for when the cell was left is put down as soon as it is found.
  const [looking, setLooking] = useState<Edit>();
  const shown = edit ?? looking;
  const { entry } = column;
  const faultId = `fault ${label}`.replace(/\W+/g, '-');
  return (
    <div
      role="gridcell"
      aria-colindex={colIndex}
      aria-readonly={!fills(column, row)}
      aria-invalid={fault !== undefined || undefined}
      aria-describedby={fault === undefined ? undefined : faultId}
      data-col={column.key}
      data-fills={fills(column, row) || undefined}
      data-label={column.title}
      tabIndex={marked && edit === undefined ? 0 : -1}
      className={`entry-cell ${column.num === true ? 'num' : ''} ${column.wide === true ? 'entry-wide' : ''}`}
    >
      {shown !== undefined && entry !== undefined ? (
        <Editor
          row={row}
          entry={entry}
          label={label}
          edit={shown}
          num={column.num === true}
          onPut={onPut}
          onLooking={() => setLooking(shown)}
          onClose={() => setLooking(undefined)}
        />
      ) : (
        <span className="entry-shown">
          {column.show === undefined ? <Told row={row} column={column} /> : column.show(row)}
        </span>
      )}
      {column.note !== undefined && <Note>{column.note(row)}</Note>}
      {fault !== undefined && (
        <span id={faultId} role="alert" className="field-fault entry-fault">
          {fault}
        </span>
      )}
    </div>
  );
}

const Note = ({ children }: { children: ReactNode }) => <span className="entry-note">{children}</span>;

function Told<Row>({ row, column }: { row: Row; column: EntryColumn<Row> }) {
  const { day } = useYard();
  const text = column.entry?.text(row) ?? '';
  const read = column.entry?.kind === 'day' ? asDay(text) : undefined;
  return read === undefined ? text : day(read);
}

type EditorProps<Row> = {
  readonly row: Row;
  readonly entry: Entry<Row>;
  readonly label: string;
  readonly edit: Edit;
  readonly num: boolean;
  readonly onPut: (change: (row: Row) => Row) => void;
  readonly onLooking: () => void;
  readonly onClose: () => void;
};

function Editor<Row>({ row, entry, label, edit, num, onPut, onLooking, onClose }: EditorProps<Row>) {
  const put = (text: string) => onPut((now) => entry.put(now, text));
  const text = entry.text(row) ?? '';
  if (entry.kind === 'day')
    return <DateField label={label} hideLabel inCell={{ begin: edit.begin }} value={text} onDay={put} />;
  if (entry.kind === 'pick') {
    const { make } = entry;
    return (
      <PickField
        kind={entry.of}
        label={label}
        hideLabel
        autoFocus
        inCell={{ begin: edit.begin ?? (entry.free === true ? text : ''), onLooking, onClose }}
        value={entry.thing(row) ?? (text === '' ? null : { id: 0, number: '', name: text })}
        free={entry.free === true ? { text, onText: put } : undefined}
        also={entry.also}
        make={make && { words: make.words, onMake: (typed) => make.onMake(row, typed) }}
        onPick={(thing) => onPut((now) => entry.take(now, thing))}
      />
    );
  }
  return (
    <TextCell
      label={label}
      text={text}
      begin={edit.begin}
      num={num || entry.kind === 'number'}
      onText={put}
      sums={entry.kind === 'number'}
    />
  );
}

/** Typed straight into the row, so that what depends on it moves along. */
function TextCell({
  label,
  text,
  begin,
  num,
  sums,
  onText,
}: {
  label: string;
  text: string;
  begin: string | undefined;
  num: boolean;
  sums: boolean;
  onText: (text: string) => void;
}) {
  const input = useRef<HTMLInputElement>(null);
  // What is typed stands here as well: the next key may come before the row is drawn anew.
  const [typed, setTyped] = useState(begin ?? text);
  const type = (now: string) => {
    setTyped(now);
    onText(now);
  };
  const began = useEffectEvent(() => {
    const field = input.current;
    field?.focus();
    if (begin === undefined) return field?.select();
    field?.setSelectionRange(begin.length, begin.length);
    onText(begin);
  });
  useEffect(() => began(), []);
  const read = sums ? readAs(typed) : undefined;
  return (
    <>
      <input
        ref={input}
        aria-label={label}
        className={`field field-cell ${num ? 'text-right' : ''}`}
        inputMode={sums ? 'decimal' : undefined}
        autoComplete="off"
        value={typed}
        onChange={(e) => type(e.target.value)}
      />
      {read !== undefined && <span className="entry-note">{read}</span>}
    </>
  );
}
