'use client';

import { ungrouped } from '@/core/locale/locale';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { formatPrice, parsePrice } from '@/core/money/money';
import { formatQuantity, parseQuantity, quantity, type Quantity } from '@/core/quantity/quantity';
import { unitOf } from '@/core/quantity/units';
import type { ItemView } from '@/queries/items';
import type { Result } from '@/core/result';
import { TextField } from '@/ui/kit/Field';
import { PickField } from '@/ui/kit/PickField';
import { UnitField } from '@/ui/kit/UnitField';
import { RecordForm } from '@/ui/kit/RecordForm';
import { useAct, useOnce } from '@/ui/useAct';
import { useDraft } from '@/ui/useDraft';
import { useYard } from '@/ui/YardContext';
import { saveItem } from '../../acts';
import { InPassing } from '../InPassing';

type Props = { readonly view: ItemView | undefined };
type BreakText = { readonly from: string; readonly price: string };

const plain = (q: Quantity) => (q === 0 ? '' : ungrouped(formatQuantity(q)));

function fresh(view: ItemView | undefined, currency: string) {
  const item = view?.item;
  const part = view?.parts.find((p) => p.supplierId === item?.supplierId) ?? view?.parts[0];
  return {
    number: item?.number ?? '',
    name: item?.name ?? '',
    unit: item?.unit ?? 'C62',
    stocked: item?.stocked === 1,
    service: item?.kind === 'service',
    gtin: item?.gtin ?? '',
    costCode: view?.costCode ?? null,
    supplier: view?.supplier ?? null,
    theirNumber: part?.theirNumber ?? '',
    partUnit: part?.terms.unit ?? item?.unit ?? 'C62',
    many: String(part?.terms.factor.many ?? 1),
    one: String(part?.terms.factor.one ?? 1),
    minimum: plain(part?.terms.minimum ?? quantity(0)),
    pack: plain(part?.terms.pack ?? quantity(0)),
    per: String(part?.terms.prices[0]?.priceQuantity ?? 1),
    breaks: (part?.terms.prices ?? []).map((b): BreakText => ({
      from: plain(b.from),
      price: ungrouped(formatPrice(b.price, currency)),
    })),
  };
}

/** An item, and how its usual supplier sells it. */
export function ItemForm({ view }: Props) {
  const router = useRouter();
  const { currency } = useYard();
  const item = view?.item;
  const draft = useDraft(`part ${item?.id ?? 'new'}`, { version: item?.version ?? 0, text: fresh(view, currency) });
  const { text } = draft.value;
  const [local, setLocal] = useState<Readonly<Record<string, string>>>({});
  const [making, setMaking] = useState<string>();
  const once = useOnce();
  const act = useAct(saveItem, {
    said: () => `${text.number} is saved`,
    stay: true,
    onDone: ({ id }) => {
      once.renew();
      draft.drop();
      router.push(`/items/${id}`);
    },
  });
  const submit = (over?: number) => {
    const faults: Record<string, string> = {};
    const take = <T,>(field: string, read: Result<T>, instead: T): T => {
      if (!read.ok) faults[field] = read.refusals[0]?.message ?? '';
      return read.ok ? read.value : instead;
    };
    const none = (field: 'minimum' | 'pack') =>
      ['', '0'].includes(text[field].trim()) ? quantity(0) : take(field, parseQuantity(text[field]), quantity(0));
    const whole = (field: 'many' | 'one' | 'per') => {
      const n = Number(text[field]);
      if (!Number.isInteger(n) || n < 1) faults[field] = 'A whole number from 1.';
      return n;
    };
    const per = whole('per');
    const breaks = text.breaks.map((b, k) => ({
      fromQuantity: ['', '0'].includes(b.from.trim())
        ? quantity(0)
        : take(`from ${k}`, parseQuantity(b.from), quantity(0)),
      price: take(`price ${k}`, parsePrice(b.price), 0 as never),
      priceQuantity: per,
    }));
    if (new Set(breaks.map((b) => b.fromQuantity)).size < breaks.length)
      faults['from 0'] = 'Two prices start at the same quantity.';
    const part =
      text.supplier === null
        ? null
        : {
            supplierId: text.supplier.id,
            theirNumber: text.theirNumber,
            unit: text.partUnit,
            factorMany: whole('many'),
            factorOne: whole('one'),
            minimum: none('minimum'),
            pack: none('pack'),
            breaks,
          };
    setLocal(faults);
    if (Object.keys(faults).length === 0)
      void act.run({
        once: once.key(),
        id: item?.id ?? null,
        version: over ?? draft.value.version,
        number: text.number,
        name: text.name,
        unit: text.unit,
        stocked: text.stocked,
        kind: text.service ? ('service' as const) : ('goods' as const),
        gtin: text.gtin,
        costCodeId: text.costCode?.id ?? null,
        supplierId: text.supplier?.id ?? null,
        part,
      });
  };
  const set = (change: Partial<typeof text>) => draft.set((now) => ({ ...now, text: { ...now.text, ...change } }));
  const bind = (name: Exclude<keyof typeof text, 'stocked' | 'service' | 'breaks' | 'costCode' | 'supplier'>) => ({
    name,
    value: text[name],
    onChange: (e: { target: { value: string } }) => set({ [name]: e.target.value }),
    fault: local[name] ?? act.faultAt(name),
  });
  const setBreak = (k: number, change: Partial<BreakText>) =>
    set({ breaks: text.breaks.map((b, j) => (j === k ? { ...b, ...change } : b)) });
  return (
    <RecordForm
      title={item?.name ?? 'Add an item'}
      what="item"
      name={text.number && <span className="mono">{text.number}</span>}
      draft={draft}
      act={act}
      onSave={submit}
    >
      <div className="grid max-w-[860px] gap-3 sm:grid-cols-6">
        <TextField label="Item number" inputClass="mono" className="sm:col-span-2" required {...bind('number')} />
        <TextField label="Name" className="sm:col-span-4" required {...bind('name')} />
        <UnitField
          label="Unit it is used in"
          className="sm:col-span-2"
          value={text.unit}
          onUnit={(unit) => set({ unit })}
        />
        <PickField
          kind="costCode"
          label="Cost code"
          className="sm:col-span-2"
          placeholder="none"
          value={text.costCode}
          onPick={(costCode) => set({ costCode })}
        />
        <TextField label="GTIN" inputClass="mono" inputMode="numeric" className="sm:col-span-2" {...bind('gtin')} />
        <label className="sm:col-span-6">
          <input type="checkbox" checked={text.stocked} onChange={(e) => set({ stocked: e.target.checked })} /> Stocked:
          what packs add goes to stores
        </label>
        <label className="sm:col-span-6">
          <input type="checkbox" checked={text.service} onChange={(e) => set({ service: e.target.checked })} /> Outside
          work: it is billed, and not taken in at the dock
        </label>
        <PickField
          kind="supplier"
          label="Usual supplier"
          className="sm:col-span-3"
          placeholder="none yet"
          value={text.supplier}
          onPick={(supplier) => set({ supplier })}
          make={{ words: 'New supplier', onMake: setMaking }}
        />
        {making !== undefined && (
          <InPassing
            making={{ kind: 'supplier', typed: making }}
            onClose={() => setMaking(undefined)}
            onSupplier={(supplier) => set({ supplier })}
          />
        )}
        {text.supplier !== null && (
          <TextField label="Their number" inputClass="mono" className="sm:col-span-3" {...bind('theirNumber')} />
        )}
      </div>
      {text.supplier !== null && (
        <>
          <h2 className="mt-5 mb-2 text-[16px]">How they sell it</h2>
          <div className="grid max-w-[860px] gap-3 sm:grid-cols-6">
            <UnitField
              label="Unit they sell"
              className="sm:col-span-2"
              value={text.partUnit}
              onUnit={(partUnit) => set({ partUnit })}
            />
            {text.partUnit !== text.unit && (
              <TextField
                label={`${unitOf(text.unit).name}s …`}
                inputMode="numeric"
                className="sm:col-span-1"
                {...bind('many')}
              />
            )}
            {text.partUnit !== text.unit && (
              <TextField
                label={`… in ${unitOf(text.partUnit).name}s`}
                inputMode="numeric"
                className="sm:col-span-1"
                {...bind('one')}
              />
            )}
            <TextField label="At least" inputMode="decimal" placeholder="any" {...bind('minimum')} />
            <TextField label="Packs of" inputMode="decimal" placeholder="any" {...bind('pack')} />
            <TextField label="Price is per" inputMode="numeric" {...bind('per')} />
          </div>
          <h3 className="mt-4 mb-1 font-text text-[13px] font-semibold text-ink-2">
            Price by quantity of the whole line
          </h3>
          {text.breaks.map((b, k) => (
            <div key={k} className="mb-1.5 flex items-start gap-3">
              <TextField
                label={`From quantity, price ${k + 1}`}
                hideLabel
                inputMode="decimal"
                placeholder="from any"
                className="w-[120px]"
                value={b.from}
                onChange={(e) => setBreak(k, { from: e.target.value })}
                fault={local[`from ${k}`]}
              />
              <TextField
                label={`Price ${k + 1}`}
                hideLabel
                inputMode="decimal"
                placeholder="price"
                className="w-[120px]"
                value={b.price}
                onChange={(e) => setBreak(k, { price: e.target.value })}
                fault={local[`price ${k}`]}
              />
              <button
                type="button"
                className="pt-1.5 text-[13px] text-ink-2 hover:text-brick"
                onClick={() => set({ breaks: text.breaks.filter((_, j) => j !== k) })}
              >
                remove
              </button>
            </div>
          ))}
          <button
            type="button"
            className="step"
            onClick={() => set({ breaks: [...text.breaks, { from: text.breaks.length === 0 ? '0' : '', price: '' }] })}
          >
            + Price
          </button>
        </>
      )}
    </RecordForm>
  );
}
