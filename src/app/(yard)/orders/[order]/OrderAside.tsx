'use client';

import Link from '@/ui/kit/Link';
import { formatMoney } from '@/core/money/money';
import { isUnsent } from '@/core/orders/states';
import type { HistoryRow } from '@/queries/company/history';
import type { OrderView } from '@/queries/orders/order';
import type { MessageState } from '@/store/tables';
import { ChangeList } from './Revising';
import { counted } from '@/core/words';
import { EffectList } from '@/ui/jobs/EffectList';
import { SignSteps } from '@/ui/signoff/SignSteps';
import { FirstOf } from '@/ui/kit/FirstOf';
import { useYard } from '@/ui/frame/YardContext';

const ASKED: Readonly<Record<MessageState, string>> = {
  taken: 'Chased',
  failed: 'Not chased',
  unknown: 'May have been chased',
  sending: 'Chasing',
};

const MAILED: Readonly<Record<MessageState, string>> = {
  taken: 'Emailed to',
  failed: 'Not emailed to',
  unknown: 'May have been emailed to',
  sending: 'Emailing',
};

const Title = ({ children }: { children: string }) => <h2 className="mt-5 mb-1 text-[16px] first:mt-0">{children}</h2>;

/** What the order leads to: before it is sent, the budgets it touches; after that, what came of it. */
export function OrderAside({
  view,
  history,
  moving = false,
}: {
  view: OrderView;
  history: readonly HistoryRow[];
  /** It moves as one types. */
  moving?: boolean;
}) {
  const { day } = useYard();
  const { order, checks, receipts, invoices, messages, documents } = view;
  const { revising, revisions } = view;
  const unsent = isUnsent(order.state, order.sentFrom);
  return (
    <>
      {revising !== undefined && (
        <>
          <Title>{`Changes in revision ${revising.number}`}</Title>
          <ChangeList changes={revising.changes} />
        </>
      )}
      <Title>{unsent || revising !== undefined ? 'Effect on job budgets' : 'Job budgets now'}</Title>
      {moving && <p className="-mt-1 mb-1 text-[12.5px] text-ink-2">updates as you type</p>}
      <EffectList effects={view.effects} />
      {checks.length > 0 && (
        <>
          <Title>Checks</Title>
          <ul className="grid gap-1">
            <FirstOf all={checks} most={12} more={(n) => counted(n, 'more check')}>
              {(c) => (
                <li key={c.words} className="flex gap-1.5">
                  <b className={`w-2.5 shrink-0 ${c.good ? 'text-enamel' : 'text-amber'}`}>
                    <span aria-hidden>{c.good ? '✓' : '!'}</span>
                    <span className="sr-only">{c.good ? 'In order:' : 'Look:'}</span>
                  </b>
                  <span>{c.words}</span>
                </li>
              )}
            </FirstOf>
          </ul>
        </>
      )}
      {view.signing !== undefined && (view.signing.steps.length > 0 || view.signing.refused !== null) && (
        <>
          <Title>Who signs</Title>
          {view.signing.refused !== null && (
            <p className="mb-2 text-brick">
              {view.signing.refused.who} declined it {day(view.signing.refused.day)}: “{view.signing.refused.reason}”
            </p>
          )}
          <SignSteps steps={view.signing.steps} />
        </>
      )}
      {revisions.length > 1 && (
        <>
          <Title>Revisions</Title>
          <ul>
            {revisions.map((r) => (
              <li key={r.number} className="border-b border-line-2 py-1">
                {r.documentId === null ? (
                  <b>{r.number}</b>
                ) : (
                  <a
                    href={`/documents/${r.documentId}`}
                    target="_blank"
                    rel="noreferrer"
                    className="font-semibold hover:underline"
                  >
                    {r.number === 0 ? 'First sent' : `Revision ${r.number}`}
                  </a>
                )}{' '}
                <span className="text-ink-2">
                  {day(r.day)} · {r.who}
                </span>
                {r.number > 0 && <div className="text-[12.5px]">{r.reason}</div>}
              </li>
            ))}
          </ul>
        </>
      )}
      {receipts.length > 0 && (
        <>
          <Title>Receipts</Title>
          <ul>
            {receipts.map((r) => (
              <li key={r.id} className="border-b border-line-2 py-1">
                <Link href={`/dock/${order.number}`} className="mono font-semibold hover:underline">
                  {r.number}
                </Link>{' '}
                {day(r.day)}{' '}
                <span className="text-ink-2">
                  {r.who}
                  {r.note && ` · ${r.note}`}
                </span>
              </li>
            ))}
          </ul>
        </>
      )}
      {invoices.length > 0 && (
        <>
          <Title>Invoices</Title>
          <ul>
            {invoices.map((i) => (
              <li key={i.id} className="flex justify-between gap-2 border-b border-line-2 py-1">
                <span>
                  <Link href={`/invoices/${i.id}`} className="font-semibold hover:underline">
                    {i.number}
                  </Link>{' '}
                  <span className="text-ink-2">
                    {day(i.day)} · {i.state}
                  </span>
                </span>
                <span>{formatMoney(i.gross, order.currency)}</span>
              </li>
            ))}
          </ul>
        </>
      )}
      {(messages.length > 0 || documents.length > 0) && (
        <>
          <Title>Documents and emails</Title>
          <ul>
            {documents.map((d) => (
              <li key={d.id} className="border-b border-line-2 py-1">
                <a
                  href={`/documents/${d.id}`}
                  target="_blank"
                  rel="noreferrer"
                  className="mono text-copper-text hover:underline"
                >
                  {d.name}
                </a>
              </li>
            ))}
            {messages.map((m) => (
              <li key={m.id} className="border-b border-line-2 py-1">
                <Link href={`/outbox/${m.id}`} className="text-copper-text hover:underline">
                  {m.kind === 'chase' ? ASKED[m.state] : MAILED[m.state]} {m.recipient}
                </Link>
              </li>
            ))}
          </ul>
        </>
      )}
      <Title>History</Title>
      <ul>
        {history.slice(0, 8).map((h) => (
          <li key={h.id} className="border-b border-line-2 py-1 text-[12.5px]">
            <span className="text-ink-2">
              {day(h.day)} · {h.who}
            </span>
            <br />
            {h.words}
          </li>
        ))}
      </ul>
      <Link href={`/history?about=order&id=${order.id}`} className="step mt-1.5 text-[13px]">
        Full history
      </Link>
    </>
  );
}
