'use client';

import type { ChangeLineText } from '@/core/records/budget';
import { counted } from '@/core/words';
import type { BudgetFile as Read } from '@/queries/jobs/budgetFile';
import { FileSlip, RowsTold } from '@/ui/kit/FileSlip';
import { labelOf } from '@/ui/kit/PickField';
import { useYard } from '@/ui/frame/YardContext';

type Props = { readonly job: string; readonly onTake: (lines: readonly ChangeLineText[]) => void };

/** A budget brought in from a file: what it changes becomes a budget change, with its day and reason. */
export function BudgetFile({ job, onTake }: Props) {
  const { currency } = useYard();
  return (
    <FileSlip<Read>
      address={`/jobs/${job}/budget/file`}
      label="Budget file"
      words="Import budget"
      detail="One row per cost code: the new budget, or the change."
      takes={({ lines }) => (lines.length === 0 ? undefined : 'Create budget change')}
      onTake={({ lines }) => onTake(lines)}
    >
      {({ lines, left }) => (
        <>
          <h3 className="text-[15px]">
            {lines.length === 0 ? 'No change' : `${counted(lines.length, 'cost code')} changed, ${currency}`}
          </h3>
          <ul>
            {lines.map(({ code, amount }) => (
              <li key={code?.id} className="flex justify-between gap-3 border-b border-line-2 py-1">
                <span>{code === null ? '' : labelOf({ number: code.number, name: code.name })}</span>
                <span className="tabular-nums">{amount.startsWith('−') ? amount : `+${amount}`}</span>
              </li>
            ))}
          </ul>
          <RowsTold title={`${counted(left.length, 'row')} skipped`} rows={left} />
        </>
      )}
    </FileSlip>
  );
}
