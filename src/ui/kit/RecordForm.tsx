'use client';

import type { ReactNode } from 'react';
import type { Refusal } from '@/core/result';
import { useKey } from '../keys';
import type { Clashed } from '../useAct';
import { Fact, Shelf, ShelfMain } from './Shelf';

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
  readonly onSave: () => void;
  readonly children: ReactNode;
};

/** The form of one record of the company's: its fields, and a shelf that saves it. */
export function RecordForm({ title, what, name, mayKeep, kept, act, onSave, children }: Props) {
  useKey('Ctrl+Enter', `Save the ${what}`, onSave, mayKeep && !act.busy);
  const fault = act.clash
    ? `${act.clash.message} Reload the page to see it; what you typed stays here.`
    : act.refusals.find((r) => !r.field)?.message;
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        onSave();
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
          <ShelfMain disabled={act.busy} onClick={onSave} hint="^↵">
            Save {what}
          </ShelfMain>
        </Shelf>
      )}
    </form>
  );
}
