'use client';

import { z } from 'zod';
import { ladderForm, type LadderText } from '@/core/records/signoff';
import type { LadderView } from '@/queries/signoff/ladder';
import { useKey } from '@/ui/frame/keys';
import { NumberField } from '@/ui/kit/NumberField';
import { signOf } from '@/core/money/money';
import { Fact, Shelf, ShelfMain } from '@/ui/kit/Shelf';
import { useActForm } from '@/ui/acting/useActForm';
import { acts } from '../../actions';
import { StepFields, type StepText } from './StepFields';

const startOf = ({ steps, tolerance, currency }: LadderView): LadderText => {
  const { shape } = ladderForm(currency);
  const money = shape.steps.element.shape;
  return {
    steps: steps.map((s): StepText => ({
      id: s.id,
      valueAbove: z.encode(money.valueAbove, s.valueAbove),
      overAbove: z.encode(money.overAbove, s.overAbove),
      costCodeId: s.costCode,
      supplierId: s.supplier,
      jobKind: s.jobKind ?? '',
      currency: s.currency ?? '',
      onRule: s.onRule,
      signers: s.signers,
    })),
    signToleranceShare: z.encode(shape.signToleranceShare, tolerance.share),
    signToleranceMost: z.encode(shape.signToleranceMost, tolerance.most),
  };
};

const FRESH: StepText = {
  valueAbove: '',
  overAbove: '',
  costCodeId: null,
  supplierId: null,
  jobKind: '',
  currency: '',
  onRule: false,
  signers: [],
};

/** The steps that an order climbs before it is sent, in sequence. */
export function Ladder({ view }: { readonly view: LadderView }) {
  const { currency } = view;
  const form = useActForm({
    read: () => ladderForm(currency),
    start: startOf(view),
    act: acts.saveLadder,
    input: (read, once) => ({ once, version: view.version, ...read }),
    said: () => 'Ladder saved',
  });
  const { steps } = form.typed;
  const put = (next: readonly StepText[]) => form.put('steps', [...next]);
  const move = (k: number, by: number) => {
    const next = [...steps];
    const [taken] = next.splice(k, 1);
    if (taken !== undefined) next.splice(k + by, 0, taken);
    put(next);
  };
  useKey('Ctrl+Enter', 'Save ladder', form.save, !form.busy);
  const told = form.clash
    ? `${form.clash.message} This is the latest version: check it, then try again.`
    : form.refusals[0]?.message;
  return (
    <section aria-label="Ladder">
      <p className="mb-3 max-w-[720px] text-ink-2">
        Orders go up these steps in turn before they can be sent. Steps whose limits aren’t reached are skipped. With no
        steps, orders go without sign-off.
      </p>
      <ol className="grid gap-3">
        {steps.map((step, k) => (
          <StepFields
            key={step.id ?? `new${k}`}
            place={k + 1}
            step={step}
            stuck={view.steps.find((s) => s.id === step.id)?.stuck ?? ''}
            currency={currency}
            faultAt={(field) =>
              form.faultAt(`steps.${k}.${field}`) ?? (field === '' ? form.refusedAt(`steps.${k}`)?.message : undefined)
            }
            onStep={(change) => put(steps.map((s, j) => (j === k ? { ...s, ...change } : s)))}
            onUp={k === 0 ? undefined : () => move(k, -1)}
            onDown={k === steps.length - 1 ? undefined : () => move(k, 1)}
            onGone={() => put(steps.filter((_, j) => j !== k))}
          />
        ))}
      </ol>
      <button type="button" className="step mt-2" onClick={() => put([...steps, FRESH])}>
        + Step
      </button>
      <div className="mt-4 grid max-w-[620px] items-start gap-3 sm:grid-cols-2">
        <NumberField
          label="Increase allowed after sign-off, %"
          hint="Within this and the amount beside it, no new sign-off is needed."
          {...form.text('signToleranceShare')}
        />
        <NumberField label={`and at most, ${signOf(currency)}`} {...form.text('signToleranceMost')} />
      </div>
      <Shelf
        fault={told}
        facts={
          <Fact strong>
            {steps.length === 0 ? 'No steps' : `${steps.length} ${steps.length === 1 ? 'step' : 'steps'}`}
          </Fact>
        }
      >
        <ShelfMain disabled={form.busy} onClick={form.save} hint="Ctrl ↵">
          {form.busy ? 'Saving…' : 'Save ladder'}
        </ShelfMain>
      </Shelf>
    </section>
  );
}
