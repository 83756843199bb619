'use client';

import { counted } from '@/core/words';
import type { BomFile as Read } from '@/queries/items/boms';
import { FileSlip, RowsTold } from '@/ui/kit/FileSlip';

type Told = Omit<Read, 'taken'>;

/** BOMs brought in from a file. */
export const BomFile = ({ itemId }: { readonly itemId: number }) => (
  <FileSlip<Told>
    address={`/items/${itemId}/bom/file`}
    label="BOM file"
    words="Import file"
    detail="One row per item, with its level (0, 1, 2) or its parent item."
    dayLabel="Valid from"
    takes={({ boms, problems }) =>
      boms.length === 0 || problems.some((p) => p.weight === 'stop')
        ? undefined
        : `Import ${counted(boms.length, 'BOM')}`
    }
    said={({ boms }) => `${counted(boms.length, 'BOM')} imported`}
  >
    {({ style, boms, problems, problemCount }) => (
      <>
        <h3 className="mt-4 text-[15px]">Contents{style === undefined ? '' : `, by ${style}`}</h3>
        <ul>
          {boms.map((b) => (
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
