'use client';

import type { ReactNode } from 'react';
import type { Refusal } from '@/core/result';
import { useKey } from '../keys';
import type { Clashed } from '../useAct';
import { Fact, Shelf, ShelfMain, ShelfPlain } from './Shelf';

type Props = {
  readonly title: string;
  /** What is kept: “supplier”, “item”. */
  readonly what: string;
  /** Its name or number, as it is typed. */
  readonly name: ReactNode;
  readonly mayKeep: boolean;
  /** Whether what is typed comes from an earlier visit. */
  readonly kept: boolean;
  readonly act: { readonly busy: boolean; readonly refusals: readonly Refusal[]; readonly clash: Clashed | undefined };
  /** Saves what is typed; after a clash, over the version that it names. */
  readonly onSave: (over?: number) => void;
  /** After a clash: drops what is typed for what somebody else saved. */
  readonly onTakeTheirs: () => void;
  readonly children: ReactNode;
};

/** The form of one record of the company's: its fields, and a shelf that saves it. */
export function RecordForm({ title, what, name, mayKeep, kept, act, onSave, onTakeTheirs, children }: Props) {
  const { clash } = act;
  useKey('Ctrl+Enter', `Save the ${what}`, () => onSave(), mayKeep && !act.busy && clash === undefined);
  const fault = clash
    ? `${clash.message} Save yours over it, or take theirs.`
    : act.refusals.find((r) => !r.field)?.message;
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        if (clash === undefined) onSave();
      }}
    >
      <h1 className="mb-3 text-[25px]">{title}</h1>
      {children}
      {mayKeep && (
        <Shelf
          fault={fault}
          facts={
            <>
              <Fact strong>{name || `New ${what}`}</Fact>
              {kept && <Fact>kept from before, not saved yet</Fact>}
            </>
          }
        >
          {clash === undefined ? (
            <ShelfMain disabled={act.busy} onClick={() => onSave()} hint="^↵">
              Save {what}
            </ShelfMain>
          ) : (
            <>
              <ShelfPlain onClick={onTakeTheirs}>Take theirs</ShelfPlain>
              <ShelfMain disabled={act.busy} onClick={() => onSave((clash.theirs as { version: number }).version)}>
                Save mine over it
              </ShelfMain>
            </>
          )}
        </Shelf>
      )}
    </form>
  );
}
