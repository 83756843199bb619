'use client';

import { ungrouped } from '@/core/locale/locale';
import { useState } from 'react';
import { z } from 'zod';
import { formatPrice, signOf } from '@/core/money/money';
import { formatQuantity } from '@/core/quantity/quantity';
import { unitOf } from '@/core/quantity/units';
import type { BuyListLine, NeedLine } from '@/queries/needs';
import { needForm, type NeedText } from '@/core/records/need';
import type { ItemThing } from '@/queries/things';
import { named } from '@/ui/entry/column';
import { ChoiceField, Faults, TextField } from '@/ui/kit/Field';
import { NumberField } from '@/ui/kit/NumberField';
import { Press } from '@/ui/kit/Press';
import { PickField } from '@/ui/kit/PickField';
import { DateField } from '@/ui/kit/DateField';
import { UnitField } from '@/ui/kit/UnitField';
import { Slip } from '@/ui/kit/Slip';
import { useKey } from '@/ui/keys';
import { Tags } from '@/ui/Tags';
import { useActForm, type ActForm } from '@/ui/useActForm';
import { useYard } from '@/ui/YardContext';
import { changeNeed } from '../acts';
import { InPassing, type Making } from './InPassing';

type FieldsProps = {
  readonly form: ActForm<NeedText>;
  readonly disabled?: boolean;
  /** Whether it may still become a need of another part. */
  readonly open?: boolean;
};

export function NeedFields({ form, disabled, open = false }: FieldsProps) {
  const { currency, may } = useYard();
  const [making, setMaking] = useState<Making>();
  const { typed } = form;
  const take = (item: ItemThing) => {
    form.put('item', named(item));
    form.put('description', item.name);
    form.put('unit', item.unit);
    if (item.costCode !== null) form.put('costCodeId', item.costCode);
    if (item.supplier !== null) form.put('supplierId', item.supplier);
    if (item.price !== null) form.put('price', ungrouped(formatPrice(item.price, currency)));
  };
  const write = (description: string) => {
    form.put('description', description);
    form.put('item', null);
  };
  const make = (kind: Making['kind'], words: string) =>
    may('keep suppliers') ? { words, onMake: (typed: string) => setMaking({ kind, typed }) } : undefined;
  return (
    <div className="grid grid-cols-2 gap-3">
      {open ? (
        <PickField
          kind="item"
          label="What is needed"
          hint={typed.item === null ? 'A part, or a few words' : `Part ${typed.item.number}`}
          className="col-span-2"
          autoFocus
          required
          value={typed.item}
          free={{ text: typed.description, onText: write }}
          onPick={(item) => item !== null && take(item)}
          make={make('item', 'New part')}
          fault={form.faultAt('description')}
        />
      ) : (
        <TextField
          label="What is needed"
          className="col-span-2"
          disabled={disabled}
          required
          {...form.text('description')}
        />
      )}
      <NumberField label="Quantity" disabled={disabled} required {...form.text('quantity')} />
      <UnitField label="Unit" disabled={disabled} {...form.unit('unit')} />
      {may('see money') && (
        <NumberField
          label={`Estimated price, ${signOf(currency)} per ${unitOf(typed.unit).name}`}
          placeholder="none yet"
          disabled={disabled}
          {...form.text('price')}
        />
      )}
      <DateField label="Needed" disabled={disabled} {...form.day('neededOn')} />
      <PickField kind="costCode" label="Cost code" required disabled={disabled} {...form.pick('costCodeId')} />
      <PickField
        kind="supplier"
        label="Supplier"
        placeholder="none yet"
        {...form.pick('supplierId')}
        make={make('supplier', 'New supplier')}
        disabled={disabled}
      />
      {making !== undefined && (
        <InPassing
          making={making}
          onClose={() => setMaking(undefined)}
          onItem={take}
          onSupplier={(supplier) => form.put('supplierId', supplier)}
        />
      )}
    </div>
  );
}

/** What stands in the form of a need. */
const startOf = (need: NeedLine | BuyListLine, currency: string): NeedText => ({
  ...z.encode(needForm(currency).pick({ description: true, quantity: true, unit: true, price: true }), need),
  neededOn: need.neededOn ?? '',
  item: null,
  costCodeId: { id: need.costCodeId, number: need.code, name: need.codeName },
  supplierId: need.supplierId === null ? null : { id: need.supplierId, number: '', name: need.supplier ?? '' },
  surplus: '',
});

type Props = { readonly need: NeedLine | BuyListLine; readonly onClose: () => void };

/** A line of a buy list, for a quick look and a change. */
export function NeedSlip({ need, onClose }: Props) {
  const { currency, may } = useYard();
  const form = useActForm({
    read: () => needForm(currency),
    start: startOf(need, currency),
    keep: `need ${need.id}, version ${need.version}`,
    act: changeNeed,
    input: ({ item: _, surplus, ...read }) => ({
      needId: need.id,
      version: need.version,
      ...read,
      ...(surplus === '' ? {} : { surplus }),
    }),
    said: () => 'The line is changed',
    onDone: onClose,
  });
  const { busy, clash } = form;
  const mayChange = may('change buy lists');
  useKey('Ctrl+Enter', 'Save the line', form.save, mayChange && !busy);
  const surplus = form.text('surplus');
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
            <Faults
              messages={
                clash ? [`${clash.message} Close this and look at it again.`] : form.refusals.map((r) => r.message)
              }
            />
            <div className="flex items-center justify-end gap-3">
              {form.kept && (
                <button type="button" className="step mr-auto" onClick={() => form.restart()}>
                  kept from before: put back
                </button>
              )}
              <Press type="button" disabled={busy} onClick={form.save} className="btn btn-main">
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
      <NeedFields form={form} disabled={!mayChange} />
      {(surplus.fault !== undefined || surplus.value !== '') && (
        <ChoiceField label="What is over" className="mt-3" {...surplus}>
          <option value="">choose…</option>
          <option value="job">stays with the job</option>
          <option value="stores">goes to stores</option>
        </ChoiceField>
      )}
    </Slip>
  );
}
