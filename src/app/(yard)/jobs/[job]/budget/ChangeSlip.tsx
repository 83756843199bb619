'use client';

import { z } from 'zod';
import { kindOf, totalOf, CHANGE_KIND_NAMES, type ChangeLine } from '@/core/budgets/change';
import { formatAmount, formatMoney, minor, type Minor } from '@/core/money/money';
import { budgetChangeForm, HELD, type BudgetChangeText, type ChangeLineText } from '@/core/records/budget';
import type { ChangeView } from '@/queries/jobs/budgets';
import type { Choice } from '@/queries/frame/choices';
import { useKey } from '@/ui/frame/keys';
import { DateField } from '@/ui/kit/DateField';
import { Faults, TextField } from '@/ui/kit/Field';
import { NumberField } from '@/ui/kit/NumberField';
import { PickField } from '@/ui/kit/PickField';
import { Slip } from '@/ui/kit/Slip';
import { useAct } from '@/ui/acting/useAct';
import { useActForm } from '@/ui/acting/useActForm';
import { useYard } from '@/ui/frame/YardContext';
import { acts } from '../../../../actions';

/** How the budget of each cost code stands, by its id. */
export type Stands = readonly (readonly [costCodeId: number, budget: Minor])[];

type Props = {
  readonly jobId: number;
  readonly job: string;
  /** One that is still to be agreed; a new one without it. */
  readonly change: ChangeView | undefined;
  /** What it begins with. */
  readonly begin?: readonly ChangeLineText[] | undefined;
  readonly stands: Stands;
  readonly contingency: Minor;
  readonly onClose: () => void;
};

const EMPTY: ChangeLineText = { code: null, amount: '' };
const CONTINGENCY: Choice = { ...HELD, detail: 'budget not in any cost code yet' };

/** Writes a budget change, or opens one that is to be agreed. */
export default function ChangeSlip({ jobId, job, change, begin, stands, contingency, onClose }: Props) {
  const { currency, today, may } = useYard();
  const schema = budgetChangeForm(currency);
  const fresh: BudgetChangeText = {
    day: today,
    reason: '',
    customerReference: '',
    agreedBy: '',
    quoteChange: '',
    lines: begin === undefined ? [EMPTY, EMPTY] : [...begin, EMPTY],
  };
  const start: BudgetChangeText =
    change === undefined
      ? fresh
      : {
          day: change.day,
          reason: change.reason,
          customerReference: change.customerReference,
          agreedBy: change.agreedBy,
          quoteChange: z.encode(schema.shape.quoteChange, change.quoteChange),
          lines: change.lines.map(({ code, amount }) => ({
            code: code === null ? HELD : { id: code.id, number: code.code, name: code.name },
            amount: formatAmount(amount, currency),
          })),
        };
  const mayAgree = may('agree budget changes');
  const common = { read: () => budgetChangeForm(currency), start, onDone: onClose };
  const write = useActForm({
    ...common,
    act: acts.writeBudgetChange,
    input: (read, once) => ({ once, jobId, agreed: mayAgree, ...read }),
    said: ({ number }) => `Budget change ${number} ${mayAgree ? 'agreed' : 'submitted for agreement'}`,
  });
  const mend = useActForm({
    ...common,
    act: acts.changeBudgetChange,
    input: (read, once) => ({ once, changeId: change?.id ?? 0, version: change?.version ?? 0, ...read }),
    said: () => `Budget change ${change?.number} saved`,
  });
  const form = change === undefined ? write : mend;
  const agree = useAct(acts.agreeBudgetChange, {
    said: () => `Budget change ${change?.number} agreed`,
    onDone: onClose,
  });
  const drop = useAct(acts.dropBudgetChange, {
    said: () => `Budget change ${change?.number} withdrawn`,
    onDone: onClose,
  });
  const { lines } = form.typed;
  const put = (k: number, part: Partial<ChangeLineText>) => {
    const next = lines.map((l, j) => (j === k ? { ...l, ...part } : l));
    const last = next.at(-1);
    form.put('lines', last === undefined || last.code !== null || last.amount !== '' ? [...next, EMPTY] : next);
  };
  const read = schema.shape.lines.safeParse(lines);
  const typed: readonly ChangeLine[] = read.success ? read.data : [];
  const standing = (code: ChangeLineText['code']) =>
    code === null
      ? undefined
      : code.id === HELD.id
        ? contingency
        : (stands.find(([id]) => id === code.id)?.[1] ?? minor(0));
  const words = change === undefined ? (mayAgree ? 'Agree change' : 'Submit for agreement') : 'Save change';
  useKey('Ctrl+Enter', words, form.save, !form.busy);
  const ref = { changeId: change?.id ?? 0, version: change?.version ?? 0 };
  const refused = [form, agree, drop].flatMap((a) => (a.clash ? [a.clash.message] : a.refusals.map((r) => r.message)));
  const unsaved = change !== undefined && JSON.stringify(form.typed) !== JSON.stringify(start);
  return (
    <Slip
      open
      onClose={onClose}
      title={change === undefined ? `Budget change for ${job}` : `Budget change ${change.number} for ${job}`}
      detail="Enter + or − for each cost code. Equal plus and minus is a transfer."
      foot={
        <div className="grid gap-2">
          <Faults messages={refused} />
          <div className="flex flex-wrap items-center justify-end gap-3">
            {change?.mayDrop === true && (
              <button type="button" className="btn btn-plain" disabled={drop.busy} onClick={() => void drop.run(ref)}>
                Withdraw
              </button>
            )}
            {change !== undefined && mayAgree && !unsaved && (
              <button
                type="button"
                className="btn btn-main"
                disabled={agree.busy}
                onClick={() => void agree.run({ once: `agree-${ref.changeId}-${ref.version}`, ...ref })}
              >
                Agree
              </button>
            )}
            {(change === undefined || unsaved) && (
              <button type="button" className="btn btn-main" disabled={form.busy} onClick={form.save}>
                {words}{' '}
                <span className="kbd" aria-hidden>
                  Ctrl ↵
                </span>
              </button>
            )}
          </div>
        </div>
      }
    >
      <div className="grid gap-3">
        <div role="group" aria-label="By cost code" className="grid gap-2">
          {lines.map((l, k) => {
            const now = standing(l.code);
            return (
              <div key={k} className="grid grid-cols-[1fr_130px] items-start gap-2">
                <PickField
                  kind="costCode"
                  label={`Cost code ${k + 1}`}
                  hideLabel={k > 0}
                  also={[CONTINGENCY]}
                  value={l.code}
                  onPick={(code) => put(k, { code })}
                  hint={now === undefined ? undefined : `now ${formatMoney(now, currency)}`}
                  fault={form.faultAt(`lines.${k}.code`)}
                />
                <NumberField
                  label={`Amount ${k + 1}, ${currency}`}
                  hideLabel={k > 0}
                  value={l.amount}
                  onChange={(e) => put(k, { amount: e.target.value })}
                  fault={form.faultAt(`lines.${k}.amount`)}
                />
              </div>
            );
          })}
          {form.faultAt('lines') !== undefined && <p className="field-fault">{form.faultAt('lines')}</p>}
          {typed.length > 0 && (
            <p className="text-right">
              {CHANGE_KIND_NAMES[kindOf(typed)]},{' '}
              <b>
                {totalOf(typed) === 0 ? 'total unchanged' : `total changes by ${formatMoney(totalOf(typed), currency)}`}
              </b>
            </p>
          )}
        </div>
        <DateField label="Date" towards="back" {...form.day('day')} />
        <TextField label="Reason" maxLength={300} {...form.text('reason')} />
        <TextField label="Agreed by" hint="at the customer or in-house" maxLength={120} {...form.text('agreedBy')} />
        <TextField label="Customer’s reference" maxLength={80} {...form.text('customerReference')} />
        <NumberField label={`Change in contract price, ${currency}`} {...form.text('quoteChange')} />
      </div>
    </Slip>
  );
}
