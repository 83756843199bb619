'use client';

import { useState } from 'react';
import { LANGUAGE_NAMES, LANGUAGES, ungrouped, usualFor, type Language } from '@/core/locale/locale';
import { parseDecimal } from '@/core/money/decimal';
import { formatAmount, parseMoney, signOf } from '@/core/money/money';
import type { CompanyView } from '@/queries/company';
import { useKey } from '@/ui/keys';
import { ChoiceField, TextField } from '@/ui/kit/Field';
import { NumberField } from '@/ui/kit/NumberField';
import { Fact, Shelf, ShelfMain } from '@/ui/kit/Shelf';
import { useAct, useOnce } from '@/ui/useAct';
import { saveCompany } from '../../acts';

const WEEK = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday'];

/** How the company works: its week, what receiving takes, and what is passed without a question. */
export function CompanyForm({ view: { company, countries } }: { view: CompanyView }) {
  const { currency } = company;
  const [text, setText] = useState({
    country: company.country,
    language: company.language,
    decimalMark: company.decimalMark,
    firstDay: String(company.firstDay),
    paper: company.paper,
    receivingDays: String(company.receivingDays),
    share: String(company.priceToleranceShare / 100),
    most: ungrouped(formatAmount(company.priceToleranceMost, currency)),
    own: ungrouped(formatAmount(company.ownPassLimit, currency)),
  });
  const [week, setWeek] = useState<ReadonlySet<number>>(new Set(company.week.split(',').map(Number)));
  const [local, setLocal] = useState<Readonly<Record<string, string>>>({});
  const once = useOnce();
  const { run, busy, refusals, clash, faultAt } = useAct(saveCompany, {
    said: () => 'The company’s settings are saved',
    onDone: once.renew,
  });
  const bind = (name: keyof typeof text, field: string) => ({
    value: text[name],
    onChange: (e: { target: { value: string } }) => setText((now) => ({ ...now, [name]: e.target.value })),
    fault: local[field] ?? faultAt(field),
  });
  /** A language brings its mark, first day and paper along; each can be changed after. */
  const speak = (language: Language) => {
    const { decimalMark, firstDay, paper } = usualFor(language);
    setText((now) => ({ ...now, language, decimalMark, firstDay: String(firstDay), paper }));
  };
  const submit = () => {
    const share = parseDecimal(text.share, { places: 2, most: 100 });
    const [most, own] = [parseMoney(text.most, currency), parseMoney(text.own, currency)];
    const faults: Record<string, string> = {};
    if (!share.ok) faults.priceToleranceShare = share.refusals[0]?.message ?? '';
    if (!most.ok) faults.priceToleranceMost = most.refusals[0]?.message ?? '';
    if (!own.ok) faults.ownPassLimit = own.refusals[0]?.message ?? '';
    setLocal(faults);
    if (!share.ok || !most.ok || !own.ok) return;
    void run({
      once: once.key(),
      version: company.version,
      country: text.country,
      language: text.language,
      decimalMark: text.decimalMark,
      firstDay: text.firstDay === '7' ? 7 : 1,
      paper: text.paper,
      week: [...week],
      receivingDays: text.receivingDays,
      priceToleranceShare: share.value,
      priceToleranceMost: most.value,
      ownPassLimit: own.value,
    });
  };
  useKey('Ctrl+Enter', 'Save the settings', submit, !busy);
  const sign = signOf(currency);
  return (
    <>
      <h1 className="mb-3 text-[25px]">{company.name}</h1>
      <fieldset>
        <legend className="field-label">Working days</legend>
        <div className="flex flex-wrap gap-x-4 gap-y-1">
          {WEEK.map((name, k) => (
            <label key={name} className="flex items-center gap-1.5">
              <input
                type="checkbox"
                checked={week.has(k + 1)}
                onChange={(e) =>
                  setWeek((now) => new Set(e.target.checked ? [...now, k + 1] : [...now].filter((d) => d !== k + 1)))
                }
                className="accent-[var(--copper)]"
              />
              {name}
            </label>
          ))}
        </div>
        {faultAt('week') !== undefined && (
          <p role="alert" className="field-fault">
            {faultAt('week')}
          </p>
        )}
      </fieldset>
      <fieldset className="mt-4">
        <legend className="field-label">How days and numbers are written, here, on paper and in files</legend>
        <div className="grid max-w-[860px] items-start gap-3 sm:grid-cols-4">
          <ChoiceField
            label="Language"
            {...bind('language', 'language')}
            onChange={(e) => speak(e.target.value as Language)}
          >
            {LANGUAGES.map((l) => (
              <option key={l} value={l}>
                {LANGUAGE_NAMES[l]}
              </option>
            ))}
          </ChoiceField>
          <ChoiceField label="Decimal mark" {...bind('decimalMark', 'decimalMark')}>
            <option value=".">a point, 1234.50</option>
            <option value=",">a comma, 1234,50</option>
          </ChoiceField>
          <ChoiceField label="A week begins on" {...bind('firstDay', 'firstDay')}>
            <option value="1">Monday</option>
            <option value="7">Sunday</option>
          </ChoiceField>
          <ChoiceField label="Paper" {...bind('paper', 'paper')}>
            <option value="A4">A4</option>
            <option value="LETTER">Letter</option>
          </ChoiceField>
        </div>
      </fieldset>
      <div className="mt-4 grid max-w-[860px] items-start gap-3 sm:grid-cols-2">
        <ChoiceField label="Country, for public holidays" {...bind('country', 'country')}>
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
          {...bind('receivingDays', 'receivingDays')}
        />
        <NumberField
          label="Price difference passed, % of the line"
          hint="A bill within this, and within the amount beside it, is matched without a question."
          {...bind('share', 'priceToleranceShare')}
        />
        <NumberField label={`and at most, ${sign} a line`} {...bind('most', 'priceToleranceMost')} />
        <NumberField
          label={`Differences one may pass on a bill of one’s own, ${sign}`}
          hint="Beyond it somebody else has to pass the bill."
          {...bind('own', 'ownPassLimit')}
        />
      </div>
      <Shelf
        fault={
          clash
            ? `${clash.message} It has been brought up to date: look again.`
            : refusals.find((r) => !r.field)?.message
        }
        facts={<Fact strong>{company.name}</Fact>}
      >
        <ShelfMain disabled={busy} onClick={submit} hint="^↵">
          {busy ? 'Saving…' : 'Save settings'}
        </ShelfMain>
      </Shelf>
    </>
  );
}
