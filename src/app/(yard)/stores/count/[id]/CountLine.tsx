'use client';

import { measured } from '@/core/quantity/units';
import { useState } from 'react';
import { ungrouped } from '@/core/locale/locale';
import { formatAmount, signOf } from '@/core/money/money';
import { formatQuantity, NONE, ONE, quantity, type Quantity } from '@/core/quantity/quantity';
import { keptQuantity } from '@/core/records/stock';
import { typedQuantity } from '@/core/records/typed';
import type { CountRow } from '@/queries/stores/counts';
import { useYard } from '@/ui/frame/YardContext';

const typedCount = typedQuantity(keptQuantity, 'none');

type Props = {
  readonly row: CountRow;
  /** Whether what the book says is told. */
  readonly shows: boolean;
  readonly disabled: boolean;
  readonly onCount: (counted: Quantity | null, before: boolean) => void;
};

/** One spot of a counting sheet. */
export function CountLine({ row: r, shows, disabled, onCount }: Props) {
  const { currency } = useYard();
  const difference = r.difference ?? 0;
  return (
    <li className="flex items-start gap-x-4 border-b border-line-2 py-2.5">
      <div className="min-w-0 flex-1">
        <div className="font-semibold">
          {r.bin !== '' && <span className="mono mr-1.5 font-bold text-copper-text">{r.bin}</span>}
          {r.description} {r.job !== null && <span className="tag">job {r.job} stock</span>}
        </div>
        <div className="mono text-ink-2">{[r.itemNumber, r.number].filter(Boolean).join(' · ')}</div>
        {shows && r.book !== null && (
          <div className="text-[13px] text-ink-2">
            {measured(r.book, r.unit)} book
            {r.moved !== null &&
              r.moved !== 0 &&
              `, ${r.moved > 0 ? '+' : ''}${formatQuantity(r.moved)} since the count started`}
          </div>
        )}
        {r.reason !== '' && <div className="text-[13px] text-ink-2">{r.reason}</div>}
        {r.hasMoved && r.counted !== null && !disabled && (
          <button type="button" className="step text-[13px]" onClick={() => onCount(r.counted, true)}>
            I counted it before this movement
          </button>
        )}
      </div>
      <div className="flex shrink-0 flex-col items-end gap-1">
        <HowMany key={String(r.counted)} row={r} disabled={disabled} onCount={onCount} />
        {difference !== 0 && (
          <span className="text-right whitespace-nowrap">
            <b className={difference < 0 ? 'text-brick' : 'text-amber'}>
              {measured(quantity(Math.abs(difference)), r.unit)} {difference > 0 ? 'found' : 'missing'}
            </b>
            {r.worth !== null && (
              <span className="block text-[13px] text-ink-2">
                {signOf(currency)}&#8239;{formatAmount(r.worth, currency)}
              </span>
            )}
          </span>
        )}
      </div>
    </li>
  );
}

function HowMany({ row, disabled, onCount }: Omit<Props, 'shows'>) {
  const saved = row.counted === null ? '' : ungrouped(formatQuantity(row.counted));
  const [typed, setTyped] = useState(saved);
  if (row.tracking === 'serial')
    return (
      <span role="group" aria-label={`${row.number} is`} className="flex overflow-hidden rounded-lg border border-line">
        {[ONE, NONE].map((q) => (
          <button
            key={q}
            type="button"
            aria-pressed={row.counted === q}
            disabled={disabled}
            className={`px-3 py-1 font-semibold max-phone:min-h-[44px] ${row.counted === q ? 'bg-enamel text-glaze' : 'text-ink-2 hover:text-ink'}`}
            onClick={() => onCount(row.counted === q ? null : q, false)}
          >
            {q === ONE ? 'there' : 'not found'}
          </button>
        ))}
      </span>
    );
  const read = typed.trim() === '' ? null : typedCount.safeParse(typed).data;
  const keep = () => {
    if (read !== undefined && read !== row.counted) onCount(read, false);
  };
  return (
    <input
      type="text"
      inputMode="decimal"
      aria-label={`Counted of ${row.description}${row.bin === '' ? '' : ` in ${row.bin}`}`}
      aria-invalid={read === undefined}
      disabled={disabled && row.counted === null && typed === ''}
      readOnly={disabled}
      placeholder="–"
      className="field num !w-[96px] text-right max-phone:min-h-[44px]"
      value={typed}
      onChange={(e) => setTyped(e.target.value)}
      onBlur={keep}
      onKeyDown={(e) => e.key === 'Enter' && keep()}
    />
  );
}
