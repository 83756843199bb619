import { CHANGE_KIND_NAMES } from '@/core/budgets/change';
import { formatAmount, formatMoney, type Minor } from '@/core/money/money';
import type { BudgetView, ChangeView } from '@/queries/jobs/budgets';
import { useYard } from '@/ui/frame/YardContext';

const STATES = { pending: 'awaiting agreement', agreed: 'agreed', dropped: 'dropped' } as const;
const TAGS = { pending: 'tag-care', agreed: 'tag-good', dropped: '' } as const;

type Props = {
  readonly view: BudgetView;
  readonly mayWrite: boolean;
  readonly onOpen: (change: ChangeView) => void;
};

/** Everything that moved a budget or is to, the latest first. */
export function Changes({ view: { changes, quoted }, mayWrite, onOpen }: Props) {
  const { currency, day } = useYard();
  const signed = (a: Minor) => `${a > 0 ? '+' : ''}${formatAmount(a, currency)}`;
  return (
    <section aria-label="Budget changes" className="mt-6">
      <h2 className="border-b border-line pb-1 text-[16px]">Budget changes</h2>
      <ul>
        {changes.map((c) => (
          <li key={c.id} className="border-b border-line-2 py-2">
            <div className="flex flex-wrap items-baseline gap-x-3 gap-y-1">
              <b className="mono font-semibold">{c.number}</b>
              <span className="whitespace-nowrap text-ink-2">{day(c.day)}</span>
              <span className={`tag ${TAGS[c.state]}`}>{STATES[c.state]}</span>
              <span className="min-w-0 flex-1">
                {CHANGE_KIND_NAMES[c.kind]}: {c.reason}
              </span>
              <b className="whitespace-nowrap">{c.total === 0 ? '±0' : signed(c.total)}</b>
              {c.state === 'pending' && mayWrite && (
                <button
                  type="button"
                  className="step"
                  onClick={() => onOpen(c)}
                  aria-label={`Open budget change ${c.number}`}
                >
                  Open
                </button>
              )}
            </div>
            <div className={`text-[12.5px] text-ink-2 ${c.state === 'dropped' ? 'line-through' : ''}`}>
              {c.lines
                .map((l) => `${l.code === null ? 'Contingency' : `${l.code.code} ${l.code.name}`} ${signed(l.amount)}`)
                .join(' · ')}
            </div>
            <div className="text-[12.5px] text-ink-2">
              {[
                c.who,
                c.agreedBy === '' ? '' : `agreed by ${c.agreedBy}`,
                c.customerReference === '' ? '' : `customer’s reference ${c.customerReference}`,
                c.quoteChange === null ? '' : `contract price ${signed(c.quoteChange)}`,
                c.decider === null || c.state === 'pending'
                  ? ''
                  : `${STATES[c.state]} by ${c.decider} ${day(c.decidedOn)}`,
              ]
                .filter(Boolean)
                .join(' · ')}
            </div>
          </li>
        ))}
        {[...quoted].reverse().map((q) => (
          <li key={`${q.day}${q.reason}`} className="flex flex-wrap items-baseline gap-x-3 border-b border-line-2 py-2">
            <span className="whitespace-nowrap text-ink-2">{day(q.day)}</span>
            <span className="min-w-0 flex-1">{q.reason}</span>
            <span className="text-ink-2">{q.who}</span>
            <b className="whitespace-nowrap">{formatMoney(q.amount, currency)}</b>
          </li>
        ))}
      </ul>
    </section>
  );
}
