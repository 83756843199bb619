'use client';

import { z } from 'zod';
import { formatMoney, type Minor } from '@/core/money/money';
import { completionForm } from '@/core/records/budget';
import { forecastOf } from '@/core/tab/sums';
import type { CompletionRowView } from '@/queries/jobs/completion';
import { Facts } from '@/ui/kit/Facts';
import { TextField } from '@/ui/kit/Field';
import { NumberField } from '@/ui/kit/NumberField';
import { Slip } from '@/ui/kit/Slip';
import { SlipFoot } from '@/ui/kit/SlipFoot';
import { useActForm } from '@/ui/acting/useActForm';
import { useYard } from '@/ui/frame/YardContext';
import { acts } from '../../../../actions';

type Props = { readonly jobId: number; readonly row: CompletionRowView; readonly onClose: () => void };

/** Says how a cost code ends, in the place of what is planned of it, and how much of it is done. */
export default function EndingSlip({ jobId, row, onClose }: Props) {
  const { currency, day } = useYard();
  const { code, level, ends, said } = row;
  const { shape } = completionForm(currency);
  const form = useActForm({
    read: () => completionForm(currency),
    start: {
      amount: z.encode(shape.amount, said?.amount ?? null),
      done: z.encode(shape.done, said?.done ?? null),
      reason: '',
    },
    act: acts.setCompletion,
    input: (read, once) => ({ once, jobId, costCodeId: code.id, ...read }),
    said: () => `Cost at completion of ${code.code} ${code.name} saved`,
    onDone: onClose,
  });
  const money = (amount: Minor) => formatMoney(amount, currency);
  return (
    <Slip
      open
      onClose={onClose}
      title={`Cost at completion: ${code.code} ${code.name}`}
      detail="Leave a field empty to use the calculated figure."
      foot={<SlipFoot words="Save" act={{ ...form, refusals: form.refusals }} onGo={form.save} />}
    >
      <div className="grid gap-3">
        <Facts
          facts={[
            ['budget', money(level.budget)],
            ['incurred', money(ends.incurred)],
            ['forecast', money(forecastOf(level))],
            ['by index', ends.earned?.byIndex == null ? '' : money(ends.earned.byIndex)],
          ]}
        />
        {said !== null && (
          <p className="text-ink-2">
            {said.who}, {day(said.day)}: “{said.reason}”
          </p>
        )}
        <NumberField
          label={`Cost at completion, ${currency}`}
          hint="Replaces what is planned. Drafted and committed cost beyond it still counts."
          {...form.text('amount')}
        />
        <NumberField label="% complete" {...form.text('done')} />
        <TextField label="Reason" maxLength={300} {...form.text('reason')} />
      </div>
    </Slip>
  );
}
