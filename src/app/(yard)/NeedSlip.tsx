'use client';

import { ungrouped } from '@/core/locale/locale';
import { useState } from 'react';
import { formatPrice, parsePrice, signOf } from '@/core/money/money';
import { formatQuantity, parseQuantity, quantity } from '@/core/quantity/quantity';
import { UNITS, unitOf } from '@/core/quantity/units';
import type { BuyListLine, NeedLine } from '@/queries/needs';
import { ChoiceField, Faults, TextField } from '@/ui/kit/Field';
import { NumberField } from '@/ui/kit/NumberField';
import { Slip } from '@/ui/kit/Slip';
import { Tags } from '@/ui/Tags';
import { useAct } from '@/ui/useAct';
import { useYard } from '@/ui/YardContext';
import { changeNeed } from '../acts';

export type NeedChoices = {
  readonly suppliers: readonly { id: number; name: string }[];
  readonly codes: readonly { id: number; code: string; name: string }[];
};

/** What a person may type for a need, as text. */
export type NeedText = {
  readonly description: string;
  readonly quantity: string;
  readonly unit: string;
  readonly price: string;
  readonly costCodeId: string;
  readonly supplierId: string;
  readonly neededOn: string;
};

/** Reads the typed form of a need; faults stand beside their fields. */
export function readNeed(text: NeedText, mayBeNone = false) {
  const faults: { field: string; message: string }[] = [];
  const take = <T,>(
    field: string,
    read: { ok: true; value: T } | { ok: false; refusals: readonly { message: string }[] },
    instead: T,
  ): T => {
    if (read.ok) return read.value;
    faults.push({ field, message: read.refusals[0]?.message ?? '' });
    return instead;
  };
  const none = mayBeNone && text.quantity.trim() === '0';
  const value = {
    description: text.description,
    quantity: none ? quantity(0) : take('quantity', parseQuantity(text.quantity), quantity(0)),
    unit: text.unit,
    price: text.price.trim() === '' ? null : take('price', parsePrice(text.price), 0 as never),
    costCodeId: Number(text.costCodeId),
    supplierId: text.supplierId === '' ? null : Number(text.supplierId),
    neededOn: text.neededOn,
  };
  return { value, faults };
}

type FieldsProps = {
  readonly text: NeedText;
  readonly set: (text: NeedText) => void;
  readonly choices: NeedChoices;
  readonly faultAt: (field: string) => string | undefined;
  readonly disabled?: boolean;
};

export function NeedFields({ text, set, choices, faultAt, disabled }: FieldsProps) {
  const { currency, may } = useYard();
  const bind = (name: keyof NeedText) => ({
    name,
    disabled,
    value: text[name],
    onChange: (e: { target: { value: string } }) => set({ ...text, [name]: e.target.value }),
    fault: faultAt(name),
  });
  return (
    <div className="grid grid-cols-2 gap-3">
      <TextField label="What is needed" className="col-span-2" required {...bind('description')} />
      <NumberField label="Quantity" required {...bind('quantity')} />
      <ChoiceField label="Unit" {...bind('unit')}>
        {UNITS.map((u) => (
          <option key={u.code} value={u.code}>
            {u.short === '' ? u.name : `${u.name} (${u.short})`}
          </option>
        ))}
      </ChoiceField>
      {may('see money') && (
        <NumberField
          label={`Estimated price, ${signOf(currency)} per ${unitOf(text.unit).name}`}
          placeholder="none yet"
          {...bind('price')}
        />
      )}
      <TextField label="Needed" type="date" {...bind('neededOn')} />
      <ChoiceField label="Cost code" {...bind('costCodeId')}>
        <option value="">choose…</option>
        {choices.codes.map((c) => (
          <option key={c.id} value={c.id}>
            {c.code} {c.name}
          </option>
        ))}
      </ChoiceField>
      <ChoiceField label="Supplier" {...bind('supplierId')}>
        <option value="">none yet</option>
        {choices.suppliers.map((s) => (
          <option key={s.id} value={s.id}>
            {s.name}
          </option>
        ))}
      </ChoiceField>
    </div>
  );
}

type Props = { readonly need: NeedLine | BuyListLine; readonly choices: NeedChoices; readonly onClose: () => void };

/** A line of a buy list, for a quick look and a change. */
export function NeedSlip({ need, choices, onClose }: Props) {
  const { currency, may } = useYard();
  const [text, set] = useState<NeedText>({
    description: need.description,
    quantity: ungrouped(formatQuantity(need.quantity)),
    unit: need.unit,
    price: need.price === null ? '' : ungrouped(formatPrice(need.price, currency)),
    costCodeId: String(need.costCodeId),
    supplierId: String(need.supplierId ?? ''),
    neededOn: need.neededOn ?? '',
  });
  const [local, setLocal] = useState<readonly { field: string; message: string }[]>([]);
  const [surplus, setSurplus] = useState<'' | 'job' | 'stores'>('');
  const { run, busy, refusals, clash, faultAt } = useAct(changeNeed, {
    said: () => 'The line is changed',
    onDone: onClose,
  });
  const save = () => {
    const { value, faults } = readNeed(text, true);
    setLocal(faults);
    const said = surplus === '' ? {} : { surplus };
    if (faults.length === 0) void run({ needId: need.id, version: need.version, ...value, ...said });
  };
  const mayChange = may('change buy lists');
  const cut = faultAt('surplus');
  const others = refusals.filter((r) => r.field === undefined || r.field === '').map((r) => r.message);
  return (
    <Slip
      open
      onClose={onClose}
      title={need.description}
      detail={
        <>
          <span className="mono font-bold">{need.job}</span> {need.code} {need.codeName} · {formatQuantity(need.open)}{' '}
          {unitOf(need.unit).short} still to buy
        </>
      }
      foot={
        mayChange && (
          <div className="grid gap-2">
            <Faults messages={clash ? [`${clash.message} Close this and look at it again.`] : others} />
            <button type="button" disabled={busy} onClick={save} className="btn btn-main justify-self-end">
              Save the line
            </button>
          </div>
        )
      }
    >
      <div className="mb-3">
        <Tags tags={need.tags} />
      </div>
      <NeedFields
        text={text}
        set={set}
        choices={choices}
        disabled={!mayChange}
        faultAt={(f) => local.find((l) => l.field === f)?.message ?? faultAt(f)}
      />
      {(cut !== undefined || surplus !== '') && (
        <ChoiceField
          label="What is over"
          className="mt-3"
          value={surplus}
          onChange={(e) => setSurplus(e.target.value as typeof surplus)}
          fault={cut}
        >
          <option value="">choose…</option>
          <option value="job">stays with the job</option>
          <option value="stores">goes to stores</option>
        </ChoiceField>
      )}
    </Slip>
  );
}
