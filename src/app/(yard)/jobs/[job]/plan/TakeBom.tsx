'use client';

import { z } from 'zod';
import { quantitySchema } from '@/core/quantity/schema';
import { picked, pickedOrNone, typedQuantity } from '@/core/records/typed';
import { ungrouped } from '@/core/locale/locale';
import { formatQuantity } from '@/core/quantity/quantity';
import type { PlanView } from '@/queries/buying/plan';
import { counted } from '@/core/words';
import { Faults } from '@/ui/kit/Field';
import { NumberField } from '@/ui/kit/NumberField';
import { PickField } from '@/ui/kit/PickField';
import { Slip } from '@/ui/kit/Slip';
import { useKey } from '@/ui/frame/keys';
import { useActForm } from '@/ui/acting/useActForm';
import { acts } from '../../../../actions';

const bom = z.object({
  itemId: picked('Choose the item to make.'),
  quantity: typedQuantity(quantitySchema),
  codeId: pickedOrNone,
});

type Props = {
  readonly job: { readonly id: number };
  readonly version: number;
  /** What the quote says is made, and how many of it. */
  readonly proposed: PlanView['toMake'][number] | undefined;
  readonly onClose: () => void;
};

/** A job takes the BOM of what it makes. */
export default function TakeBom({ job, version, proposed, onClose }: Props) {
  const form = useActForm({
    read: () => bom,
    start: {
      itemId: proposed?.item ?? null,
      quantity: proposed === undefined ? '' : ungrouped(formatQuantity(proposed.quantity)),
      codeId: null,
    },
    act: acts.planFromBom,
    input: (read, once) => ({ once, jobId: job.id, version, ...read }),
    said: ({ lines }) => `${counted(lines, 'line')} to buy from its BOM`,
    onDone: onClose,
  });
  useKey('Ctrl+Enter', 'Add BOM', form.save, !form.busy);
  return (
    <Slip
      open
      onClose={onClose}
      title="Add from bill of materials"
      detail="Every bought item, at all levels, becomes a buy-list line."
      foot={
        <div className="grid gap-2">
          <Faults messages={form.clash ? [form.clash.message] : form.refusals.map((r) => r.message)} />
          <button type="button" className="btn btn-main justify-self-end" disabled={form.busy} onClick={form.save}>
            Add BOM{' '}
            <span className="kbd" aria-hidden>
              Ctrl ↵
            </span>
          </button>
        </div>
      }
    >
      <div className="grid gap-3">
        <PickField kind="item" label="Item to make" required autoFocus {...form.pick('itemId')} />
        <NumberField label="Quantity" required {...form.text('quantity')} />
        <PickField
          kind="costCode"
          label="Cost code for items without one"
          placeholder="Items’ own codes"
          {...form.pick('codeId')}
        />
      </div>
    </Slip>
  );
}
