'use client';

import { useState, type ReactNode } from 'react';
import { toast } from 'sonner';
import { AWAITED, SENDABLE, UNSENT } from '@/core/orders/states';
import { counted } from '@/core/words';
import type { OrderRow } from '@/queries/orders/orders';
import { useKey } from '@/ui/frame/keys';
import { Fact, Shelf, ShelfMain, ShelfPlain } from '@/ui/kit/Shelf';
import type { Listed } from '@/ui/ledger/Listed';
import Link from '@/ui/kit/Link';
import type { Key } from '@/ui/ledger/column';
import { useDraft } from '@/ui/acting/useDraft';
import { makeKey } from '@/ui/acting/useAct';
import { useMany } from '@/ui/acting/useMany';
import { useYard } from '@/ui/frame/YardContext';
import { later } from '@/ui/acting/later';
import { chaseOrder, sendOrder } from '../../actions';
import { OrdersTable } from './OrdersTable';

const ChaseSlip = later(() => import('./ChaseSlip'));

type What = 'send' | 'chase';
const MAIN: Readonly<Record<What, string>> = { send: 'Send selected', chase: 'Chase selected' };

/** The orders, of which those not sent yet can be picked and sent together, and those at suppliers chased; what stands there when there are none. */
export function OrdersList({ rows, list, children }: { rows: readonly OrderRow[]; list: Listed; children: ReactNode }) {
  const { may } = useYard();
  // Kept as in Gather, so that one may look at an order and come back.
  const kept = useDraft<readonly Key[]>('orders', []);
  const picked = new Set(kept.value);
  const pick = (keys: Iterable<Key>) => kept.set([...keys]);
  const [asking, setAsking] = useState(false);
  const { doing, faults, run } = useMany<OrderRow>();
  // What is held open waits for more, and an order whose mail may have arrived is asked about on its own page.
  const sendable = (o: OrderRow) => SENDABLE.includes(o.state) && o.state !== 'heldOpen' && o.mail !== 'unknown';
  const owing = (o: OrderRow) => AWAITED.includes(o.state);
  const chosen = rows.filter((o) => picked.has(o.id) && (sendable(o) || owing(o)));
  /** What is picked is sent, or asked after; both at once is neither. */
  const what = chosen.every(sendable) ? ('send' as const) : chosen.every(owing) ? ('chase' as const) : undefined;
  const unsent = rows.filter((o) => UNSENT.includes(o.state)).length;
  const putBack = () => {
    kept.restart();
    setAsking(false);
  };
  const main = async () => {
    if (!asking) return setAsking(true);
    setAsking(false);
    if (what === undefined) return;
    const left = await run(chosen, {
      act: ({ id, version }) =>
        what === 'send'
          ? sendOrder({ once: makeKey(), orderId: id, version })
          : chaseOrder({ once: makeKey(), orderId: id }),
      why: ({ came, answer, notTo }) =>
        came !== 'taken'
          ? `email not accepted: ${answer}`
          : notTo.length > 0
            ? `sent, but not delivered to ${notTo.join(', ')}`
            : undefined,
    });
    pick(left.map((o) => o.id));
    const gone = chosen.length - left.length;
    if (gone > 0) toast.success(`${counted(gone, 'order')} ${what === 'send' ? 'sent' : 'chased'}`);
  };
  const reading = asking && what === 'chase';
  useKey('Ctrl+Enter', MAIN[what ?? 'send'], () => void main(), chosen.length > 0 && what !== undefined && !reading);
  useKey('Escape', 'Clear selection', putBack, chosen.length > 0 && !reading);
  return (
    <>
      {rows.length === 0 ? (
        children
      ) : (
        <OrdersTable
          rows={rows}
          list={list}
          picks={
            may('send orders')
              ? { picked, onPick: pick, may: (o) => sendable(o) || owing(o), words: (o) => `Select ${o.number}` }
              : undefined
          }
        />
      )}
      {reading && (
        <ChaseSlip
          numbers={chosen.map((o) => o.number)}
          busy={doing !== undefined}
          onSend={() => void main()}
          onClose={() => setAsking(false)}
        />
      )}
      <Shelf
        fault={faults.join(' · ') || undefined}
        facts={
          doing !== undefined ? (
            <Fact strong>
              {what === 'chase' ? 'Chasing' : 'Sending'} {doing.at} of {counted(doing.of, 'order')}
            </Fact>
          ) : chosen.length === 0 ? (
            <Fact>{unsent === 0 ? 'All orders shown have been sent' : `${unsent} not sent yet`}</Fact>
          ) : (
            <>
              <Fact strong>{counted(chosen.length, 'order')} selected</Fact>
              {asking && what === 'send' && <Fact>Each is emailed to its supplier as a PDF</Fact>}
              {what === undefined && (
                <Fact warn>Your selection mixes sent and unsent orders: select one or the other</Fact>
              )}
            </>
          )
        }
      >
        {chosen.length > 0 && (
          <>
            <ShelfPlain onClick={putBack} hint="Esc">
              {asking ? 'Cancel' : 'Clear selection'}
            </ShelfPlain>
            {may('see money') && (
              <a
                href={`/print?orders=${chosen.map((o) => o.id).join(',')}`}
                target="_blank"
                rel="noreferrer"
                className="btn btn-shelf max-phone:hidden"
              >
                Print
              </a>
            )}
            <ShelfMain disabled={doing !== undefined || what === undefined} onClick={() => void main()} hint="Ctrl ↵">
              {asking && what === 'send'
                ? 'Send now'
                : `${what === 'chase' ? 'Chase' : 'Send'} ${counted(chosen.length, 'order')}`}
            </ShelfMain>
          </>
        )}
        {chosen.length === 0 && may('draft orders') && (
          <Link href="/gather" className="btn btn-main h-[38px]">
            Gather
          </Link>
        )}
      </Shelf>
    </>
  );
}
