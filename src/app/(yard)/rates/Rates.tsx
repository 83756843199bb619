'use client';

import { X } from 'lucide-react';
import { rateFields } from '@/core/records/company';
import type { RatesView } from '@/queries/company/company';
import { useKey } from '@/ui/frame/keys';
import { DateField } from '@/ui/kit/DateField';
import { TextField } from '@/ui/kit/Field';
import { Fact, Shelf, ShelfMain } from '@/ui/kit/Shelf';
import { Empty } from '@/ui/kit/Sheet';
import type { Column } from '@/ui/ledger/column';
import { LedgerTable } from '@/ui/ledger/LedgerTable';
import { useAct } from '@/ui/acting/useAct';
import { useActForm } from '@/ui/acting/useActForm';
import { useYard } from '@/ui/frame/YardContext';
import { acts } from '../../actions';

/** What one unit of other currencies costs, from a day on. Orders and invoices take the rate of their day. */
export function Rates({ view: { companyCurrency, rates, missing, mayKeep } }: { view: RatesView }) {
  const { day, today } = useYard();
  const form = useActForm({
    read: () => rateFields,
    start: { currency: missing[0]?.currency ?? rates[0]?.currency ?? '', day: today as string, rate: '' },
    act: acts.saveRate,
    input: (read, once) => ({ once, ...read }),
    said: (_, typed) => `${typed.currency.toUpperCase()} rate saved`,
    onDone: (_, restart) => restart(),
  });
  const remove = useAct(acts.removeRate);
  useKey('Ctrl+Enter', 'Save rate', form.save, mayKeep && !form.busy);
  const newest = new Set(
    rates.filter((r, k) => r.day <= today && rates.findIndex((o) => o.currency === r.currency && o.day <= today) === k),
  );
  const fault = [...form.refusals, ...remove.refusals][0]?.message;
  const columns: Column<RatesView['rates'][number]>[] = [
    { key: 'currency', head: 'Currency', className: 'mono !font-bold', by: (r) => r.currency, cell: (r) => r.currency },
    {
      key: 'day',
      head: 'From',
      className: 'whitespace-nowrap',
      by: (r) => r.day,
      cell: (r) => (
        <>
          {day(r.day)}
          {newest.has(r) && <span className="tag tag-good ml-2">current</span>}
        </>
      ),
    },
    { key: 'rate', head: `${companyCurrency} for one`, num: true, cell: (r) => r.rate },
    {
      key: 'out',
      head: <span className="sr-only">Remove</span>,
      className: 'w-[34px]',
      cell: (r) =>
        mayKeep && (
          <button
            type="button"
            aria-label={`Remove ${r.currency} rate from ${day(r.day)}`}
            disabled={remove.busy}
            onClick={() => void remove.run({ currency: r.currency, day: r.day })}
            className="rounded p-0.5 text-ink-2 hover:text-brick"
          >
            <X size={14} />
          </button>
        ),
    },
  ];
  return (
    <>
      {missing.map((m) => (
        <p key={m.currency} className="mb-2 rounded-lg border border-amber bg-amber-wash px-3 py-1.5 text-amber">
          <b>{m.currency} has no rate.</b> Nothing can be ordered from {m.suppliers} until one is entered.
        </p>
      ))}
      {mayKeep && (
        <div className="mb-4 grid max-w-[640px] items-start gap-3 sm:grid-cols-3">
          <TextField label="Currency" maxLength={3} {...form.text('currency')} />
          <DateField label="From" towards="back" {...form.day('day')} />
          <TextField
            label={`${companyCurrency} for one ${form.typed.currency.toUpperCase() || 'unit'}`}
            inputMode="decimal"
            inputClass="text-right"
            placeholder="0.8624"
            {...form.text('rate')}
          />
        </div>
      )}
      {rates.length === 0 ? (
        <Empty title="No rate yet">Enter a rate before you order from a supplier who sells in another currency.</Empty>
      ) : (
        <LedgerTable
          label="Exchange rates"
          className="max-w-[640px]"
          rows={rates}
          columns={columns}
          keyOf={(r) => `${r.currency} ${r.day}`}
        />
      )}
      <Shelf
        fault={fault}
        facts={<Fact>Orders use the rate on the draft date, invoices the rate on the invoice date</Fact>}
      >
        {mayKeep && (
          <ShelfMain disabled={form.busy} onClick={form.save} hint="Ctrl ↵">
            Save rate
          </ShelfMain>
        )}
      </Shelf>
    </>
  );
}
