'use client';

import { z } from 'zod';
import { rulesForm } from '@/core/records/signoff';
import { hasShare, RULE_ANSWER_NAMES, RULE_ANSWERS, RULE_NAMES } from '@/core/signoff/rules';
import type { LadderView } from '@/queries/signoff/ladder';
import { ChoiceField, Faults } from '@/ui/kit/Field';
import { NumberField } from '@/ui/kit/NumberField';
import { useActForm } from '@/ui/acting/useActForm';
import { TakeOut } from '@/ui/kit/TakeOut';
import { acts } from '../../actions';

/** What the company watches when something is bought, and what it does then. */
export function Rules({ view }: { readonly view: LadderView }) {
  const form = useActForm({
    read: () => rulesForm,
    start: z.encode(rulesForm, { rules: [...view.rules] }),
    act: acts.saveRules,
    input: (read, once) => ({ once, version: view.version, ...read }),
    said: () => 'Buying rules saved',
  });
  return (
    <section aria-labelledby="rules" className="mt-8">
      <h2 id="rules" className="flex flex-wrap items-baseline gap-x-4 text-[16px]">
        Buying rules <TakeOut list="rules" />
      </h2>
      <p className="mb-2 text-ink-2">Nothing can be bought for a closed job.</p>
      <ul className="max-w-[820px]">
        {view.rules.map(({ kind }, k) => (
          <li
            key={kind}
            className="grid items-center gap-x-4 gap-y-1 border-b border-line-2 py-1.5 sm:grid-cols-[1fr_110px_190px]"
          >
            <span>{RULE_NAMES[kind]}</span>
            {hasShare(kind) ? (
              <NumberField label={`${RULE_NAMES[kind]}, %`} hideLabel {...form.text(`rules.${k}.share`)} />
            ) : (
              <span />
            )}
            <ChoiceField label={RULE_NAMES[kind]} hideLabel {...form.text(`rules.${k}.answer`)}>
              {RULE_ANSWERS.map((answer) => (
                <option key={answer} value={answer}>
                  {RULE_ANSWER_NAMES[answer]}
                </option>
              ))}
            </ChoiceField>
          </li>
        ))}
      </ul>
      <div className="mt-3 flex items-center gap-4">
        <button type="button" className="btn btn-main" disabled={form.busy} onClick={form.save}>
          Save rules
        </button>
        <Faults messages={form.clash ? [form.clash.message] : form.refusals.map((r) => r.message)} />
      </div>
    </section>
  );
}
