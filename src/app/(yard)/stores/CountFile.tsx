'use client';

import { formatMoney } from '@/core/money/money';
import { formatQuantity } from '@/core/quantity/quantity';
import { unitOf } from '@/core/quantity/units';
import { counted } from '@/core/words';
import type { CountFile as Read } from '@/queries/stores/countFile';
import { FileSlip, RowsTold } from '@/ui/kit/FileSlip';
import { useYard } from '@/ui/frame/YardContext';

type Told = Omit<Read, 'taken'>;

/** Counts, opening stock and levels brought in from a file. */
export function CountFile() {
  const { currency } = useYard();
  return (
    <FileSlip<Told>
      address="/stores/counts"
      label="Count file"
      words="Import counts"
      detail="One row per item and location or bin, and per serial number or lot: quantity counted, value or unit cost, minimum stock, and reason."
      takes={({ count }) => (count === 0 ? undefined : `Import ${counted(count, 'row')}`)}
      said={({ count }) => `${counted(count, 'row')} imported`}
    >
      {({ counts, count, moved, value, left, leftCount }) => (
        <>
          <p className="text-ink-2">
            {counted(moved, 'stock line')} {moved === 1 ? 'changes' : 'change'}
            {value === null ? '' : `, stock value ${formatMoney(value, currency)} ${value < 0 ? 'lower' : 'higher'}`}.
          </p>
          <h3 className="mt-3 text-[15px]">Contents{count > counts.length ? `, the first ${counts.length}` : ''}</h3>
          <ul>
            {counts.map(({ number, name, unit, place, before, after, keep }) => (
              <li key={`${number} ${place}`} className="flex justify-between gap-3 border-b border-line-2 py-1">
                <span className="min-w-0">
                  <b className="mono">{number}</b> {name}
                  <span className="block text-[12.5px] text-ink-2">{place}</span>
                </span>
                <span className="text-right whitespace-nowrap tabular-nums">
                  {after !== null && (
                    <>
                      {before !== after && <span className="text-ink-2">{formatQuantity(before)} → </span>}
                      {formatQuantity(after)} {unitOf(unit).short}
                    </>
                  )}
                  {keep !== null && <span className="block text-[12.5px] text-ink-2">keep {formatQuantity(keep)}</span>}
                </span>
              </li>
            ))}
          </ul>
          <RowsTold title={`${counted(leftCount, 'row')} skipped`} rows={left} />
        </>
      )}
    </FileSlip>
  );
}
