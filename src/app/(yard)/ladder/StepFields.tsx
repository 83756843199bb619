'use client';

import { signOf } from '@/core/money/money';
import { ROLE_NAMES, rolesWith, type Role } from '@/core/people/rights';
import type { SignerText, LadderText } from '@/core/records/signoff';
import { ChoiceField, TextField } from '@/ui/kit/Field';
import { NumberField } from '@/ui/kit/NumberField';
import { PickField } from '@/ui/kit/PickField';

export type StepText = LadderText['steps'][number];

type Props = {
  readonly place: number;
  readonly step: StepText;
  readonly stuck: string;
  readonly currency: string;
  readonly faultAt: (field: string) => string | undefined;
  readonly onStep: (change: Partial<StepText>) => void;
  readonly onUp: (() => void) | undefined;
  readonly onDown: (() => void) | undefined;
  readonly onGone: () => void;
};

const nameOf = (s: SignerText): string =>
  s.kind === 'lead' ? 'The job lead' : s.kind === 'role' ? ROLE_NAMES[s.role] : s.person.name;

const keyOf = (s: SignerText): string =>
  s.kind === 'person' ? `p${s.person.id}` : s.kind === 'role' ? s.role : 'lead';

/** One step of the ladder: who signs, and when it is asked for. */
export function StepFields({ place, step, stuck, currency, faultAt, onStep, onUp, onDown, onGone }: Props) {
  const sign = signOf(currency);
  const add = (signer: SignerText) => {
    if (!step.signers.some((s) => keyOf(s) === keyOf(signer))) onStep({ signers: [...step.signers, signer] });
  };
  const fault = faultAt('signers') ?? faultAt('');
  return (
    <li aria-label={`Step ${place}`} className="rounded-md border border-line bg-glaze-2 px-3 pt-2 pb-3">
      <div className="mb-2 flex flex-wrap items-center gap-x-3 gap-y-1">
        <span className="flex size-6 items-center justify-center rounded-full border-2 border-ink-3 text-[12px] font-bold">
          {place}
        </span>
        {step.signers.length === 0 && <span className="text-ink-2">No one yet</span>}
        {step.signers.map((s) => (
          <span key={keyOf(s)} className="flex items-center gap-1 rounded-md border border-line bg-glaze px-2 py-0.5">
            <b className="font-semibold">{nameOf(s)}</b>
            <button
              type="button"
              className="step"
              aria-label={`${nameOf(s)} removed from this step`}
              onClick={() => onStep({ signers: step.signers.filter((other) => other !== s) })}
            >
              ×
            </button>
          </span>
        ))}
        <span className="ml-auto flex gap-3">
          {onUp && (
            <button type="button" className="step" onClick={onUp} aria-label={`Move step ${place} up`}>
              up
            </button>
          )}
          {onDown && (
            <button type="button" className="step" onClick={onDown} aria-label={`Move step ${place} down`}>
              down
            </button>
          )}
          <button type="button" className="step" onClick={onGone} aria-label={`Remove step ${place}`}>
            Remove
          </button>
        </span>
      </div>
      {(fault !== undefined || stuck !== '') && (
        <p role={fault === undefined ? undefined : 'alert'} className="field-fault mb-2">
          {fault ?? `At present, ${stuck}`}
        </p>
      )}
      <div className="grid items-start gap-3 sm:grid-cols-4">
        <ChoiceField
          label="Signed by"
          value=""
          onChange={(e) =>
            add(e.target.value === 'lead' ? { kind: 'lead' } : { kind: 'role', role: e.target.value as Role })
          }
        >
          <option value="" disabled>
            Add person or role…
          </option>
          <option value="lead">the job lead</option>
          {rolesWith('sign orders').map((role) => (
            <option key={role} value={role}>
              Any {ROLE_NAMES[role].toLowerCase()}
            </option>
          ))}
        </ChoiceField>
        <PickField
          kind="person"
          label="or by one person"
          value={null}
          onPick={(person) => person !== null && add({ kind: 'person', person })}
        />
        <NumberField
          label={`Order above, ${sign}`}
          value={step.valueAbove}
          onChange={(e) => onStep({ valueAbove: e.target.value })}
          fault={faultAt('valueAbove')}
        />
        <NumberField
          label={`Budget over by more than, ${sign}`}
          value={step.overAbove}
          onChange={(e) => onStep({ overAbove: e.target.value })}
          fault={faultAt('overAbove')}
        />
        <PickField
          kind="costCode"
          label="Cost code"
          value={step.costCodeId}
          onPick={(code) => onStep({ costCodeId: code })}
        />
        <PickField
          kind="supplier"
          label="Supplier"
          value={step.supplierId}
          onPick={(supplier) => onStep({ supplierId: supplier })}
        />
        <ChoiceField label="Job type" value={step.jobKind} onChange={(e) => onStep({ jobKind: e.target.value })}>
          <option value="">any</option>
          <option value="contract">contract</option>
          <option value="repair">repair</option>
          <option value="make">make</option>
        </ChoiceField>
        <TextField
          label="Currency"
          placeholder="any"
          value={step.currency}
          maxLength={3}
          onChange={(e) => onStep({ currency: e.target.value.toUpperCase() })}
          fault={faultAt('currency')}
        />
      </div>
      <label className="mt-2 flex items-center gap-2">
        <input
          type="checkbox"
          className="box"
          checked={step.onRule}
          onChange={(e) => onStep({ onRule: e.target.checked })}
        />
        Only when a rule below needs sign-off
      </label>
    </li>
  );
}
