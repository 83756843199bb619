'use client';

import { X } from 'lucide-react';
import { useRouter } from 'next/navigation';
import { useFieldArray } from 'react-hook-form';
import { z } from 'zod';
import { signOf } from '@/core/money/money';
import { NONE } from '@/core/quantity/quantity';
import { exactFactor, unitOf } from '@/core/quantity/units';
import { asDated, MOST_PRICES, partForm, type PartText } from '@/core/records/part';
import { ALWAYS, dearerWords } from '@/core/sourcing/prices';
import { buyableWords } from '@/core/sourcing/terms';
import type { SoldView } from '@/queries/items/items';
import { DateField } from '@/ui/kit/DateField';
import { TextField } from '@/ui/kit/Field';
import { RecordForm } from '@/ui/kit/RecordForm';
import { UnitField } from '@/ui/kit/UnitField';
import { useActForm } from '@/ui/acting/useActForm';
import { acts } from '../../../../../actions';

type Props = { readonly view: SoldView };

const NO_PRICE = { fromQuantity: '', price: '', fromDay: '', untilDay: '' };

/** What stands in the form; numbers are written by the definition that reads them. */
function startOf({ item, supplier, part, usual, prices }: SoldView): PartText {
  const { shape } = partForm(supplier.currency).in;
  const write = <S extends z.ZodType>(field: S, value: z.output<S>) => z.encode(field, value) as string;
  return {
    version: part?.version ?? 0,
    theirNumber: part?.theirNumber ?? '',
    unit: part?.unit ?? item.unit,
    factorMany: write(shape.factorMany, part?.factorMany ?? 1),
    factorOne: write(shape.factorOne, part?.factorOne ?? 1),
    minimum: write(shape.minimum, part?.minimum ?? NONE),
    pack: write(shape.pack, part?.pack ?? NONE),
    leadDays: write(shape.leadDays, part?.leadDays ?? null),
    usual: usual || (part === undefined && item.supplierId === null),
    per: write(shape.per, prices.at(-1)?.priceQuantity ?? 1),
    breaks:
      prices.length === 0
        ? [NO_PRICE]
        : prices.map((b) => ({
            fromQuantity: write(shape.breaks.element.shape.fromQuantity, b.from),
            price: write(shape.breaks.element.shape.price, b.price),
            fromDay: b.fromDay === ALWAYS ? '' : b.fromDay,
            untilDay: b.untilDay ?? '',
          })),
  };
}

/** How a supplier sells an item: their number, their unit, what they sell at least, and for how much from when. */
export function PartForm({ view }: Props) {
  const router = useRouter();
  const { item, supplier } = view;
  const { currency } = supplier;
  const form = useActForm({
    read: () => partForm(currency),
    start: startOf(view),
    keep: `sold ${item.id} ${supplier.id}`,
    act: acts.savePart,
    input: (read, once) => ({ once, itemId: item.id, supplierId: supplier.id, ...read }),
    said: () => `${supplier.name}’s terms for ${item.number} saved`,
    onDone: ({ id }) => router.push(`/items/${id}`),
    stay: true,
  });
  const breaks = useFieldArray({ control: form.control, name: 'breaks' });
  const { typed } = form;
  const { in: fields } = partForm(currency);
  const amounts = fields.pick({ unit: true, minimum: true, pack: true }).safeParse(typed);
  const prices = fields.shape.breaks.safeParse(typed.breaks);
  const unit = unitOf(typed.unit);
  const chooseUnit = (code: string) => {
    form.put('unit', code);
    const exact = exactFactor(item.unit, code);
    if (exact === undefined) return;
    form.put('factorMany', String(exact.many));
    form.put('factorOne', String(exact.one));
  };
  const hints = [
    amounts.success ? buyableWords(amounts.data) : undefined,
    prices.success ? dearerWords(prices.data.map(asDated)) : undefined,
  ].filter((words) => words !== undefined);
  return (
    <RecordForm
      title={`${supplier.name}’s terms for ${item.name}`}
      what="supplier terms"
      name={<span className="mono">{item.number}</span>}
      form={form}
      onVersion={(version) => form.put('version', version)}
    >
      <div className="grid max-w-[860px] items-start gap-3 sm:grid-cols-6">
        <TextField
          label="Supplier’s item no."
          inputClass="mono"
          className="sm:col-span-2"
          {...form.text('theirNumber')}
        />
        <UnitField label="Selling unit" className="sm:col-span-2" {...form.unit('unit')} onUnit={chooseUnit} />
        {typed.unit !== item.unit && (
          <TextField label={`Contains (${unitOf(item.unit).name})`} inputMode="numeric" {...form.text('factorMany')} />
        )}
        {typed.unit !== item.unit && (
          <TextField label={`per (${unit.name})`} inputMode="numeric" {...form.text('factorOne')} />
        )}
        <TextField label="Minimum" inputMode="decimal" placeholder="any" {...form.text('minimum')} />
        <TextField label="Pack size" inputMode="decimal" placeholder="any" {...form.text('pack')} />
        <TextField
          label="Lead time (working days)"
          inputMode="numeric"
          placeholder="supplier’s usual"
          className="sm:col-span-2"
          {...form.text('leadDays')}
        />
        <label className="self-end phone:pb-1.5 sm:col-span-2">
          <input type="checkbox" {...form.tick('usual')} /> Default supplier
        </label>
      </div>
      <h2 className="mt-5 mb-1 text-[16px]">Prices by line quantity and date</h2>
      <TextField
        label={`Prices in ${signOf(currency)} are per how many ${unit.name}s`}
        inputMode="numeric"
        className="mb-2 w-[240px]"
        {...form.text('per')}
      />
      <ul aria-label="Prices" className="max-w-[860px]">
        {breaks.fields.map((b, k) => (
          <li
            key={b.id}
            className="grid grid-cols-[1fr_24px] items-start gap-x-3 border-b border-line-2 py-1.5 first:border-t"
          >
            <div className="grid grid-cols-2 gap-x-3 gap-y-1 sm:grid-cols-4">
              <TextField
                label={`From quantity, price ${k + 1}`}
                inputMode="decimal"
                placeholder="any"
                {...form.text(`breaks.${k}.fromQuantity`)}
              />
              <TextField label={`Price ${k + 1}`} inputMode="decimal" {...form.text(`breaks.${k}.price`)} />
              <DateField label="From" {...form.day(`breaks.${k}.fromDay`)} />
              <DateField label="To" {...form.day(`breaks.${k}.untilDay`)} />
            </div>
            <button
              type="button"
              aria-label={`Remove price ${k + 1}`}
              className="mt-[26px] size-[24px] rounded p-0.5 text-ink-2 hover:text-brick"
              onClick={() => breaks.remove(k)}
            >
              <X size={16} />
            </button>
          </li>
        ))}
      </ul>
      {breaks.fields.length < MOST_PRICES && (
        <button type="button" className="step mt-1" onClick={() => breaks.append(NO_PRICE)}>
          + Price
        </button>
      )}
      {hints.map((words) => (
        <p key={words} className="mt-2 text-[13px] text-ink-2">
          {words}
        </p>
      ))}
    </RecordForm>
  );
}
