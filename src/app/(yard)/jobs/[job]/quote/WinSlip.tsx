'use client';

import { useRouter } from 'next/navigation';
import { winningFields } from '@/core/records/quote';
import { formatMoney } from '@/core/money/money';
import type { QuoteView } from '@/queries/job';
import { Faults, TextField } from '@/ui/kit/Field';
import { Slip } from '@/ui/kit/Slip';
import { useActForm } from '@/ui/useActForm';
import { useYard } from '@/ui/YardContext';
import { winQuote } from '../../../../acts';
import { BudgetList } from './BudgetList';
import { counted } from '@/core/words';

/** The customer said yes: who, and what that opens. */
export function WinSlip({ quote, job, onClose }: { quote: QuoteView; job: string; onClose: () => void }) {
  const { currency } = useYard();
  const router = useRouter();
  const form = useActForm({
    read: () => winningFields,
    start: { wonBy: '' },
    act: winQuote,
    input: (read, once) => ({ once, quoteId: quote.id, version: quote.version, ...read }),
    said: ({ bought, budget }) =>
      `Budget ${formatMoney(budget, currency)} is open, with ${counted(bought, 'line')} on the buy list`,
    onDone: () => router.push(`/jobs/${job}`),
  });
  const { clash, busy } = form;
  const { bought, budget: rows } = quote.whole;
  return (
    <Slip
      open
      onClose={onClose}
      title={`Mark ${quote.number} won`}
      detail="Buying may start once the customer has said yes."
      foot={
        <div className="grid gap-2">
          <Faults
            messages={clash ? [`${clash.message} Close this and look again.`] : form.refusals.map((r) => r.message)}
          />
          <button type="submit" form="win" disabled={busy} className="btn btn-main justify-self-end">
            {busy ? 'Opening the budget…' : 'Mark won and open the budget'}
          </button>
        </div>
      }
    >
      <form
        id="win"
        onSubmit={(e) => {
          e.preventDefault();
          form.save();
        }}
      >
        <TextField label="Who of the customer said yes" autoFocus {...form.text('wonBy')} />
      </form>
      <h3 className="mt-5 text-[15px]">Opens this budget</h3>
      <BudgetList rows={rows} />
      <h3 className="mt-4 text-[15px]">Fills the buy list</h3>
      <p className="text-ink-2">
        {counted(bought, 'bought line')}. Allowances open budget only; made and labour lines are not bought.
      </p>
    </Slip>
  );
}
