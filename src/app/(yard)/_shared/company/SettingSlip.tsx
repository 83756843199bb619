'use client';

import type { ReactNode } from 'react';
import type { Refusal } from '@/core/result';
import { Slip } from '@/ui/kit/Slip';
import { SlipFoot } from '@/ui/kit/SlipFoot';
import type { Column } from '@/ui/ledger/column';
import { useAct, useOnce, type Act, type Clashed } from '@/ui/acting/useAct';

export type SettingRow = { readonly id: number; readonly version: number; readonly gone: 0 | 1 };
type Ref = { readonly once: string; readonly id: number; readonly version: number };

type Props = {
  readonly title: string;
  readonly form: {
    readonly busy: boolean;
    readonly refusals: readonly Refusal[];
    readonly clash: Clashed | undefined;
    readonly save: () => void;
  };
  /** What is offered no more, or again; nothing for what is only being made. */
  readonly row?: SettingRow | undefined;
  readonly retire: Act<Ref & { readonly gone: boolean }, void>;
  readonly onClose: () => void;
  readonly children: ReactNode;
};

const Unused = () => <span className="tag ml-2">Retired</span>;

/** The column by whose name a setting is opened; it says when the setting is not offered any more. */
export const nameColumn = <R extends SettingRow & { readonly name: string }>(
  head: string,
  onOpen: (row: R) => void,
): Column<R> => ({
  key: 'name',
  head,
  className: '!font-semibold',
  by: (r) => r.name,
  cell: (r) => (
    <>
      <button type="button" className="text-left hover:underline" onClick={() => onOpen(r)}>
        {r.name}
      </button>
      {r.gone === 1 && <Unused />}
    </>
  ),
});

/** One setting of a list, to be changed, or to be offered no more. */
export function SettingSlip({ title, form, row, retire, onClose, children }: Props) {
  const { key } = useOnce();
  const act = useAct(retire, { onDone: onClose });
  return (
    <Slip open onClose={onClose} title={title} foot={<SlipFoot words="Save" act={form} onGo={form.save} />}>
      <form
        noValidate
        className="grid gap-3"
        onSubmit={(e) => {
          e.preventDefault();
          form.save();
        }}
      >
        {children}
      </form>
      {row !== undefined && (
        <div className="mt-6 border-t border-line pt-3">
          <p className="mb-2 text-ink-2">
            {row.gone === 1
              ? 'Retired: hidden from lists. Existing records keep it.'
              : 'Retire it to hide it from lists. Existing records keep it.'}
          </p>
          <button
            type="button"
            className="btn btn-plain"
            disabled={act.busy}
            onClick={() => void act.run({ once: key(), id: row.id, version: row.version, gone: row.gone === 0 })}
          >
            {row.gone === 1 ? 'Reinstate' : 'Retire'}
          </button>
          <p role="alert" className="mt-1 text-brick">
            {act.clash?.message ?? act.refusals[0]?.message}
          </p>
        </div>
      )}
    </Slip>
  );
}
