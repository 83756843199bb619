'use client';

import { ungrouped } from '@/core/locale/locale';
import { useState } from 'react';
import { formatPrice, parsePrice, signOf } from '@/core/money/money';
import { formatQuantity, parseQuantity, quantity } from '@/core/quantity/quantity';
import { unitOf } from '@/core/quantity/units';
import type { BuyListLine, NeedLine } from '@/queries/needs';
import type { ItemThing, Thing } from '@/queries/things';
import { ChoiceField, Faults, TextField } from '@/ui/kit/Field';
import { NumberField } from '@/ui/kit/NumberField';
import { Press } from '@/ui/kit/Press';
import { PickField } from '@/ui/kit/PickField';
import { DateField } from '@/ui/kit/DateField';
import { UnitField } from '@/ui/kit/UnitField';
import { Slip } from '@/ui/kit/Slip';
import { useKey } from '@/ui/keys';
import { Tags } from '@/ui/Tags';
import { useDraft } from '@/ui/useDraft';
import { useAct } from '@/ui/useAct';
import { useYard } from '@/ui/YardContext';
import { changeNeed } from '../acts';
import { InPassing, type Making } from './InPassing';

type Named = Pick<Thing, 'id' | 'number' | 'name'>;

/** What a person may type and pick for a need. */
export type NeedText = {
  readonly item: Named | null;
  readonly description: string;
  readonly quantity: string;
  readonly unit: string;
  readonly price: string;
  readonly costCode: Named | null;
  readonly supplier: Named | null;
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
    costCodeId: text.costCode?.id ?? 0,
    supplierId: text.supplier?.id ?? null,
    neededOn: text.neededOn,
  };
  return { value, faults };
}

type FieldsProps = {
  readonly text: NeedText;
  readonly set: (change: (text: NeedText) => NeedText) => void;
  readonly faultAt: (field: string) => string | undefined;
  readonly disabled?: boolean;
  /** Whether it may still become a need of another part. */
  readonly open?: boolean;
};

export function NeedFields({ text, set, faultAt, disabled, open = false }: FieldsProps) {
  const { currency, may } = useYard();
  const [making, setMaking] = useState<Making>();
  const put = (change: Partial<NeedText>) => set((now) => ({ ...now, ...change }));
  const bind = (name: 'description' | 'quantity' | 'price') => ({
    name,
    disabled,
    value: text[name],
    onChange: (e: { target: { value: string } }) => put({ [name]: e.target.value }),
    fault: faultAt(name),
  });
  const take = (item: ItemThing) =>
    put({
      item,
      description: item.name,
      unit: item.unit,
      ...(item.costCode === null ? {} : { costCode: item.costCode }),
      ...(item.supplier === null ? {} : { supplier: item.supplier }),
      ...(item.price === null ? {} : { price: ungrouped(formatPrice(item.price, currency)) }),
    });
  const make = (kind: Making['kind'], words: string) =>
    may('keep suppliers') ? { words, onMake: (typed: string) => setMaking({ kind, typed }) } : undefined;
  return (
    <div className="grid grid-cols-2 gap-3">
      {open ? (
        <PickField
          kind="item"
          label="What is needed"
          hint={text.item === null ? 'A part, or a few words' : `Part ${text.item.number}`}
          className="col-span-2"
          autoFocus
          required
          value={text.item}
          free={{ text: text.description, onText: (description) => put({ description, item: null }) }}
          onPick={(item) => item !== null && take(item)}
          make={make('item', 'New part')}
          fault={faultAt('description')}
        />
      ) : (
        <TextField label="What is needed" className="col-span-2" required {...bind('description')} />
      )}
      <NumberField label="Quantity" required {...bind('quantity')} />
      <UnitField
        label="Unit"
        value={text.unit}
        onUnit={(unit) => put({ unit })}
        disabled={disabled}
        fault={faultAt('unit')}
      />
      {may('see money') && (
        <NumberField
          label={`Estimated price, ${signOf(currency)} per ${unitOf(text.unit).name}`}
          placeholder="none yet"
          {...bind('price')}
        />
      )}
      <DateField
        label="Needed"
        value={text.neededOn}
        onDay={(neededOn) => put({ neededOn })}
        disabled={disabled}
        fault={faultAt('neededOn')}
      />
      <PickField
        kind="costCode"
        label="Cost code"
        required
        value={text.costCode}
        onPick={(costCode) => put({ costCode })}
        disabled={disabled}
        fault={faultAt('costCodeId')}
      />
      <PickField
        kind="supplier"
        label="Supplier"
        placeholder="none yet"
        value={text.supplier}
        onPick={(supplier) => put({ supplier })}
        make={make('supplier', 'New supplier')}
        disabled={disabled}
        fault={faultAt('supplierId')}
      />
      {making !== undefined && (
        <InPassing
          making={making}
          onClose={() => setMaking(undefined)}
          onItem={take}
          onSupplier={(supplier) => put({ supplier })}
        />
      )}
    </div>
  );
}

type Props = { readonly need: NeedLine | BuyListLine; readonly onClose: () => void };

/** A line of a buy list, for a quick look and a change. */
export function NeedSlip({ need, onClose }: Props) {
  const { currency, may } = useYard();
  const draft = useDraft<NeedText>(`need ${need.id}, version ${need.version}`, {
    description: need.description,
    quantity: ungrouped(formatQuantity(need.quantity)),
    unit: need.unit,
    price: need.price === null ? '' : ungrouped(formatPrice(need.price, currency)),
    item: null,
    costCode: { id: need.costCodeId, number: need.code, name: need.codeName },
    supplier: need.supplierId === null ? null : { id: need.supplierId, number: '', name: need.supplier ?? '' },
    neededOn: need.neededOn ?? '',
  });
  const text = draft.value;
  const [local, setLocal] = useState<readonly { field: string; message: string }[]>([]);
  const [surplus, setSurplus] = useState<'' | 'job' | 'stores'>('');
  const { run, busy, refusals, clash, faultAt } = useAct(changeNeed, {
    said: () => 'The line is changed',
    onDone: () => {
      draft.drop();
      onClose();
    },
  });
  const save = () => {
    const { value, faults } = readNeed(text, true);
    setLocal(faults);
    const said = surplus === '' ? {} : { surplus };
    if (faults.length === 0) void run({ needId: need.id, version: need.version, ...value, ...said });
  };
  const mayChange = may('change buy lists');
  useKey('Ctrl+Enter', 'Save the line', save, mayChange && !busy);
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
            <div className="flex items-center justify-end gap-3">
              {draft.kept && (
                <button type="button" className="step mr-auto" onClick={draft.restart}>
                  kept from before: put back
                </button>
              )}
              <Press type="button" disabled={busy} onClick={save} className="btn btn-main">
                Save the line <span className="kbd">^↵</span>
              </Press>
            </div>
          </div>
        )
      }
    >
      <div className="mb-3">
        <Tags tags={need.tags} />
      </div>
      <NeedFields
        text={text}
        set={draft.set}
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
