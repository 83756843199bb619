'use client';

import { z } from 'zod';
import { LANGUAGE_NAMES, LANGUAGES, usualFor, type Language } from '@/core/locale/locale';
import { signOf } from '@/core/money/money';
import { companyForm, type CompanyText } from '@/core/records/company';
import type { CompanyView } from '@/queries/company';
import { useKey } from '@/ui/keys';
import { AreaField, ChoiceField, TextField } from '@/ui/kit/Field';
import { NumberField } from '@/ui/kit/NumberField';
import { Fact, Shelf, ShelfMain } from '@/ui/kit/Shelf';
import { WeekField } from '@/ui/kit/WeekField';
import { useActForm } from '@/ui/useActForm';
import { saveCompany } from '../../acts';

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
    act: saveCompany,
    input: (read, once) => ({ once, version: company.version, ...read }),
    said: () => 'The company’s settings are saved',
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
  useKey('Ctrl+Enter', 'Save the settings', form.save, !busy);
  const sign = signOf(currency);
  return (
    <>
      <fieldset className="mb-4 grid max-w-[860px] items-start gap-3 sm:grid-cols-2">
        <legend className="field-label">As it stands on every order</legend>
        <TextField label="Company" {...form.text('name')} />
        <TextField label="E-mail that orders come from" type="email" {...form.text('email')} />
        <AreaField label="Address" rows={3} {...form.text('address')} />
        <TextField
          label="Tax number"
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
        <legend className="field-label">How days and numbers are written, here, on paper and in files</legend>
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
          <ChoiceField label="A week begins on" {...form.text('firstDay')}>
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
          label="Working days that receiving takes"
          inputMode="numeric"
          hint="Goods are wanted this many working days before they are needed."
          {...form.text('receivingDays')}
        />
        <NumberField
          label="Price difference passed, % of the line"
          hint="A bill within this, and within the amount beside it, is matched without a question."
          {...form.text('priceToleranceShare')}
        />
        <NumberField label={`and at most, ${sign} a line`} {...form.text('priceToleranceMost')} />
        <NumberField
          label={`Differences one may pass on a bill of one’s own, ${sign}`}
          hint="Beyond it somebody else has to pass the bill."
          {...form.text('ownPassLimit')}
        />
        <NumberField
          label="Over-delivery taken, % of the line"
          hint="More than that stays only on the storekeeper’s word; a supplier may have its own."
          {...form.text('overDelivery')}
        />
        <NumberField
          label={`Difference of a count that is posted, ${sign}`}
          hint="A larger one takes a manager."
          {...form.text('countLimit')}
        />
        <TextField
          label="Orders are numbered"
          inputClass="mono"
          hint="{yy} or {yyyy} is the year, {job} the job, {0000} the count."
          {...form.text('orderPattern')}
        />
        <TextField
          label="Jobs are numbered"
          inputClass="mono"
          hint="What a new job is offered; {0} counts on from the last one that fits."
          {...form.text('jobPattern')}
        />
        <ChoiceField label="A count whose order is numbered by hand" {...form.text('orderGaps')}>
          <option value="leave">is left out</option>
          <option value="fill">is for the next order</option>
        </ChoiceField>
        <AreaField
          label="Terms at the foot of every order"
          rows={3}
          className="sm:col-span-2"
          {...form.text('orderTerms')}
        />
      </div>
      <Shelf
        fault={clash ? `${clash.message} It has been brought up to date: look again.` : refusals[0]?.message}
        facts={<Fact strong>{company.name}</Fact>}
      >
        <ShelfMain disabled={busy} onClick={form.save} hint="^↵">
          {busy ? 'Saving…' : 'Save settings'}
        </ShelfMain>
      </Shelf>
    </>
  );
}
