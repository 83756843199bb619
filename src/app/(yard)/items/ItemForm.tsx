'use client';

import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { useFieldArray } from 'react-hook-form';
import { z } from 'zod';
import { isGoods, ITEM_KIND_NAMES, ITEM_KINDS, TRACKING, TRACKING_NAMES } from '@/core/items/kinds';
import { ungrouped } from '@/core/locale/locale';
import { formatQuantity, NONE } from '@/core/quantity/quantity';
import { unitOf } from '@/core/quantity/units';
import { itemForm, partForm, type ItemText } from '@/core/records/item';
import type { ItemView } from '@/queries/items';
import { ChoiceField, TextField } from '@/ui/kit/Field';
import { PickField } from '@/ui/kit/PickField';
import { UnitField } from '@/ui/kit/UnitField';
import { RecordForm } from '@/ui/kit/RecordForm';
import { useActForm } from '@/ui/useActForm';
import { later } from '@/ui/later';
import { useYard } from '@/ui/YardContext';
import { saveItem } from '../../acts';

const InPassing = later(() => import('../InPassing'));

type Props = { readonly view: ItemView | undefined };

/** What stands in the form of an item, and of how its usual supplier sells it. */
function startOf(view: ItemView | undefined, currency: string): ItemText {
  const item = view?.item;
  const part = view?.parts.find((p) => p.supplierId === item?.supplierId) ?? view?.parts[0];
  const terms = part?.terms;
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
    weight: item?.weight == null ? '' : ungrouped(formatQuantity(item.weight)),
    gtin: item?.gtin ?? '',
    costCodeId: view?.costCode ?? null,
    supplierId: view?.supplier ?? null,
    part: z.encode(partForm(currency), {
      theirNumber: part?.theirNumber ?? '',
      unit: terms?.unit ?? item?.unit ?? 'C62',
      factorMany: terms?.factor.many ?? 1,
      factorOne: terms?.factor.one ?? 1,
      minimum: terms?.minimum ?? NONE,
      pack: terms?.pack ?? NONE,
      per: terms?.prices[0]?.priceQuantity ?? 1,
      breaks: (terms?.prices ?? []).map((b) => ({ fromQuantity: b.from, price: b.price })),
    }),
  };
}

/** An item, and how its usual supplier sells it. */
export function ItemForm({ view }: Props) {
  const router = useRouter();
  const { currency } = useYard();
  const item = view?.item;
  const [making, setMaking] = useState<string>();
  const form = useActForm({
    read: (typed: ItemText) => itemForm(currency, typed.supplierId !== null),
    start: startOf(view, currency),
    keep: `part ${item?.id ?? 'new'}`,
    act: saveItem,
    input: (read, once) => ({ once, id: item?.id ?? null, ...read }),
    said: (_, typed) => `${typed.number} is saved`,
    onDone: ({ id }) => router.push(`/items/${id}`),
    stay: true,
  });
  const breaks = useFieldArray({ control: form.control, name: 'part.breaks' });
  const { typed } = form;
  const sold = typed.supplierId !== null;
  const goods = isGoods(typed.kind);
  return (
    <RecordForm
      title={item?.name ?? 'Add an item'}
      what="item"
      name={typed.number && <span className="mono">{typed.number}</span>}
      form={form}
      onVersion={(version) => form.put('version', version)}
    >
      <div className="grid max-w-[860px] gap-3 sm:grid-cols-6">
        <TextField label="Item number" inputClass="mono" className="sm:col-span-2" required {...form.text('number')} />
        <TextField label="Name" className="sm:col-span-4" required {...form.text('name')} />
        <UnitField label="Unit it is used in" className="sm:col-span-2" {...form.unit('unit')} />
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
        <ChoiceField label="Kind" className="sm:col-span-2" {...form.text('kind')}>
          {ITEM_KINDS.map((kind) => (
            <option key={kind} value={kind}>
              {ITEM_KIND_NAMES[kind]}
            </option>
          ))}
        </ChoiceField>
        {goods && (
          <ChoiceField label="Followed by" className="sm:col-span-2" {...form.text('tracking')}>
            {TRACKING.map((way) => (
              <option key={way} value={way}>
                {TRACKING_NAMES[way]}
              </option>
            ))}
          </ChoiceField>
        )}
        {goods && (
          <TextField
            label={`Weight, kg of one ${unitOf(typed.unit).name}`}
            inputMode="decimal"
            placeholder="not known"
            className="sm:col-span-2"
            {...form.text('weight')}
          />
        )}
        <div className="flex flex-wrap gap-x-6 gap-y-2 sm:col-span-6">
          <label>
            <input type="checkbox" {...form.tick('bought')} /> May be bought
          </label>
          {goods && (
            <label>
              <input type="checkbox" {...form.tick('stocked')} /> Stocked: what packs add goes to stores
            </label>
          )}
          {goods && (
            <label>
              <input type="checkbox" {...form.tick('certificate')} /> A certificate has to come with it
            </label>
          )}
        </div>
        {!goods && (
          <p className="text-[13px] text-ink-2 sm:col-span-6">
            It is settled by its bill, and not taken in at the dock.
          </p>
        )}
        <PickField
          kind="supplier"
          label="Usual supplier"
          className="sm:col-span-3"
          placeholder="none yet"
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
        {sold && (
          <TextField
            label="Their number"
            inputClass="mono"
            className="sm:col-span-3"
            {...form.text('part.theirNumber')}
          />
        )}
      </div>
      {sold && (
        <>
          <h2 className="mt-5 mb-2 text-[16px]">How they sell it</h2>
          <div className="grid max-w-[860px] gap-3 sm:grid-cols-6">
            <UnitField label="Unit they sell" className="sm:col-span-2" {...form.unit('part.unit')} />
            {typed.part.unit !== typed.unit && (
              <TextField
                label={`${unitOf(typed.unit).name}s …`}
                inputMode="numeric"
                className="sm:col-span-1"
                {...form.text('part.factorMany')}
              />
            )}
            {typed.part.unit !== typed.unit && (
              <TextField
                label={`… in ${unitOf(typed.part.unit).name}s`}
                inputMode="numeric"
                className="sm:col-span-1"
                {...form.text('part.factorOne')}
              />
            )}
            <TextField label="At least" inputMode="decimal" placeholder="any" {...form.text('part.minimum')} />
            <TextField label="Packs of" inputMode="decimal" placeholder="any" {...form.text('part.pack')} />
            <TextField label="Price is per" inputMode="numeric" {...form.text('part.per')} />
          </div>
          <h3 className="mt-4 mb-1 font-text text-[13px] font-semibold text-ink-2">
            Price by quantity of the whole line
          </h3>
          {breaks.fields.map((b, k) => (
            <div key={b.id} className="mb-1.5 flex items-start gap-3">
              <TextField
                label={`From quantity, price ${k + 1}`}
                hideLabel
                inputMode="decimal"
                placeholder="from any"
                className="w-[120px]"
                {...form.text(`part.breaks.${k}.fromQuantity`)}
              />
              <TextField
                label={`Price ${k + 1}`}
                hideLabel
                inputMode="decimal"
                placeholder="price"
                className="w-[120px]"
                {...form.text(`part.breaks.${k}.price`)}
              />
              <button
                type="button"
                className="pt-1.5 text-[13px] text-ink-2 hover:text-brick"
                onClick={() => breaks.remove(k)}
              >
                remove
              </button>
            </div>
          ))}
          {form.faultAt('part.breaks') !== undefined && (
            <p role="alert" className="field-fault mb-1">
              {form.faultAt('part.breaks')}
            </p>
          )}
          <button
            type="button"
            className="step"
            onClick={() => breaks.append({ fromQuantity: breaks.fields.length === 0 ? '0' : '', price: '' })}
          >
            + Price
          </button>
        </>
      )}
    </RecordForm>
  );
}
