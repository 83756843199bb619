'use client';

import { useSortable } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { X } from 'lucide-react';
import { memo, type ReactNode } from 'react';
import { fills } from './column';
import { EntryCell, type Edit } from './EntryCell';
import { HEAD, type SheetProps } from './sheet';

type Props<Row> = {
  readonly sheet: SheetProps<Row>;
  readonly row: Row;
  readonly index: number;
  readonly blank: boolean;
  readonly open: boolean | undefined;
  readonly faults: Readonly<Record<string, string>> | undefined;
  readonly marked: string | undefined;
  readonly edit: Edit | undefined;
  readonly detail: ReactNode;
};

/** A long sheet stays quick: a row is drawn anew only when it, or what is said of it, is another. */
function same<Row>(one: Props<Row>, other: Props<Row>): boolean {
  const alike = other.sheet.sameRow ?? Object.is;
  return (
    alike(one.row, other.row) &&
    one.index === other.index &&
    one.blank === other.blank &&
    one.open === other.open &&
    one.marked === other.marked &&
    one.edit === other.edit &&
    one.sheet.columns === other.sheet.columns &&
    one.detail === undefined &&
    other.detail === undefined &&
    JSON.stringify(one.faults) === JSON.stringify(other.faults)
  );
}

/** A row of a sheet with its head, which drags it, its cells, and what takes it off. */
export const EntryRow = memo(Drawn, same) as typeof Drawn;

function Drawn<Row>({ sheet, row, index, blank, open, faults, marked, edit, detail }: Props<Row>) {
  const { columns, keyOf, nameOf, headOf, levelOf, onApply, onTakeOff, onMove } = sheet;
  const key = keyOf(row);
  const level = levelOf?.(row) ?? 1;
  const name = nameOf(row);
  const drags = onMove !== undefined && level === 1 && !blank;
  const { setNodeRef, setActivatorNodeRef, listeners, transform, transition, isDragging } = useSortable({
    id: key,
    disabled: !drags,
  });
  return (
    <>
      <div
        ref={setNodeRef}
        role="row"
        aria-rowindex={index + 2}
        aria-label={name}
        data-row={key}
        data-level={level}
        data-open={open === true || undefined}
        data-blank={blank || undefined}
        className="entry-row"
        style={{ transform: CSS.Translate.toString(transform), transition, zIndex: isDragging ? 5 : undefined }}
      >
        <div
          ref={setActivatorNodeRef}
          role="rowheader"
          aria-colindex={1}
          aria-label={name}
          aria-expanded={open}
          data-col={HEAD}
          tabIndex={marked === HEAD ? 0 : -1}
          className={`entry-cell entry-number ${drags ? 'cursor-grab' : ''}`}
          {...(drags ? listeners : {})}
        >
          {headOf(row)}
        </div>
        {columns.map((column, k) => (
          <EntryCell
            key={column.key}
            row={row}
            column={column}
            label={`${column.title}, ${name}`}
            marked={marked === column.key}
            edit={marked === column.key && fills(column, row) ? edit : undefined}
            fault={faults?.[column.key]}
            colIndex={k + 2}
            onPut={(change) => onApply([{ key, change }])}
          />
        ))}
        <span role="gridcell" aria-colindex={columns.length + 2} className="entry-off">
          {onTakeOff !== undefined && !blank && (
            <button
              type="button"
              tabIndex={-1}
              aria-label={`Remove ${name.toLowerCase()}`}
              title="Remove line"
              onClick={() => onTakeOff(row)}
            >
              <X size={15} aria-hidden />
            </button>
          )}
        </span>
      </div>
      {detail !== undefined && (
        <div role="row" className="entry-detail">
          <div role="gridcell">{detail}</div>
        </div>
      )}
    </>
  );
}
