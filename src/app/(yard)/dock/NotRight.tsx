'use client';

import type { ComponentProps, ReactNode } from 'react';
import { unitOf } from '@/core/quantity/units';
import { REJECT, type ReasonDoes } from '@/core/receiving/reasons';
import type { ReasonChoice } from '@/queries/dock/order';
import { DateField } from '@/ui/kit/DateField';
import { NumberField } from '@/ui/kit/NumberField';
import { ReasonField } from './ReasonField';

type Chosen = Pick<ComponentProps<typeof ReasonField>, 'value' | 'onReason'>;

type Props = {
  readonly unit: string;
  readonly reasons: readonly ReasonChoice[];
  /** What may become of the rest. */
  readonly kinds: readonly ReasonDoes[];
  /** Nothing where it cannot be said here. */
  readonly rejected: Omit<ComponentProps<typeof NumberField>, 'label'> | undefined;
  readonly reason: Chosen;
  readonly rest: Chosen;
  readonly restDay: Omit<ComponentProps<typeof DateField>, 'label'>;
  /** What else is said of the rest, and of the line. */
  readonly where?: ReactNode;
  readonly children?: ReactNode;
};

/** What came of a line and is not good, and what became of what did not come. */
export function NotRight({ unit, reasons, kinds, rejected, reason, rest, restDay, where, children }: Props) {
  const does = reasons.find((r) => String(r.id) === rest.value)?.does;
  return (
    <div className="mt-2 grid grid-cols-2 gap-4 rounded-lg border border-line bg-glaze-2 px-4 py-3 max-phone:grid-cols-1">
      {rejected !== undefined && (
        <div className="grid content-start gap-2">
          <NumberField label={`Rejected (${unitOf(unit).name})`} placeholder="none" {...rejected} />
          {rejected.value !== '' && (
            <ReasonField label="Reason for rejection" reasons={reasons} kinds={REJECT} {...reason} />
          )}
        </div>
      )}
      <div className="grid content-start gap-2">
        <ReasonField label="The rest" reasons={reasons} kinds={kinds} {...rest} />
        {does === 'toCome' && <DateField label="New delivery date" {...restDay} />}
        {does === 'elsewhere' && where}
      </div>
      {children}
    </div>
  );
}
