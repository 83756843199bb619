'use client';

import type { Tracking } from '@/core/items/kinds';
import { readNumbers } from '@/core/stores/numbers';
import { AreaField } from '@/ui/kit/Field';
import { DateField } from '@/ui/kit/DateField';
import type { ComponentProps } from 'react';

type Props = {
  /** What the numbers are of. */
  readonly name: string;
  readonly tracking: Tracking;
  readonly pattern: string;
  readonly numbers: Omit<ComponentProps<typeof AreaField>, 'label'> & { readonly value: string };
  readonly expires?: Omit<ComponentProps<typeof DateField>, 'label'>;
  readonly className?: string;
};

/** Serial numbers, typed, scanned one after the other, pasted as a list or as a range; or a lot and its date. */
export function NumbersField({ name, tracking, pattern, numbers, expires, className }: Props) {
  if (tracking === 'lot')
    return (
      <div className={`flex flex-wrap items-start gap-4 ${className ?? ''}`}>
        <AreaField
          label={`Lot of ${name}`}
          className="min-w-[200px] flex-1"
          rows={1}
          hint="Several lots: one per line, e.g. “LOT-7: 40”."
          {...numbers}
        />
        {expires !== undefined && <DateField label="Use-by date" className="w-[150px]" {...expires} />}
      </div>
    );
  const read = readNumbers(numbers.value);
  const counted = read.ok ? (read.value.length === 0 ? 'none yet' : `${read.value.length} entered`) : undefined;
  return (
    <AreaField
      label={`Serial numbers of ${name}${counted === undefined ? '' : `, ${counted}`}`}
      className={className}
      rows={2}
      spellCheck={false}
      hint={`One per line, or a range: SN-2041…SN-2060.${pattern === '' ? '' : ` Format: ${pattern}.`}`}
      {...numbers}
    />
  );
}
