'use client';

import { X } from 'lucide-react';
import { rateFields } from '@/core/records/company';
import type { RatesView } from '@/queries/company';
import { useKey } from '@/ui/keys';
import { DateField } from '@/ui/kit/DateField';
import { TextField } from '@/ui/kit/Field';
import { Fact, Shelf, ShelfMain } from '@/ui/kit/Shelf';
import { Empty, PlaceTitle } from '@/ui/kit/Sheet';
import { useAct } from '@/ui/useAct';
import { useActForm } from '@/ui/useActForm';
import { useYard } from '@/ui/YardContext';
import { removeRate, saveRate } from '../../acts';

/** What one unit of other currencies costs, from a day on. Orders and bills take the rate of their day. */
export function Rates({ view: { companyCurrency, rates, missing, mayKeep } }: { view: RatesView }) {
  const { day, today } = useYard();
  const form = useActForm({
    read: () => rateFields,
    start: { currency: missing[0]?.currency ?? rates[0]?.currency ?? '', day: today as string, rate: '' },
    act: saveRate,
    input: (read, once) => ({ once, ...read }),
    said: (_, typed) => `The rate of ${typed.currency.toUpperCase()} is kept`,
    onDone: (_, restart) => restart(),
  });
  const remove = useAct(removeRate);
  useKey('Ctrl+Enter', 'Keep the rate', form.save, mayKeep && !form.busy);
  const newest = new Set(
    rates.filter((r, k) => r.day <= today && rates.findIndex((o) => o.currency === r.currency && o.day <= today) === k),
  );
  const fault = [...form.refusals, ...remove.refusals][0]?.message;
  return (
    <>
      <PlaceTitle title="Exchange rates" count={`${companyCurrency} for one of another`} />
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
        <Empty title="No rate yet">
          A supplier who sells in another currency needs one before anything is ordered.
        </Empty>
      ) : (
        <table className="ledger max-w-[640px]" aria-label="Exchange rates">
          <thead>
            <tr>
              <th>Currency</th>
              <th>From</th>
              <th className="num">{companyCurrency} for one</th>
              <th>
                <span className="sr-only">Take out</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {rates.map((r) => (
              <tr key={`${r.currency} ${r.day}`}>
                <td className="mono !font-bold">{r.currency}</td>
                <td className="whitespace-nowrap">
                  {day(r.day)}
                  {newest.has(r) && <span className="tag tag-good ml-2">holds today</span>}
                </td>
                <td className="num">{r.rate}</td>
                <td className="w-[34px]">
                  {mayKeep && (
                    <button
                      type="button"
                      aria-label={`Take out the rate of ${r.currency} from ${day(r.day)}`}
                      disabled={remove.busy}
                      onClick={() => void remove.run({ currency: r.currency, day: r.day })}
                      className="rounded p-0.5 text-ink-2 hover:text-brick"
                    >
                      <X size={14} />
                    </button>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <Shelf
        fault={fault}
        facts={<Fact>An order keeps the rate of the day it was drafted, a bill that of its own day</Fact>}
      >
        {mayKeep && (
          <ShelfMain disabled={form.busy} onClick={form.save} hint="^↵">
            Keep rate
          </ShelfMain>
        )}
      </Shelf>
    </>
  );
}
