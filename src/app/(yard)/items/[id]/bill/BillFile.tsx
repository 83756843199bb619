'use client';

import { counted } from '@/core/words';
import type { BillFile as Read } from '@/queries/items/boms';
import { FileSlip, RowsTold } from '@/ui/kit/FileSlip';

type Told = Omit<Read, 'taken'>;

/** Bills brought in from a file. */
export const BillFile = ({ itemId }: { readonly itemId: number }) => (
  <FileSlip<Told>
    address={`/items/${itemId}/bill/file`}
    label="BOM file"
    words="Import file"
    detail="One row per item, with its level (0, 1, 2) or its parent item."
    dayLabel="Valid from"
    takes={({ bills, problems }) =>
      bills.length === 0 || problems.some((p) => p.weight === 'stop')
        ? undefined
        : `Import ${counted(bills.length, 'BOM')}`
    }
    said={({ bills }) => `${counted(bills.length, 'BOM')} imported`}
  >
    {({ style, bills, problems, problemCount }) => (
      <>
        <h3 className="mt-4 text-[15px]">Contents{style === undefined ? '' : `, by ${style}`}</h3>
        <ul>
          {bills.map((b) => (
            <li key={b.number} className="flex justify-between gap-3 border-b border-line-2 py-1">
              <span>
                <b className="mono">{b.number}</b> {b.name}
              </span>
              <span className="whitespace-nowrap text-ink-2">
                {counted(b.lines, 'line')}
                {b.before > 0 ? `, ${counted(b.before, 'line')} before` : ', new'}
              </span>
            </li>
          ))}
        </ul>
        <RowsTold title={`${counted(problemCount, 'row')} to check`} rows={problems} />
      </>
    )}
  </FileSlip>
);
