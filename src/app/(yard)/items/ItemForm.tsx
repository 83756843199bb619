'use client';

import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { isGoods, ITEM_KIND_NAMES, ITEM_KINDS, TRACKING, TRACKING_NAMES } from '@/core/items/kinds';
import { ungrouped } from '@/core/locale/locale';
import { formatQuantity } from '@/core/quantity/quantity';
import { unitOf } from '@/core/quantity/units';
import { itemForm, type ItemText } from '@/core/records/item';
import type { ItemView } from '@/queries/items/items';
import { ChoiceField, TextField } from '@/ui/kit/Field';
import { PickField } from '@/ui/kit/PickField';
import { UnitField } from '@/ui/kit/UnitField';
import { RecordForm } from '@/ui/kit/RecordForm';
import { useActForm } from '@/ui/acting/useActForm';
import { later } from '@/ui/acting/later';
import { acts } from '../../actions';

const InPassing = later(() => import('../_shared/items/InPassing'));

type Props = { readonly view: ItemView | undefined };

/** What stands in the form of an item. */
function startOf(view: ItemView | undefined): ItemText {
  const item = view?.item;
  return {
    version: item?.version ?? 0,
    number: item?.number ?? '',
    name: item?.name ?? '',
    unit: item?.unit ?? 'C62',
    kind: item?.kind ?? 'part',
    bought: item?.bought !== 0,
    stocked: item?.stocked === 1,
    tracking: item?.tracking ?? 'none',
    certificate: item?.certificate === 1,
    inspected: item?.inspected === 1,
    numberPattern: item?.numberPattern ?? '',
    weight: item?.weight == null ? '' : ungrouped(formatQuantity(item.weight)),
    gtin: item?.gtin ?? '',
    costCodeId: view?.costCode ?? null,
    supplierId: view?.supplier ?? null,
  };
}

/** An item; how its supplier sells it is asked next where it is new. */
export function ItemForm({ view }: Props) {
  const router = useRouter();
  const item = view?.item;
  const [making, setMaking] = useState<string>();
  const form = useActForm({
    read: () => itemForm,
    start: startOf(view),
    keep: `part ${item?.id ?? 'new'}`,
    act: acts.saveItem,
    input: (read, once) => ({ once, id: item?.id ?? null, ...read }),
    said: (_, typed) => `${typed.number} saved`,
    onDone: ({ id }) => {
      const supplier = item === undefined ? form.typed.supplierId : null;
      router.push(supplier === null ? `/items/${id}` : `/items/${id}/sold/${supplier.id}`);
    },
    stay: true,
  });
  const { typed } = form;
  const goods = isGoods(typed.kind);
  return (
    <RecordForm
      title={item?.name ?? 'New item'}
      what="item"
      name={typed.number && <span className="mono">{typed.number}</span>}
      form={form}
      onVersion={(version) => form.put('version', version)}
    >
      <div className="grid max-w-[860px] gap-3 sm:grid-cols-6">
        <TextField label="Item number" inputClass="mono" className="sm:col-span-2" required {...form.text('number')} />
        <TextField label="Name" className="sm:col-span-4" required {...form.text('name')} />
        <UnitField label="Stock unit" className="sm:col-span-2" {...form.unit('unit')} />
        <PickField
          kind="costCode"
          label="Cost code"
          className="sm:col-span-2"
          placeholder="none"
          {...form.pick('costCodeId')}
        />
        <TextField
          label="GTIN"
          inputClass="mono"
          inputMode="numeric"
          className="sm:col-span-2"
          {...form.text('gtin')}
        />
        <ChoiceField label="Type" className="sm:col-span-2" {...form.text('kind')}>
          {ITEM_KINDS.map((kind) => (
            <option key={kind} value={kind}>
              {ITEM_KIND_NAMES[kind]}
            </option>
          ))}
        </ChoiceField>
        {goods && (
          <ChoiceField label="Tracked by" className="sm:col-span-2" {...form.text('tracking')}>
            {TRACKING.map((way) => (
              <option key={way} value={way}>
                {TRACKING_NAMES[way]}
              </option>
            ))}
          </ChoiceField>
        )}
        {goods && typed.tracking === 'serial' && (
          <TextField
            label="Serial number format"
            inputClass="mono"
            placeholder="any"
            hint="9 = digit, A = letter, * = either, e.g. SN-9999"
            className="sm:col-span-2"
            {...form.text('numberPattern')}
          />
        )}
        {goods && (
          <TextField
            label={`Weight (kg per ${unitOf(typed.unit).name})`}
            inputMode="decimal"
            placeholder="Unknown"
            className="sm:col-span-2"
            {...form.text('weight')}
          />
        )}
        <div className="flex flex-wrap gap-x-6 gap-y-2 sm:col-span-6">
          <label>
            <input type="checkbox" {...form.tick('bought')} /> Can be purchased
          </label>
          {goods && (
            <label>
              <input type="checkbox" {...form.tick('stocked')} /> Stock item (pack surplus goes to stores)
            </label>
          )}
          {goods && (
            <label>
              <input type="checkbox" {...form.tick('certificate')} /> Certificate required
            </label>
          )}
          {goods && (
            <label>
              <input type="checkbox" {...form.tick('inspected')} /> Inspect before release
            </label>
          )}
        </div>
        {!goods && (
          <p className="text-[13px] text-ink-2 sm:col-span-6">Not received at the Dock: completed by its invoice.</p>
        )}
        <PickField
          kind="supplier"
          label="Default supplier"
          className="sm:col-span-3"
          placeholder="None"
          {...form.pick('supplierId')}
          make={{ words: 'New supplier', onMake: setMaking }}
        />
        {making !== undefined && (
          <InPassing
            making={{ kind: 'supplier', typed: making }}
            onClose={() => setMaking(undefined)}
            onSupplier={(supplier) => form.put('supplierId', supplier)}
          />
        )}
      </div>
    </RecordForm>
  );
}
