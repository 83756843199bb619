import type { ReactNode } from 'react';
import { Box } from './Box';
import { cellClass, nameOf, type Column, type Groups, type Picks } from './column';
import type { useLedger } from './useLedger';

type Shown<Row extends object> = ReturnType<typeof useLedger<Row>>['shown'][number];

/** A column's head, which sorts where it can. */
export function HeadCell<Row extends object>({ column: { column, ...c } }: { column: Shown<Row> }) {
  const way = column.getIsSorted();
  return (
    <th
      scope="col"
      aria-sort={way === false ? undefined : way === 'desc' ? 'descending' : 'ascending'}
      className={cellClass(c)}
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
}

export function BodyCell<Row>({ column: c, whole, row }: { column: Column<Row>; whole: boolean; row: Row }) {
  const Cell = c.leads ? 'th' : 'td';
  return (
    <Cell
      scope={c.leads ? 'row' : undefined}
      data-label={nameOf(c, whole)}
      className={`${cellClass(whole ? { ...c, wide: false } : c)} ${c.tone?.(row) ?? ''}`}
    >
      {c.cell(row)}
    </Cell>
  );
}

export function FootCell<Row>({ column: c, whole, value }: { column: Column<Row>; whole: boolean; value: ReactNode }) {
  const Cell = c.leads ? 'th' : 'td';
  return (
    <Cell
      scope={c.leads ? 'row' : undefined}
      data-label={value === undefined ? undefined : nameOf(c, whole)}
      className={cellClass(c)}
    >
      {value}
    </Cell>
  );
}

type GroupProps<Row> = {
  readonly picks: Picks<Row> | undefined;
  readonly groups: Groups<Row> | undefined;
  readonly group: readonly Row[];
  readonly span: number;
  readonly isPicked: (row: Row) => boolean;
  readonly put: (rows: readonly Row[], on: boolean) => void;
  readonly measured: object;
};

/** The head of a group, with a box that picks all of it. */
export function GroupRow<Row>({ group, span, picks, groups, isPicked, put, measured }: GroupProps<Row>) {
  const may = picks === undefined ? [] : group.filter(picks.may);
  const count = may.filter(isPicked).length;
  return (
    <tr className="group-row" {...measured}>
      {picks !== undefined && (
        <td className="row-pick">
          {may.length > 0 && (
            <Box
              label={groups?.words(group) ?? ''}
              picked={count === may.length}
              some={count > 0}
              onPick={() => put(may, count < may.length)}
            />
          )}
        </td>
      )}
      <td colSpan={span - (picks === undefined ? 0 : 1)} className="row-whole">
        {groups?.head(group)}
      </td>
    </tr>
  );
}
