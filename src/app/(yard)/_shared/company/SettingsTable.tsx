'use client';

import { useState, type ReactNode } from 'react';
import { useKey } from '@/ui/frame/keys';
import { Fact, Shelf, ShelfMain } from '@/ui/kit/Shelf';
import type { Column } from '@/ui/ledger/column';
import { LedgerTable } from '@/ui/ledger/LedgerTable';
import { nameColumn, type SettingRow } from './SettingSlip';

type Named = SettingRow & { readonly name: string };

type Props<R extends Named> = {
  readonly label: string;
  readonly className: string;
  readonly rows: readonly R[];
  /** What the column is called by which a row is opened. */
  readonly name: string;
  /** Columns before that one. */
  readonly before?: readonly Column<R>[];
  readonly columns: readonly Column<R>[];
  /** The words that make one more, and what is told beside them; undefined where they are made elsewhere. */
  readonly makes?: { readonly words: string; readonly fact: string };
  /** One of them opened, or a new one. */
  readonly slip: (row: R | undefined, onClose: () => void) => ReactNode;
};

/** A list of the company's settings; one opens to be changed, or to be offered no more. */
export function SettingsTable<R extends Named>({
  label,
  className,
  rows,
  name,
  before = [],
  columns,
  makes,
  slip,
}: Props<R>) {
  const [open, setOpen] = useState<R | 'new'>();
  useKey('N', makes?.words ?? '', () => setOpen('new'), makes !== undefined && open === undefined);
  return (
    <>
      <LedgerTable
        label={label}
        className={className}
        rows={rows}
        columns={[...before, nameColumn<R>(name, setOpen), ...columns]}
        keyOf={(r) => r.id}
        onOpen={setOpen}
      />
      {makes !== undefined && (
        <Shelf facts={<Fact>{makes.fact}</Fact>}>
          <ShelfMain onClick={() => setOpen('new')} hint="N">
            {makes.words}
          </ShelfMain>
        </Shelf>
      )}
      {open !== undefined && slip(open === 'new' ? undefined : open, () => setOpen(undefined))}
    </>
  );
}
