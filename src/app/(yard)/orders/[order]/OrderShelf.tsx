'use client';

import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { formatMoney, minor } from '@/core/money/money';
import { isCharge } from '@/core/orders/kinds';
import { draftAgainFault } from '@/core/orders/rules';
import { AWAITED, BILLABLE, canMove, dueOf, OPEN_AT_SUPPLIER, progressOf } from '@/core/orders/states';
import { headroomOf } from '@/core/tab/sums';
import { counted } from '@/core/words';
import type { NextAct } from '@/queries/orders/nextAct';
import type { OrderView } from '@/queries/orders/order';
import { later } from '@/ui/acting/later';
import { useYard } from '@/ui/frame/YardContext';
import Link from '@/ui/kit/Link';
import { Fact, Shelf, ShelfMain, ShelfNext, ShelfPlain } from '@/ui/kit/Shelf';
import { AskForSignOff, WithSignOff } from './OrderSigning';
import { CancelOrder } from './OrderEnding';
import { useOrderSteps, type Typed } from './useOrderSteps';

const Answer = later(() => import('./Answer'));
const ChaseSlip = later(() => import('../ChaseSlip'));

type Ending = 'cancel' | 'answer';
type Props = { readonly view: OrderView; readonly typed?: Typed; readonly next?: NextAct | undefined };

/** The next step of an order, whatever its state. Sending asks once more, on the shelf itself. */
export function OrderShelf({ view, typed, next }: Props) {
  const order = useOrderSteps(view, typed);
  const [ending, setEnding] = useState<Ending>();
  const { asking, setAsking } = order;
  if (asking && order.mayAsk && view.signing !== undefined)
    return (
      <AskForSignOff
        order={view.order}
        signing={view.signing}
        version={async () => (order.unsaved ? typed?.onSave() : order.latest)}
        onClose={() => setAsking(false)}
      />
    );
  return (
    <>
      <Shelf facts={<OrderFacts view={view} typed={typed} order={order} />} fault={order.fault}>
        {asking ? (
          <AskedOnceMore {...order} />
        ) : (
          <OrderSteps view={view} typed={typed} next={next} order={order} onEnding={setEnding} />
        )}
      </Shelf>
      {order.chasing && (
        <ChaseSlip
          numbers={[view.order.number]}
          busy={order.chase.busy}
          onSend={order.chaseNow}
          onClose={() => order.setChasing(false)}
        />
      )}
      {ending === 'cancel' && <CancelOrder view={view} onClose={() => setEnding(undefined)} />}
      {ending === 'answer' && <Answer view={view} onClose={() => setEnding(undefined)} />}
    </>
  );
}

type Order = ReturnType<typeof useOrderSteps>;

/** Before an order leaves the house, it is asked once more. */
function AskedOnceMore({ setAsking, send, byHand, mayHaveArrived, unsaved, sendNow, sentByHand }: Order) {
  return (
    <>
      <ShelfPlain onClick={() => setAsking(false)} hint="Esc">
        Cancel
      </ShelfPlain>
      <ShelfPlain disabled={byHand.busy || send.busy} onClick={sentByHand}>
        {mayHaveArrived ? 'Mark as sent: it arrived' : 'Mark as sent by hand'}
      </ShelfPlain>
      <ShelfMain disabled={send.busy || byHand.busy} onClick={sendNow} hint="Ctrl ↵">
        {send.busy ? 'Sending…' : mayHaveArrived ? 'Send again' : unsaved ? 'Save and send' : 'Send now'}
      </ShelfMain>
    </>
  );
}

type StepsProps = {
  readonly view: OrderView;
  readonly typed: Typed | undefined;
  readonly next: NextAct | undefined;
  readonly order: Order;
  readonly onEnding: (ending: Ending) => void;
};

/** What may be done with an order in its state, by this person. */
function OrderSteps({ view, typed, next, order: steps, onEnding }: StepsProps) {
  const { order, revising } = view;
  const { may } = useYard();
  const router = useRouter();
  const { setAsking, unsent, round, maySend, mayAsk, unsaved, hold, chase, drop, again } = steps;
  const out = OPEN_AT_SUPPLIER.includes(order.state);
  const owes = order.lines.some((l) => !isCharge(l) && dueOf(progressOf(l)) > 0);
  return (
    <>
      {unsaved && <ShelfPlain onClick={typed?.onPutBack}>Discard changes</ShelfPlain>}
      {!unsaved && may('draft orders') && canMove(order.state, 'holdOpen') && (
        <ShelfPlain disabled={hold.busy} onClick={() => void steps.holdOpen(true)}>
          Hold open
        </ShelfPlain>
      )}
      {!unsaved && may('draft orders') && canMove(order.state, 'takeUp') && (
        <ShelfPlain disabled={hold.busy} onClick={() => void steps.holdOpen(false)}>
          Resume drafting
        </ShelfPlain>
      )}
      {!unsaved && unsent && may('draft orders') && canMove(order.state, 'cancel') && (
        <ShelfPlain onClick={() => onEnding('cancel')}>Cancel order</ShelfPlain>
      )}
      {draftAgainFault(order) === undefined && may('draft orders') && (
        <ShelfMain disabled={again.busy} onClick={() => void again.run(steps.ref)}>
          Reopen as draft
        </ShelfMain>
      )}
      {round !== null && <WithSignOff view={view} />}
      {!unsaved && revising !== undefined && round === null && may('draft orders') && (
        <ShelfPlain disabled={drop.busy} onClick={() => void drop.run(steps.ref)}>
          Discard revision
        </ShelfPlain>
      )}
      {out && revising === undefined && may('send orders') && (
        <>
          {owes && (
            <ShelfPlain disabled={chase.busy} onClick={() => steps.setChasing(true)}>
              Chase…
            </ShelfPlain>
          )}
          <ShelfPlain onClick={() => onEnding('answer')}>Record confirmation</ShelfPlain>
        </>
      )}
      {maySend && unsaved && <ShelfPlain onClick={() => setAsking(true)}>Send…</ShelfPlain>}
      {mayAsk && unsaved && <ShelfPlain onClick={() => setAsking(true)}>Request sign-off…</ShelfPlain>}
      {mayAsk && !unsaved && (
        <ShelfMain onClick={() => setAsking(true)} hint="Ctrl ↵">
          Request sign-off
        </ShelfMain>
      )}
      {maySend && !unsaved && (
        <ShelfMain onClick={() => setAsking(true)} hint="Ctrl ↵">
          {revising === undefined ? 'Send' : `Send revision ${revising.number}`}
        </ShelfMain>
      )}
      {unsaved && (
        <ShelfMain disabled={typed?.busy} onClick={steps.save} hint="Ctrl ↵">
          {typed?.busy ? 'Saving…' : 'Save'}
        </ShelfMain>
      )}
      <ShelfNext next={next} />
      {revising === undefined && BILLABLE.includes(order.state) && may('enter invoices') && (
        <Link className="btn btn-shelf" href={`/invoices/new?order=${order.number}`}>
          Enter invoice
        </Link>
      )}
      {revising === undefined && AWAITED.includes(order.state) && may('receive') && (
        <ShelfMain onClick={() => router.push(`/dock/${order.number}`)}>Receive</ShelfMain>
      )}
    </>
  );
}

type FactsProps = Omit<StepsProps, 'onEnding' | 'next'>;

/** What an order comes to, and what is to be known before its next step. */
function OrderFacts({ view, typed, order: steps }: FactsProps) {
  const { order, supplier, totals } = view;
  const { asking, sends, unsaved, mayHaveArrived } = steps;
  const warned = view.checks.filter((c) => c.atSending);
  const first = sends ? view.effects.find((e) => headroomOf(e.after) < 0) : undefined;
  return (
    <>
      <Fact strong>
        <span className="mono">{order.number}</span>
      </Fact>
      <Fact strong>{typed?.total ?? formatMoney(totals.gross, order.currency)}</Fact>
      {asking && mayHaveArrived ? (
        <Fact warn>may have arrived: ask {supplier.name} before sending again</Fact>
      ) : asking ? (
        <Fact>
          {unsaved && `${counted(typed?.changes ?? 0, 'unsaved change')} saved first · `}emailed{goesWith(view)} to{' '}
          {view.recipients.join(', ') || 'no email address: add one to the supplier, or mark as sent by hand'}
        </Fact>
      ) : first ? (
        <Fact warn>
          {first.job} {first.codeName} goes {formatMoney(minor(-headroomOf(first.after)), view.companyCurrency)} over
        </Fact>
      ) : (
        !unsaved && <Fact>{nextWords(order.state)}</Fact>
      )}
      {asking &&
        warned.map((c) => (
          <Fact key={c.words} warn>
            {c.words}
          </Fact>
        ))}
      {unsaved && !asking && <Fact>{typed?.words}</Fact>}
    </>
  );
}

/** In words, what goes out beside the PDF. */
function goesWith({ files, supplier }: OrderView): string {
  const data = supplier.dataFiles.split(',').filter(Boolean).length;
  const beside = files.length + data;
  return beside === 0 ? ' as a PDF' : ` as a PDF with ${counted(beside, 'file')}`;
}

function nextWords(state: OrderView['order']['state']): string {
  return {
    drafting: 'check, then send',
    heldOpen: 'held open for more lines',
    withSignOff: 'awaiting sign-off',
    readyToSend: 'ready to send',
    sending: 'sending',
    sent: 'sent to the supplier',
    confirmed: 'confirmed by the supplier',
    partIn: 'part received',
    allIn: 'received, awaiting invoice',
    settled: 'received, invoiced and matched',
    cancelled: 'cancelled',
  }[state];
}
