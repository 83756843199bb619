'use client';

import { ungrouped } from '@/core/locale/locale';
import { useState } from 'react';
import { formatPrice, signOf } from '@/core/money/money';
import { unitOf } from '@/core/quantity/units';
import { type NeedText } from '@/core/records/need';
import type { ItemChoice } from '@/queries/frame/choices';
import { named } from '@/ui/entry/column';
import { TextField } from '@/ui/kit/Field';
import { NumberField } from '@/ui/kit/NumberField';
import { PickField } from '@/ui/kit/PickField';
import { DateField } from '@/ui/kit/DateField';
import { UnitField } from '@/ui/kit/UnitField';
import { type ActForm } from '@/ui/acting/useActForm';
import { useYard } from '@/ui/frame/YardContext';
import type { Making } from '../items/InPassing';
import { later } from '@/ui/acting/later';

const InPassing = later(() => import('../items/InPassing'));

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
  const take = (item: ItemChoice) => {
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
          label="Item or description"
          hint={typed.item === null ? 'Item or description' : `Item ${typed.item.number}`}
          className="col-span-2"
          autoFocus
          required
          value={typed.item}
          free={{ text: typed.description, onText: write }}
          onPick={(item) => item !== null && take(item)}
          make={make('item', 'New item')}
          fault={form.faultAt('description')}
        />
      ) : (
        <TextField
          label="Item or description"
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
      <DateField label="Needed by" disabled={disabled} {...form.day('neededOn')} />
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
