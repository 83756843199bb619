'use client';

import { formatMoney } from '@/core/money/money';
import { formatQuantity } from '@/core/quantity/quantity';
import { unitOf } from '@/core/quantity/units';
import { counted } from '@/core/words';
import type { CountFile as Read } from '@/queries/countFile';
import { FileSlip, RowsTold } from '@/ui/kit/FileSlip';
import { useYard } from '@/ui/YardContext';

type Told = Omit<Read, 'taken'>;

/** Counts, opening stock and levels brought in from a file. */
export function CountFile() {
  const { currency } = useYard();
  return (
    <FileSlip<Told>
      address="/stores/counts"
      label="File of counts"
      words="Bring in counts"
      detail="A row for each item and place or bin, and for each serial number or lot: what was counted, what it is worth or cost each, the level to keep, and why."
      takes={({ count }) => (count === 0 ? undefined : `Take ${counted(count, 'row')}`)}
      said={({ count }) => `${counted(count, 'row')} taken`}
    >
      {({ counts, count, moved, value, left, leftCount }) => (
        <>
          <p className="text-ink-2">
            {counted(moved, 'pile')} {moved === 1 ? 'changes' : 'change'}
            {value === null
              ? ''
              : `, and stores are worth ${formatMoney(value, currency)} ${value < 0 ? 'less' : 'more'}`}
            .
          </p>
          <h3 className="mt-3 text-[15px]">
            What it says{count > counts.length ? `, the first ${counts.length}` : ''}
          </h3>
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
          <RowsTold title={`${counted(leftCount, 'row')} left out`} rows={left} />
        </>
      )}
    </FileSlip>
  );
}
