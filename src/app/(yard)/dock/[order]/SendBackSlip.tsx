'use client';

import { measured } from '@/core/quantity/units';
import { ungrouped } from '@/core/locale/locale';
import { formatQuantity } from '@/core/quantity/quantity';
import { sentBackForm } from '@/core/records/delivery';
import type { DockLine, DockOrder } from '@/queries/dock/order';
import { ChoiceField, Faults, TextField } from '@/ui/kit/Field';
import { NumberField } from '@/ui/kit/NumberField';
import { Slip } from '@/ui/kit/Slip';
import { useKey } from '@/ui/frame/keys';
import { useActForm } from '@/ui/acting/useActForm';
import { acts } from '../../../actions';
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
    act: acts.returnGoods,
    input: (read, once) => ({ once, orderId: order.id, version: order.version, ...read }),
    said: ({ number }) => `Returned as ${number}`,
    onDone: onClose,
  });
  useKey('Ctrl+Enter', 'Return goods', form.save, !form.busy);
  const told = [
    ...(form.clash ? [form.clash.message] : []),
    ...form.refusals.map((r) => r.message),
    ...lines.flatMap((l) => form.refusedAt(`lines.${l.id}`)?.message ?? []),
  ];
  return (
    <Slip
      open
      onClose={onClose}
      title={`Return goods to ${order.supplier}`}
      detail={order.number}
      foot={
        <div className="grid gap-2">
          <Faults messages={told} />
          <button type="button" className="btn btn-main justify-self-end" disabled={form.busy} onClick={form.save}>
            Return goods{' '}
            <span className="kbd" aria-hidden>
              Ctrl ↵
            </span>
          </button>
        </div>
      }
    >
      <div className="grid gap-3">
        <TextField label="Reason for return" required maxLength={120} {...form.text('reason')} />
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
                  <NumberField label="Return" placeholder="0" {...form.text(`lines.${k}.quantity`)} />
                  {l.rejected > 0 && l.received > 0 && (
                    <ChoiceField label="From" {...form.text(`lines.${k}.from`)}>
                      <option value="rejected">rejected</option>
                      <option value="accepted">accepted stock</option>
                    </ChoiceField>
                  )}
                  <ChoiceField label="Ask for" {...form.text(`lines.${k}.wants`)}>
                    <option value="replacement">replacement</option>
                    <option value="credit">credit note</option>
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
