'use client';

import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { winningForm } from '@/core/records/quote';
import { add, formatAmount, formatMoney, lineNet, subtract, ZERO, type Minor } from '@/core/money/money';
import { NONE, type Quantity } from '@/core/quantity/quantity';
import type { Surplus } from '@/core/needs/surplus';
import { revisionChanges } from '@/core/quotes/revision';
import { budgetOf } from '@/core/quotes/winning';
import type { Revised } from '@/queries/quotes/revision';
import type { QuoteView } from '@/queries/jobs/job';
import { AreaField, Faults, TextField } from '@/ui/kit/Field';
import { DateField } from '@/ui/kit/DateField';
import { PickField } from '@/ui/kit/PickField';
import { Slip } from '@/ui/kit/Slip';
import { useActForm } from '@/ui/acting/useActForm';
import { useYard } from '@/ui/frame/YardContext';
import { acts } from '../../../../actions';
import { ChangeTold, SurplusField } from '../changes';
import { BudgetList } from './BudgetList';
import { counted } from '@/core/words';

type Props = {
  readonly quote: QuoteView;
  readonly job: string;
  /** The won quote that this one is to take the place of. */
  readonly revised: Revised | undefined;
  readonly onClose: () => void;
};

/** The customer said yes: who, to which lines, by which order, and what that opens. */
export function WinSlip({ quote, job, revised, onClose }: Props) {
  const { currency } = useYard();
  const router = useRouter();
  const [lines, setLines] = useState<ReadonlySet<number>>(
    () => new Set(quote.rows.filter((l) => l.optional === 0).map((l) => l.id)),
  );
  const [byLine, setByLine] = useState(quote.rows.some((l) => l.optional === 1));
  // Of a quote that is longer than a page only the whole can be won at once; more is agreed to afterwards.
  const mayChoose = quote.rows.length === quote.whole.lines;
  const choosing = byLine && mayChoose;
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const [surplus, setSurplus] = useState<Surplus | ''>('');
  const form = useActForm({
    read: () => winningForm,
    start: { wonBy: '', customerOrder: '', customerOrderOn: '', deliveryAddress: '', plannerId: null },
    act: acts.winQuote,
    input: (read, once) => ({
      once,
      ...{ quoteId: quote.id, version: quote.version },
      ...(choosing ? { agreed: [...lines] } : {}),
      left: [...left],
      ...(surplus === '' ? {} : { surplus }),
      ...read,
    }),
    said: ({ bought, budget }) =>
      revised === undefined
        ? `Budget of ${formatMoney(budget, currency)} opened, ${counted(bought, 'line')} on the buy list`
        : `Budget changed by ${formatMoney(budget, currency)}, buy list updated`,
    onDone: () => router.push(`/jobs/${job}`),
  });
  const { clash, busy } = form;
  const agreed = quote.rows.filter((l) => lines.has(l.id));
  const budget = choosing ? rowsOf(agreed, currency) : quote.whole.budget;
  const lost = choosing ? lostOf(agreed, currency) : quote.whole.lost;
  const counts = (l: { id: number; optional: number }) => (choosing ? lines.has(l.id) : l.optional === 0);
  const changes = revised === undefined ? [] : revisionChanges(revised.lines, revised.now.filter(counts));
  const bought = choosing ? agreed.filter((l) => l.kind === 'bought' && l.itemBought !== 0).length : quote.whole.bought;
  const turned = <T,>(among: ReadonlySet<T>, one: T): Set<T> => {
    const next = new Set(among);
    if (!next.delete(one)) next.add(one);
    return next;
  };
  return (
    <Slip
      open
      onClose={onClose}
      title={`Mark ${quote.number} won`}
      detail="Buying starts once the customer has accepted."
      foot={
        <div className="grid gap-2">
          <Faults
            messages={clash ? [`${clash.message} Close this and reopen it.`] : form.refusals.map((r) => r.message)}
          />
          <button type="submit" form="win" disabled={busy} className="btn btn-main justify-self-end">
            {busy ? 'Opening the budget…' : revised === undefined ? 'Mark won and open budget' : 'Mark won and apply'}
          </button>
        </div>
      }
    >
      <form
        id="win"
        className="grid gap-3"
        onSubmit={(e) => {
          e.preventDefault();
          form.save();
        }}
      >
        <TextField label="Accepted by (customer)" autoFocus {...form.text('wonBy')} />
        <div className="grid grid-cols-2 gap-3">
          <TextField label="Customer’s order no." placeholder="e.g. PO-2231" {...form.text('customerOrder')} />
          <DateField label="of" {...form.day('customerOrderOn')} />
        </div>
        <AreaField label="Delivery address" rows={2} {...form.text('deliveryAddress')} />
        <PickField kind="person" label="Planner" placeholder="job lead" {...form.pick('plannerId')} />
      </form>
      {mayChoose && (
        <label className="mt-4 block">
          <input type="checkbox" checked={byLine} onChange={(e) => setByLine(e.target.checked)} /> Accepted line by line
        </label>
      )}
      {choosing && (
        <ul className="mt-2">
          {quote.rows.map((l) => (
            <li key={l.id} className="border-b border-line-2 py-1">
              <label className="flex gap-2">
                <input
                  type="checkbox"
                  className="accent-[var(--copper)]"
                  checked={lines.has(l.id)}
                  onChange={() => setLines(turned(lines, l.id))}
                />
                <span className="flex-1">
                  {l.description} {l.optional === 1 && <span className="tag">optional</span>}
                </span>
                <span>
                  {l.price === null
                    ? ''
                    : formatAmount(lineNet(l.quantity as Quantity, l.price, 1, currency), currency)}
                </span>
              </label>
            </li>
          ))}
        </ul>
      )}
      {revised !== undefined && (
        <>
          <h3 className="mt-5 text-[15px]">Changes to the buy list {revised.number}</h3>
          {changes.length === 0 && <p className="text-ink-2">No changes.</p>}
          <ul>
            {changes.map(({ key, was, is }) => (
              <li key={key} className="border-b border-line-2 py-1.5">
                <label className="flex gap-2">
                  <input
                    type="checkbox"
                    className="mt-[3px] accent-[var(--copper)]"
                    checked={!left.has(key)}
                    onChange={() => setLeft(turned(left, key))}
                  />
                  <ChangeTold
                    description={(is ?? was)?.description ?? ''}
                    unit={(is ?? was)?.unit ?? ''}
                    was={was ?? null}
                    is={is ?? null}
                    bought={revised.lines.find((l) => l.id === was?.id)?.ordered ?? NONE}
                  />
                </label>
              </li>
            ))}
          </ul>
          {(surplus !== '' || form.refusedAt('surplus') !== undefined) && (
            <SurplusField className="mt-3" value={surplus} onChange={setSurplus} />
          )}
        </>
      )}
      <h3 className="mt-5 text-[15px]">{revised === undefined ? 'Budget' : 'New budget'}</h3>
      <BudgetList rows={budget} />
      {lost !== 0 && (
        <p className="text-[12.5px] text-ink-2">{formatMoney(lost, currency)} of it is tax you can’t recover.</p>
      )}
      {revised === undefined && <h3 className="mt-4 text-[15px]">Buy list</h3>}
      <p className="mt-1 text-ink-2">
        {counted(bought, 'bought line')}. Allowances add budget only. Made items, own labour and free-issue material are
        not bought.
      </p>
    </Slip>
  );
}

/** What of the budget that some lines open is tax that cannot be recovered. */
const lostOf = (lines: QuoteView['rows'], currency: string): Minor => {
  const sum = (of: QuoteView['rows']) =>
    add(
      ZERO,
      ...budgetOf(
        of.map((l) => ({ ...l, quantity: l.quantity as Quantity })),
        currency,
      ).values(),
    );
  return subtract(sum(lines), sum(lines.map((l) => ({ ...l, tax: null }))));
};

/** The budget that some lines open, by cost code. */
function rowsOf(lines: QuoteView['rows'], currency: string): { code: string; name: string; amount: Minor }[] {
  const names = new Map(lines.map((l) => [l.costCodeId, l]));
  const costed = lines.map((l) => ({ ...l, quantity: l.quantity as Quantity }));
  return [...budgetOf(costed, currency)]
    .map(([id, amount]) => ({ code: names.get(id)?.code ?? '', name: names.get(id)?.codeName ?? '', amount }))
    .sort((a, b) => a.code.localeCompare(b.code));
}
