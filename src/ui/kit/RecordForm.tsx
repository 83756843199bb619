'use client';

import { useRouter } from 'next/navigation';
import type { ReactNode } from 'react';
import type { Refusal } from '@/core/result';
import { useKey } from '../frame/keys';
import type { Clashed } from '../acting/useAct';
import { Fact, Shelf, ShelfMain, ShelfPlain } from './Shelf';

type Props = {
  readonly title: string;
  /** What is kept: “supplier”, “item”. */
  readonly what: string;
  /** Its name or number, as it is typed. */
  readonly name: ReactNode;
  readonly form: {
    readonly busy: boolean;
    readonly refusals: readonly Refusal[];
    readonly firstFault: string | undefined;
    readonly clash: Clashed | undefined;
    readonly clear: () => void;
    /** Whether what is typed comes from an earlier visit, and how it gives way to what is saved. */
    readonly kept: boolean;
    readonly restart: () => void;
    readonly save: () => void;
  };
  /** Takes the version that a clash names for the one that is changed. */
  readonly onVersion: (version: number) => void;
  readonly children: ReactNode;
};

/** What is said at the button of a form while one of its fields is wrong: the first fault, in words. */
export const needsCorrecting = (firstFault: string | undefined): string | undefined =>
  firstFault === undefined ? undefined : `Some fields need correcting. First: ${firstFault}`;

/** The form of one record of the company's: its fields, and a shelf that saves it. */
export function RecordForm({ title, what, name, form, onVersion, children }: Props) {
  const router = useRouter();
  const { clash } = form;
  const takeTheirs = () => {
    form.clear();
    form.restart();
    router.refresh();
  };
  const saveOver = (version: number) => {
    onVersion(version);
    form.save();
  };
  useKey('Ctrl+Enter', `Save ${what}`, form.save, !form.busy && clash === undefined);
  const fault = clash
    ? `${clash.message} Keep your version or theirs.`
    : (form.refusals[0]?.message ?? needsCorrecting(form.firstFault));
  return (
    <form
      noValidate
      onSubmit={(e) => {
        e.preventDefault();
        if (clash === undefined) form.save();
      }}
    >
      <h1 className="mb-3 text-[25px]">{title}</h1>
      {children}
      <Shelf
        fault={fault}
        facts={
          <>
            <Fact strong>{name || `New ${what}`}</Fact>
            {form.kept && <Fact>Unsaved entries from last time</Fact>}
          </>
        }
      >
        {clash === undefined ? (
          <ShelfMain disabled={form.busy} onClick={form.save} hint="Ctrl ↵">
            Save {what}
          </ShelfMain>
        ) : (
          <>
            <ShelfPlain onClick={takeTheirs}>Use theirs</ShelfPlain>
            <ShelfMain disabled={form.busy} onClick={() => saveOver(clash.theirs.version)}>
              Overwrite with mine
            </ShelfMain>
          </>
        )}
      </Shelf>
    </form>
  );
}
