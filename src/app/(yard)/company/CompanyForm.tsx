'use client';

import { z } from 'zod';
import { LANGUAGE_NAMES, LANGUAGES, usualFor, type Language } from '@/core/locale/locale';
import { signOf } from '@/core/money/money';
import { companyForm, type CompanyText } from '@/core/records/company';
import type { CompanyView } from '@/queries/company/company';
import { useKey } from '@/ui/frame/keys';
import { AreaField, ChoiceField, TextField } from '@/ui/kit/Field';
import { NumberField } from '@/ui/kit/NumberField';
import { Fact, Shelf, ShelfMain } from '@/ui/kit/Shelf';
import { WeekField } from '@/ui/kit/WeekField';
import { useActForm } from '@/ui/acting/useActForm';
import { acts } from '../../actions';

const startOf = (company: CompanyView['company']): CompanyText => ({
  ...z.encode(companyForm(company.currency).omit({ week: true }), company),
  week: company.week.split(',').map(Number),
});

/** How the company works: its week, what receiving takes, and what is passed without a question. */
export function CompanyForm({ view: { company, countries } }: { view: CompanyView }) {
  const { currency } = company;
  const form = useActForm({
    read: () => companyForm(currency),
    start: startOf(company),
    act: acts.saveCompany,
    input: (read, once) => ({ once, version: company.version, ...read }),
    said: () => 'Company settings saved',
  });
  const { clash, busy, refusals } = form;
  /** A language brings its mark, first day and paper along; each can be changed after. */
  const speak = (language: Language) => {
    const usual = usualFor(language);
    form.put('language', language);
    form.put('decimalMark', usual.decimalMark);
    form.put('firstDay', String(usual.firstDay));
    form.put('paper', usual.paper);
  };
  useKey('Ctrl+Enter', 'Save settings', form.save, !busy);
  const sign = signOf(currency);
  return (
    <>
      <fieldset className="mb-4 grid max-w-[860px] items-start gap-3 sm:grid-cols-2">
        <legend className="field-label">Printed on every order</legend>
        <TextField label="Company" {...form.text('name')} />
        <TextField label="Order email (sender)" type="email" {...form.text('email')} />
        <AreaField label="Address" rows={3} {...form.text('address')} />
        <TextField
          label="VAT / tax number"
          hint={`Amounts are in ${currency}, as was chosen when the company was set up.`}
          {...form.text('taxNumber')}
        />
      </fieldset>
      <WeekField
        legend="Working days"
        week={form.typed.week}
        onWeek={(week) => form.put('week', week)}
        fault={form.faultAt('week')}
      />
      <fieldset className="mt-4">
        <legend className="field-label">Date and number formats (screen, papers, files)</legend>
        <div className="grid max-w-[860px] items-start gap-3 sm:grid-cols-4">
          <ChoiceField label="Language" {...form.text('language')} onChange={(e) => speak(e.target.value as Language)}>
            {LANGUAGES.map((l) => (
              <option key={l} value={l}>
                {LANGUAGE_NAMES[l]}
              </option>
            ))}
          </ChoiceField>
          <ChoiceField label="Decimal mark" {...form.text('decimalMark')}>
            <option value=".">a point, 1234.50</option>
            <option value=",">a comma, 1234,50</option>
          </ChoiceField>
          <ChoiceField label="Week starts on" {...form.text('firstDay')}>
            <option value="1">Monday</option>
            <option value="7">Sunday</option>
          </ChoiceField>
          <ChoiceField label="Paper" {...form.text('paper')}>
            <option value="A4">A4</option>
            <option value="LETTER">Letter</option>
          </ChoiceField>
        </div>
      </fieldset>
      <div className="mt-4 grid max-w-[860px] items-start gap-3 sm:grid-cols-2">
        <ChoiceField label="Country, for public holidays" {...form.text('country')}>
          {countries.map((c) => (
            <option key={c.code} value={c.code}>
              {c.name}
            </option>
          ))}
        </ChoiceField>
        <TextField
          label="Receiving time (working days)"
          inputMode="numeric"
          hint="Orders require delivery this many working days before the job needs it."
          {...form.text('receivingDays')}
        />
        <NumberField
          label="Price tolerance, % of line"
          hint="Invoices within this and the amount beside it match without approval."
          {...form.text('priceToleranceShare')}
        />
        <NumberField label={`and at most, ${sign} a line`} {...form.text('priceToleranceMost')} />
        <NumberField
          label={`Limit for approving your own invoices’ differences, ${sign}`}
          hint="Above this someone else must approve."
          {...form.text('ownPassLimit')}
        />
        <NumberField
          label="Over-delivery allowed, % of line"
          hint="Above this the storekeeper must confirm; suppliers can have their own."
          {...form.text('overDelivery')}
        />
        <NumberField
          label={`Count difference limit, ${sign}`}
          hint="Larger differences need a manager."
          {...form.text('countLimit')}
        />
        <TextField
          label="Order number pattern"
          inputClass="mono"
          hint="{yy} or {yyyy} is the year, {job} the job, {0000} the count."
          {...form.text('orderPattern')}
        />
        <TextField
          label="Job number pattern"
          inputClass="mono"
          hint="Suggested number for a new job; {0} continues from the last match."
          {...form.text('jobPattern')}
        />
        <ChoiceField label="When an order is numbered by hand, its number in the series is" {...form.text('orderGaps')}>
          <option value="leave">skipped</option>
          <option value="fill">used next</option>
        </ChoiceField>
        <AreaField
          label="Terms at the foot of every order"
          rows={3}
          className="sm:col-span-2"
          {...form.text('orderTerms')}
        />
      </div>
      <Shelf
        fault={clash ? `${clash.message} This is the latest version: check it, then try again.` : refusals[0]?.message}
        facts={<Fact strong>{company.name}</Fact>}
      >
        <ShelfMain disabled={busy} onClick={form.save} hint="Ctrl ↵">
          {busy ? 'Saving…' : 'Save settings'}
        </ShelfMain>
      </Shelf>
    </>
  );
}
