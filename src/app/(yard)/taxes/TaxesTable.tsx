'use client';

import { z } from 'zod';
import { formatDecimal } from '@/core/money/decimal';
import { TAX_CATEGORIES } from '@/core/money/tax';
import { TAX_CATEGORY_NAMES, taxForm } from '@/core/records/settings';
import type { TaxRow } from '@/queries/company/settings';
import { ChoiceField, TextField } from '@/ui/kit/Field';
import { NumberField } from '@/ui/kit/NumberField';
import { useActForm } from '@/ui/acting/useActForm';
import { acts } from '../../actions';
import { SettingSlip } from '../_shared/company/SettingSlip';
import { SettingsTable } from '../_shared/company/SettingsTable';

const percent = (n: number) => formatDecimal(n, 2, 0);

/** The taxes that purchases carry; one opens to be changed, or to be offered no more. */
export const TaxesTable = ({ taxes }: { readonly taxes: readonly TaxRow[] }) => (
  <SettingsTable
    label="Taxes"
    className="max-w-[860px]"
    rows={taxes}
    name="Tax"
    columns={[
      {
        key: 'category',
        head: 'Category',
        wide: true,
        cell: (t) => `${t.category}, ${TAX_CATEGORY_NAMES[t.category]}`,
      },
      { key: 'rate', head: 'Rate %', num: true, by: (t) => t.rate, cell: (t) => percent(t.rate) },
      { key: 'back', head: 'Recoverable %', num: true, by: (t) => t.recoverable, cell: (t) => percent(t.recoverable) },
      { key: 'suppliers', head: 'Suppliers', num: true, by: (t) => t.suppliers, cell: (t) => t.suppliers || '–' },
    ]}
    makes={{ words: 'New tax', fact: 'Rates in use can’t change: add a new tax for a new rate' }}
    slip={(tax, onClose) => <TaxSlip tax={tax} onClose={onClose} />}
  />
);

function TaxSlip({ tax, onClose }: { readonly tax: TaxRow | undefined; readonly onClose: () => void }) {
  const form = useActForm({
    read: () => taxForm,
    start:
      tax === undefined
        ? { name: '', category: 'S' as const, rate: '', recoverable: '100' }
        : z.encode(taxForm, { name: tax.name, category: tax.category, rate: tax.rate, recoverable: tax.recoverable }),
    act: (input: Parameters<typeof acts.addTax>[0]) =>
      tax === undefined ? acts.addTax(input) : acts.changeTax({ ...input, id: tax.id, version: tax.version }),
    input: (read, once) => ({ once, ...read }),
    said: (_, typed) => `${typed.name} saved`,
    onDone: onClose,
  });
  const fixed = tax?.carried === 1;
  return (
    <SettingSlip title={tax?.name ?? 'New tax'} form={form} row={tax} retire={acts.retireTax} onClose={onClose}>
      <TextField label="Name" {...form.text('name')} />
      <ChoiceField label="Category" disabled={fixed} {...form.text('category')}>
        {TAX_CATEGORIES.map((c) => (
          <option key={c} value={c}>
            {c}, {TAX_CATEGORY_NAMES[c]}
          </option>
        ))}
      </ChoiceField>
      <NumberField label="Rate, %" disabled={fixed} {...form.text('rate')} />
      <NumberField
        label="Recoverable, %"
        disabled={fixed}
        hint={fixed ? 'In use on orders or invoices: only the name can change.' : 'The rest is job cost.'}
        {...form.text('recoverable')}
      />
    </SettingSlip>
  );
}
