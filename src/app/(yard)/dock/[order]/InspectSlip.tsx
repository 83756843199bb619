'use client';

import { measured } from '@/core/quantity/units';
import { ungrouped } from '@/core/locale/locale';
import { formatQuantity } from '@/core/quantity/quantity';
import { REJECT } from '@/core/receiving/reasons';
import { inspectionForm } from '@/core/records/delivery';
import type { DockLine, DockOrder } from '@/queries/dock/order';
import { Faults } from '@/ui/kit/Field';
import { NumberField } from '@/ui/kit/NumberField';
import { Slip } from '@/ui/kit/Slip';
import { useKey } from '@/ui/frame/keys';
import { useActForm } from '@/ui/acting/useActForm';
import { acts } from '../../../actions';
import { ReasonField } from '../ReasonField';

type Props = { readonly order: DockOrder; readonly lines: readonly DockLine[]; readonly onClose: () => void };

/** What is in and not released: how much is good, and how much is rejected and why. */
export function InspectSlip({ order, lines, onClose }: Props) {
  const form = useActForm({
    read: () => inspectionForm,
    start: {
      lines: lines.map((l) => ({
        ...{ lineId: l.id, tracking: l.tracking, toItem: l.toItem, released: ungrouped(formatQuantity(l.held)) },
        ...{ rejected: '', reason: '', good: [...l.heldNumbers], bad: [] as string[] },
      })),
    },
    act: acts.inspect,
    input: (read, once) => ({ once, orderId: order.id, version: order.version, ...read }),
    said: ({ number }) => `Inspected as ${number}`,
    onDone: onClose,
  });
  useKey('Ctrl+Enter', 'Release', form.save, !form.busy);
  const told = [
    ...(form.clash ? [form.clash.message] : []),
    ...form.refusals.map((r) => r.message),
    ...lines.flatMap((l) => form.refusedAt(`lines.${l.id}`)?.message ?? []),
  ];
  return (
    <Slip
      open
      onClose={onClose}
      title="Inspect"
      detail={`${order.supplier} · ${order.number}. You are recorded as the inspector.`}
      foot={
        <div className="grid gap-2">
          <Faults messages={told} />
          <button type="button" className="btn btn-main justify-self-end" disabled={form.busy} onClick={form.save}>
            Save result{' '}
            <span className="kbd" aria-hidden>
              Ctrl ↵
            </span>
          </button>
        </div>
      }
    >
      <ul>
        {lines.map((l, k) => (
          <li key={l.id} className="mb-4 border-b border-line-2 pb-4 last:border-0">
            <div className="font-semibold">{l.description}</div>
            <div className="mb-2 text-[13px] text-ink-2">{measured(l.held, l.unit)} awaiting inspection</div>
            {l.tracking === 'none' || l.heldNumbers.length === 0 ? (
              <div className="grid grid-cols-2 gap-3">
                <NumberField label="Good" {...form.text(`lines.${k}.released`)} />
                <NumberField label="Rejected" placeholder="none" {...form.text(`lines.${k}.rejected`)} />
              </div>
            ) : (
              <NumberChoice
                numbers={l.heldNumbers}
                good={form.typed.lines[k]?.good ?? []}
                bad={form.typed.lines[k]?.bad ?? []}
                onChoose={(good, bad) => {
                  form.put(`lines.${k}.good`, good);
                  form.put(`lines.${k}.bad`, bad);
                }}
              />
            )}
            {(form.typed.lines[k]?.rejected !== '' || (form.typed.lines[k]?.bad.length ?? 0) > 0) && (
              <div className="mt-2">
                <ReasonField
                  label="Reason for rejection"
                  reasons={order.reasons}
                  kinds={REJECT}
                  value={form.typed.lines[k]?.reason ?? ''}
                  onReason={(id) => form.put(`lines.${k}.reason`, id)}
                />
              </div>
            )}
          </li>
        ))}
      </ul>
    </Slip>
  );
}

type Choice = {
  readonly numbers: readonly string[];
  readonly good: readonly string[];
  readonly bad: readonly string[];
  readonly onChoose: (good: string[], bad: string[]) => void;
};

/** Each piece by its number: good, rejected, or waiting on. */
function NumberChoice({ numbers, good, bad, onChoose }: Choice) {
  const put = (number: string, to: string) => {
    const without = (list: readonly string[]) => list.filter((n) => n !== number);
    onChoose(
      [...without(good), ...(to === 'good' ? [number] : [])],
      [...without(bad), ...(to === 'bad' ? [number] : [])],
    );
  };
  const stands = (n: string) => (good.includes(n) ? 'good' : bad.includes(n) ? 'bad' : 'waits');
  return (
    <ul aria-label="Numbers">
      {numbers.map((n) => (
        <li key={n} className="flex items-center gap-3 py-1">
          <span className="mono min-w-0 flex-1 break-all">{n}</span>
          <select
            aria-label={`${n}`}
            className="field field-small !w-[120px]"
            value={stands(n)}
            onChange={(e) => put(n, e.target.value)}
          >
            <option value="good">good</option>
            <option value="bad">rejected</option>
            <option value="waits">still waiting</option>
          </select>
        </li>
      ))}
    </ul>
  );
}
