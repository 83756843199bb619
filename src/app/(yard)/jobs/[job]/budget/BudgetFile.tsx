'use client';

import type { ChangeLineText } from '@/core/records/budget';
import { counted } from '@/core/words';
import type { BudgetFile as Read } from '@/queries/budgetFile';
import { FileSlip, RowsTold } from '@/ui/kit/FileSlip';
import { labelOf } from '@/ui/kit/PickField';
import { useYard } from '@/ui/YardContext';

type Props = { readonly job: string; readonly onTake: (lines: readonly ChangeLineText[]) => void };

/** A budget brought in from a file: what it changes becomes a budget change, with its day and reason. */
export function BudgetFile({ job, onTake }: Props) {
  const { currency } = useYard();
  return (
    <FileSlip<Read>
      address={`/jobs/${job}/budget/file`}
      label="File of a budget"
      words="Bring in a budget"
      detail="A row for each cost code: what its budget is to be, or by how much it changes."
      takes={({ lines }) => (lines.length === 0 ? undefined : 'Write the budget change')}
      onTake={({ lines }) => onTake(lines)}
    >
      {({ lines, left }) => (
        <>
          <h3 className="text-[15px]">
            {lines.length === 0
              ? 'Nothing changes by it'
              : `${counted(lines.length, 'cost code')} changed, ${currency}`}
          </h3>
          <ul>
            {lines.map(({ code, amount }) => (
              <li key={code?.id} className="flex justify-between gap-3 border-b border-line-2 py-1">
                <span>{code === null ? '' : labelOf({ number: code.number, name: code.name })}</span>
                <span className="tabular-nums">{amount.startsWith('−') ? amount : `+${amount}`}</span>
              </li>
            ))}
          </ul>
          <RowsTold title={`${counted(left.length, 'row')} left out`} rows={left} />
        </>
      )}
    </FileSlip>
  );
}
