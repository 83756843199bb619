'use client';

import Link from '@/ui/kit/Link';
import { useRouter } from 'next/navigation';
import { formatAmount, formatMoney, type Minor } from '@/core/money/money';
import { STAGE_NAMES, type Stage } from '@/core/tab/stages';
import type { PostingRow } from '@/queries/jobs/job';
import { Slip } from '@/ui/kit/Slip';
import { useYard } from '@/ui/frame/YardContext';
import { counted } from '@/core/words';

type Props = {
  readonly rows: readonly PostingRow[];
  readonly sum: Minor;
  readonly count: number;
  readonly title: readonly string[];
  readonly back: string;
};

const hrefOf = (p: PostingRow, job: string): string => {
  if (p.document === 'invoice') return `/invoices/${p.documentId}`;
  if (p.document === 'quote') return `${job}/quote`;
  if (p.document === 'supplier') return `/suppliers/${p.documentId}`;
  return p.order === null ? `${job}/buy-list` : `/orders/${p.order}`;
};

/** A figure of the tab, opened to the postings it is the sum of and the documents behind them. */
export function FigureSlip({ rows, sum, count, title, back }: Props) {
  const router = useRouter();
  const { currency, day } = useYard();
  const words = title.map((t) => STAGE_NAMES[t as Stage] ?? t).join(' · ');
  return (
    <Slip
      open
      onClose={() => router.replace(back, { scroll: false })}
      title={words}
      detail={`${counted(count, 'posting')}, newest first`}
      foot={
        <p className="flex justify-between font-bold">
          <span>Total</span>
          <span>{formatMoney(sum, currency)}</span>
        </p>
      }
    >
      {rows.length === 0 && <p className="text-ink-2">No postings.</p>}
      <ul>
        {rows.map((p) => {
          const href = hrefOf(p, back.split('?')[0] ?? '');
          return (
            <li key={p.id} className="border-b border-line-2 py-2">
              <div className="flex justify-between gap-3">
                <span className="min-w-0 font-semibold">{p.what}</span>
                <span className={`whitespace-nowrap ${p.amount < 0 ? 'text-ink-2' : ''}`}>
                  {formatAmount(p.amount, currency)}
                </span>
              </div>
              <div className="flex justify-between gap-3 text-[12.5px] text-ink-2">
                <span>
                  {day(p.day)} · {p.event} ·{' '}
                  <Link href={href} className="mono text-copper-text hover:underline">
                    {p.documentNumber}
                  </Link>{' '}
                  · {p.who}
                </span>
                <span className="whitespace-nowrap">{STAGE_NAMES[p.stage]}</span>
              </div>
            </li>
          );
        })}
      </ul>
      {count > rows.length && (
        <p className="mt-3 text-ink-2">
          Showing the newest {rows.length}; the total includes all {count}.
        </p>
      )}
    </Slip>
  );
}
