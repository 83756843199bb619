'use client';

import type { SortingState, Updater } from '@tanstack/react-table';
import { parseAsString, useQueryStates } from 'nuqs';
import { useState } from 'react';
import { formatAmount, signOf } from '@/core/money/money';
import { grouped } from '@/core/words';
import type { ListName } from '@/queries/lists/lists';
import type { Foot } from '@/queries/page';
import type { KeptColumns } from '@/store/listViews';
import { tell } from '../acting/ask';
import { useYard } from '../frame/YardContext';
import { cellClass, nameOf, type Column } from './column';

/** A list of the company, of which a page is shown. */
export type Listed = {
  readonly name: ListName;
  /** Columns that the server sorts by. */
  readonly sorts: readonly string[];
  /** What all that the filters find come to. */
  readonly foot: Foot;
};

/** What was chosen since the frame of the page was drawn. */
const chosenHere = new Map<ListName, KeptColumns>();

export type ListState = ReturnType<typeof useList>;

/** How a person looks at a list: sorted as the address says, with the columns that the person chose. */
export function useList(listed: Listed | undefined) {
  const { lists } = useYard();
  const kept = listed && (chosenHere.get(listed.name) ?? lists.columns[listed.name]);
  const [own, setOwn] = useState(kept);
  const [{ sort }, put] = useQueryStates(
    { sort: parseAsString, after: parseAsString },
    { shallow: false, scroll: false },
  );
  const sorting: SortingState = sort === null ? [] : [{ id: sort.replace(/^-/, ''), desc: sort.startsWith('-') }];
  const onSorting = (updater: Updater<SortingState>) => {
    const [first] = typeof updater === 'function' ? updater(sorting) : updater;
    void put({ sort: first === undefined ? null : `${first.desc ? '-' : ''}${first.id}`, after: null });
  };
  /** All columns in the order that was chosen; one that came later stands where it is by itself. */
  const order = (keys: readonly string[]): string[] => {
    const chosen = (own?.order ?? []).filter((k) => keys.includes(k));
    const rest = [...chosen];
    return keys.map((k) => (chosen.includes(k) ? (rest.shift() ?? k) : k));
  };
  const choose = (columns: KeptColumns) => {
    setOwn(columns);
    if (listed === undefined) return;
    chosenHere.set(listed.name, columns);
    void tell('/columns', { list: listed.name, ...columns });
  };
  const hidden = (columns: readonly { readonly key: string; readonly extra?: true }[]): readonly string[] =>
    own?.hidden ?? columns.filter((c) => c.extra === true).map((c) => c.key);
  return { sorting, onSorting, order, hidden, choose };
}

type FootProps<Row> = {
  readonly list: Listed;
  readonly shown: number;
  /** Cells before the first column. */
  readonly before: number;
  readonly columns: readonly Column<Row>[];
};

/** What all that the filters find come to, however much of it is shown. */
export function ListFoot<Row>({ list, shown, before, columns }: FootProps<Row>) {
  const { foot } = list;
  const words = foot.count === shown ? `${grouped(shown)} in total` : `${grouped(shown)} of ${grouped(foot.count)}`;
  return (
    <tfoot>
      <tr className="whole">
        {before > 0 && <td />}
        {columns.map((c, k) => {
          const sums = foot.sums[c.key];
          return (
            <td key={c.key} data-label={sums === undefined || k === 0 ? undefined : nameOf(c)} className={cellClass(c)}>
              {k === 0 && <span className="font-normal whitespace-nowrap text-ink-2">{words}</span>}
              {sums?.map((s) => (
                <span key={s.currency} className="block">
                  {signOf(s.currency)}
                  {'\u202f'}
                  {formatAmount(s.amount, s.currency)}
                </span>
              ))}
            </td>
          );
        })}
        <td className="max-phone:hidden" />
      </tr>
    </tfoot>
  );
}
