'use client';

import { useRouter } from 'next/navigation';
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
  /** Whether what is typed comes from an earlier visit, and how it gives way to what is saved. */
  readonly draft: { readonly kept: boolean; readonly restart: () => void };
  readonly act: {
    readonly busy: boolean;
    readonly refusals: readonly Refusal[];
    readonly clash: Clashed | undefined;
    readonly clear: () => void;
  };
  /** Saves what is typed; after a clash, over the version that it names. */
  readonly onSave: (over?: number) => void;
  readonly children: ReactNode;
};

/** The form of one record of the company's: its fields, and a shelf that saves it. */
export function RecordForm({ title, what, name, draft, act, onSave, children }: Props) {
  const router = useRouter();
  const { clash } = act;
  const takeTheirs = () => {
    act.clear();
    draft.restart();
    router.refresh();
  };
  useKey('Ctrl+Enter', `Save the ${what}`, () => onSave(), !act.busy && clash === undefined);
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
      <Shelf
        fault={fault}
        facts={
          <>
            <Fact strong>{name || `New ${what}`}</Fact>
            {draft.kept && <Fact>kept from before, not saved yet</Fact>}
          </>
        }
      >
        {clash === undefined ? (
          <ShelfMain disabled={act.busy} onClick={() => onSave()} hint="^↵">
            Save {what}
          </ShelfMain>
        ) : (
          <>
            <ShelfPlain onClick={takeTheirs}>Take theirs</ShelfPlain>
            <ShelfMain disabled={act.busy} onClick={() => onSave(clash.theirs.version)}>
              Save mine over it
            </ShelfMain>
          </>
        )}
      </Shelf>
    </form>
  );
}
