'use client';

import { measured } from '@/core/quantity/units';
import { useState } from 'react';
import { formatQuantity, quantity, type Quantity } from '@/core/quantity/quantity';
import type { DockOrder, DockReceipt } from '@/queries/dock/order';
import { useAct, useOnce } from '@/ui/acting/useAct';
import { useYard } from '@/ui/frame/YardContext';
import { acts } from '../../../actions';
import { Papers } from './Papers';
import { cameWith, PutRight } from './PutRight';

const KINDS: Readonly<Record<DockReceipt['kind'], string>> = {
  delivery: 'received',
  inspection: 'inspected',
  sentBack: 'returned',
  takenBack: 'reversed',
};

/** What came of an order so far, what was said of it, and what went back. */
export function Receipts({ order, onBack }: { order: DockOrder; onBack: () => void }) {
  const { day, may } = useYard();
  const once = useOnce();
  const [asked, setAsked] = useState<number>();
  const [righting, setRighting] = useState<number>();
  const { run, busy, refusals } = useAct(acts.reverseReceipt, {
    said: () => 'Receipt reversed',
    onDone: () => {
      once.renew();
      setAsked(undefined);
    },
  });
  const came = order.lines.some((l) => l.received > 0 || l.rejected > 0);
  return (
    <>
      <h2 className="mb-1 text-[16px]">Receipts</h2>
      {order.receipts.length === 0 && (
        <p className="text-ink-2">Nothing received yet. Enter a quantity for each line, or press Receive all.</p>
      )}
      <ul>
        {order.receipts.map((r) => (
          <li key={r.id} className={`border-b border-line-2 py-1.5 ${r.back === 1 ? 'text-ink-2' : ''}`}>
            <div className="flex justify-between gap-2">
              <span>
                <span className="mono font-semibold">{r.number}</span>{' '}
                <span className="text-[12.5px] text-ink-2">{KINDS[r.kind]}</span>
              </span>
              <span className="whitespace-nowrap">{day(r.day)}</span>
            </div>
            <ul className="text-[12.5px] text-ink-2">
              {r.lines.map((l) => (
                <li key={l.lineId}>{toldOf(order, l)}</li>
              ))}
            </ul>
            <div className="flex justify-between gap-2 text-[12.5px] text-ink-2">
              <span>
                {[r.who, r.note, r.carrier, packagesOf(r.packages)].filter(Boolean).join(' · ')}{' '}
                <Prints order={order.number} receipt={r} />
              </span>
              {r.back === 0 && may('receive') && cameWith(r, order.lines) !== undefined && (
                <button
                  type="button"
                  className="min-h-[28px] whitespace-nowrap underline-offset-2 hover:underline max-phone:min-h-[44px]"
                  aria-expanded={righting === r.id}
                  onClick={() => setRighting(righting === r.id ? undefined : r.id)}
                >
                  Correct
                </button>
              )}
              {r.back === 0 && may('receive') && (
                <button
                  type="button"
                  disabled={busy}
                  className="min-h-[28px] whitespace-nowrap underline-offset-2 hover:underline max-phone:min-h-[44px]"
                  aria-expanded={asked === r.id}
                  onClick={() => setAsked(asked === r.id ? undefined : r.id)}
                >
                  Reverse
                </button>
              )}
            </div>
            {r.kind !== 'takenBack' && (
              <Papers
                order={order.number}
                about="receipt"
                aboutId={r.id}
                papers={r.papers}
                add="Add photo or document"
              />
            )}
            {righting === r.id && (
              <PutRight receipt={r} came={cameWith(r, order.lines) ?? []} onClose={() => setRighting(undefined)} />
            )}
            {asked === r.id && (
              <div className="mt-1 rounded-lg border border-line bg-glaze px-3 py-2">
                <p className="mb-1.5">{UNDONE[r.kind](r.number)}</p>
                <div className="flex justify-end gap-2">
                  <button type="button" className="btn btn-plain" onClick={() => setAsked(undefined)}>
                    Cancel
                  </button>
                  <button
                    type="button"
                    disabled={busy}
                    className="btn btn-main"
                    onClick={() => void run({ once: once.key(), receiptId: r.id })}
                  >
                    Reverse {r.number}
                  </button>
                </div>
              </div>
            )}
          </li>
        ))}
      </ul>
      {refusals[0] && (
        <p role="alert" className="field-fault">
          {refusals[0].message}
        </p>
      )}
      {came && may('receive') && (
        <button type="button" className="btn btn-plain mt-3" onClick={onBack}>
          Return goods
        </button>
      )}
    </>
  );
}

/** The papers of a receipt: labels of what it brought, or the note that goes along with what went back. */
function Prints({ order, receipt: r }: { order: string; receipt: DockReceipt }) {
  const paper = (words: string, href: string) => (
    <a href={href} target="_blank" rel="noreferrer" className="text-copper-text underline">
      {words}
    </a>
  );
  if (r.kind === 'sentBack') return paper('return note', `/dock/${order}/return/${r.id}`);
  const brought = r.back === 0 && r.lines.some((l) => l.accepted > 0);
  if (!brought) return null;
  return (
    <>
      {paper('labels', `/dock/${order}/labels/${r.id}`)} ·{' '}
      {paper('Labels on A4', `/dock/${order}/labels/${r.id}?sheet=a4`)}
    </>
  );
}

const UNDONE: Readonly<Record<DockReceipt['kind'], (number: string) => string>> = {
  delivery: (n) => `Everything on ${n} is back on order.`,
  inspection: (n) => `Everything on ${n} is awaiting inspection again.`,
  sentBack: (n) => `Everything on ${n} is back here.`,
  takenBack: (n) => `${n} unchanged.`,
};

const packagesOf = (n: number | null): string => (n === null ? '' : n === 1 ? '1 package' : `${n} packages`);

/** @example “4 m Tube in, 1 rejected: Faulty” */
function toldOf(order: DockOrder, l: DockReceipt['lines'][number]): string {
  const line = order.lines.find((x) => x.id === l.lineId);
  if (line === undefined) return '';
  const size = (q: Quantity) => formatQuantity(quantity(Math.abs(q)));
  const parts = [
    l.accepted !== 0 && `${measured(quantity(Math.abs(l.accepted)), line.unit)} ${l.accepted > 0 ? 'in' : 'out'}`,
    l.held > 0 && `${size(l.held)} to inspect`,
    l.rejected !== 0 &&
      `${size(l.rejected)} rejected${l.rejected < 0 ? ' gone' : ''}${l.reason === null ? '' : `: ${l.reason}`}`,
    l.givenUp > 0 && `${size(l.givenUp)} for credit`,
  ].filter(Boolean);
  return `${line.description}: ${parts.join(', ')}`;
}
