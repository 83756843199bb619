'use client';

import { measured } from '@/core/quantity/units';
import { ungrouped } from '@/core/locale/locale';
import { formatQuantity } from '@/core/quantity/quantity';
import { sentBackForm } from '@/core/records/delivery';
import type { DockLine, DockOrder } from '@/queries/dockOrder';
import { ChoiceField, Faults, TextField } from '@/ui/kit/Field';
import { NumberField } from '@/ui/kit/NumberField';
import { Slip } from '@/ui/kit/Slip';
import { useKey } from '@/ui/keys';
import { useActForm } from '@/ui/useActForm';
import { sendBack } from '../../../acts';
import { NumbersField } from '../NumbersField';

type Props = { readonly order: DockOrder; readonly rejected: readonly DockLine[]; readonly onClose: () => void };

/** What goes back to the supplier: what was rejected first, and what is too much. */
export function SendBackSlip({ order, rejected, onClose }: Props) {
  const lines = order.lines.filter((l) => l.received > 0 || l.rejected > 0);
  const form = useActForm({
    read: () => sentBackForm,
    start: {
      reason: '',
      carrier: '',
      lines: lines.map((l) => ({
        ...{ lineId: l.id, tracking: l.tracking, toItem: l.toItem },
        quantity: rejected.includes(l) ? ungrouped(formatQuantity(l.rejected)) : '',
        from: l.rejected > 0 ? ('rejected' as const) : ('accepted' as const),
        wants: l.closed ? ('credit' as const) : ('replacement' as const),
        numbers: l.rejectedNumbers.join('\n'),
      })),
    },
    act: sendBack,
    input: (read, once) => ({ once, orderId: order.id, version: order.version, ...read }),
    said: ({ number }) => `Sent back as ${number}`,
    onDone: onClose,
  });
  useKey('Ctrl+Enter', 'Send back', form.save, !form.busy);
  const told = [
    ...(form.clash ? [form.clash.message] : []),
    ...form.refusals.map((r) => r.message),
    ...lines.flatMap((l) => form.refusedAt(`lines.${l.id}`)?.message ?? []),
  ];
  return (
    <Slip
      open
      onClose={onClose}
      title={`Send goods back to ${order.supplier}`}
      detail={order.number}
      foot={
        <div className="grid gap-2">
          <Faults messages={told} />
          <button type="button" className="btn btn-main justify-self-end" disabled={form.busy} onClick={form.save}>
            Send back <span className="kbd">^↵</span>
          </button>
        </div>
      }
    >
      <div className="grid gap-3">
        <TextField label="Why it goes back" required maxLength={120} {...form.text('reason')} />
        <TextField label="Carrier" maxLength={80} {...form.text('carrier')} />
        <ul>
          {lines.map((l, k) => {
            const typed = form.typed.lines[k];
            return (
              <li key={l.id} className="border-t border-line-2 py-3">
                <div className="font-semibold">{l.description}</div>
                <div className="mb-2 text-[13px] text-ink-2">
                  {measured(l.received, l.unit)} taken{l.rejected > 0 && `, ${measured(l.rejected, l.unit)} rejected`}
                </div>
                <div className="grid grid-cols-[90px_1fr_1fr] gap-3">
                  <NumberField label="Goes back" placeholder="0" {...form.text(`lines.${k}.quantity`)} />
                  {l.rejected > 0 && l.received > 0 && (
                    <ChoiceField label="Of what was" {...form.text(`lines.${k}.from`)}>
                      <option value="rejected">rejected</option>
                      <option value="accepted">taken</option>
                    </ChoiceField>
                  )}
                  <ChoiceField label="Awaited" {...form.text(`lines.${k}.wants`)}>
                    <option value="replacement">a replacement</option>
                    <option value="credit">a credit</option>
                  </ChoiceField>
                </div>
                {l.tracking !== 'none' && typed?.quantity !== '' && (
                  <NumbersField
                    className="mt-2"
                    name={l.description}
                    tracking={l.tracking}
                    pattern={l.numberPattern}
                    numbers={form.text(`lines.${k}.numbers`)}
                  />
                )}
              </li>
            );
          })}
        </ul>
      </div>
    </Slip>
  );
}
