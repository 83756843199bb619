'use client';

import { isCharge } from '@/core/orders/kinds';
import Link from '@/ui/kit/Link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { toast } from 'sonner';
import { formatMoney, minor } from '@/core/money/money';
import { AWAITED, BILLABLE, canMove, dueOf, OPEN_AT_SUPPLIER, progressOf } from '@/core/orders/states';
import { headroomOf } from '@/core/tab/sums';
import type { NextAct } from '@/queries/orders/nextAct';
import type { OrderView } from '@/queries/orders/order';
import { later } from '@/ui/acting/later';
import { useKey } from '@/ui/frame/keys';
import { Fact, Shelf, ShelfMain, ShelfNext, ShelfPlain } from '@/ui/kit/Shelf';
import { counted } from '@/core/words';
import { makeKey, useAct, useOnce } from '@/ui/acting/useAct';
import { useYard } from '@/ui/frame/YardContext';
import { acts, chaseOrder, markSentByHand, sendOrder } from '../../../actions';
import { AskForSignOff, WithSignOff } from './OrderSigning';
import { CallOff } from './OrderEnding';

const Answer = later(() => import('./Answer'));

/** What is typed into a draft and not saved. */
export type Typed = {
  readonly changes: number;
  readonly words: string;
  readonly total: string;
  readonly busy: boolean;
  /** The version that it was saved as, while the page does not show that yet. */
  readonly saved: number | undefined;
  readonly fault: string | undefined;
  /** Answers the version that was saved; undefined when it was not. */
  readonly onSave: () => Promise<number | undefined>;
  readonly onPutBack: () => void;
};

/** The next step of an order, whatever its state. Sending asks once more, on the shelf itself. */
export function OrderShelf({ view, typed, next }: { view: OrderView; typed?: Typed; next?: NextAct | undefined }) {
  const { order, supplier, totals } = view;
  const { may } = useYard();
  const router = useRouter();
  const [asking, setAsking] = useState(false);
  const [ending, setEnding] = useState<'callOff' | 'answer'>();
  const once = useOnce();
  const ref = { orderId: order.id, version: order.version };
  const send = useAct(sendOrder, {
    onDone: ({ came, recipient, number }) => {
      once.renew();
      setAsking(false);
      const sent = revising === undefined ? number : `Revision ${revising.number} of ${number}`;
      if (came === 'taken') toast.success(`${sent} sent to ${recipient}`);
      else if (came === 'failed') toast.error(`${sent} was not sent: the email to ${recipient} failed`);
      else toast.error(`${sent} may have reached ${recipient}`);
    },
  });
  const byHand = useAct(markSentByHand, {
    said: ({ number }) => `${number} marked as sent by hand`,
    onDone: () => setAsking(false),
  });
  const hold = useAct(acts.holdOrder);
  /** Holding is undone where it was done, for a while. */
  const holdOpen = async (on: boolean) => {
    if (!(await hold.run({ ...ref, hold: on }))) return;
    const undo = () => void hold.run({ orderId: order.id, version: order.version + 1, hold: !on });
    toast(on ? `${order.number} held open` : `Drafting of ${order.number} resumed`, {
      action: { label: 'Undo', onClick: undo },
    });
  };
  const { revising } = view;
  const chase = useAct(chaseOrder, {
    said: ({ came, recipient, answer }) =>
      came === 'taken' ? `${recipient} chased` : `The chaser to ${recipient} wasn’t sent: ${answer}`,
  });
  const drop = useAct(acts.dropRevision, {
    said: () => `Revision ${revising?.number} discarded: the order as sent still stands`,
  });
  const again = useAct(acts.draftAgain, { said: () => `${order.number} reopened as draft` });
  const unsent = canMove(order.state, 'beginSending');
  const out = OPEN_AT_SUPPLIER.includes(order.state);
  const sends = unsent || revising !== undefined;
  const { signing } = view;
  const round = signing?.round ?? null;
  const lacks = signing?.missing === true;
  const maySend = may('send orders') && sends && !lacks && round === null && signing?.forbidden !== true;
  const mayAsk = may('draft orders') && sends && lacks && round === null && !signing.forbidden;
  const mayHaveArrived = view.mail?.state === 'unknown';
  const owes = order.lines.some((l) => !isCharge(l) && dueOf(progressOf(l)) > 0);
  const unsaved = typed !== undefined && typed.changes > 0 && typed.saved === undefined;
  const latest = typed?.saved ?? order.version;
  /** What is typed is saved first, so that what is seen is what goes. */
  const sendWith = async (go: (version: number) => Promise<boolean>) => {
    const version = unsaved ? await typed.onSave() : latest;
    if (version === undefined) setAsking(false);
    else await go(version);
  };
  const sendNow = () =>
    void sendWith((version) => send.run({ once: once.key(), ...ref, version, again: mayHaveArrived }));
  const sentByHand = () => void sendWith((version) => byHand.run({ once: `${once.key()}-hand`, ...ref, version }));
  const save = () => void typed?.onSave();
  const saves = unsaved && !asking;
  useKey('Ctrl+Enter', 'Save', save, saves && typed?.busy === false);
  useKey(
    'Ctrl+Enter',
    asking ? 'Send now' : 'Send',
    () => (asking ? sendNow() : setAsking(true)),
    maySend && !send.busy && !saves,
  );
  useKey('Ctrl+Enter', 'Request sign-off', () => setAsking(true), mayAsk && !asking && !saves);
  useKey('Escape', 'Cancel', () => setAsking(false), asking);
  const over = !sends ? [] : view.effects.filter((e) => headroomOf(e.after) < 0);
  const running = [send, byHand, hold, chase, drop, again];
  const clash = running.find((a) => a.clash !== undefined)?.clash;
  const told = clash
    ? `${clash.message} This is the latest version: check it, then try again.`
    : running.flatMap((a) => a.refusals)[0]?.message;
  const fault = told ?? typed?.fault;
  const first = over[0];
  if (asking && mayAsk && signing !== undefined)
    return (
      <AskForSignOff
        order={order}
        signing={signing}
        version={async () => (unsaved ? typed.onSave() : latest)}
        onClose={() => setAsking(false)}
      />
    );
  const facts = (
    <>
      <Fact strong>
        <span className="mono">{order.number}</span>
      </Fact>
      <Fact strong>{typed?.total ?? formatMoney(totals.gross, order.currency)}</Fact>
      {asking && mayHaveArrived ? (
        <Fact warn>may have arrived: ask {supplier.name} before sending again</Fact>
      ) : asking ? (
        <Fact>
          {unsaved && `${counted(typed.changes, 'unsaved change')} saved first · `}emailed{goesWith(view)} to{' '}
          {view.recipients.join(', ') || 'no email address: add one to the supplier, or mark as sent by hand'}
        </Fact>
      ) : first ? (
        <Fact warn>
          {first.job} {first.codeName} goes {formatMoney(minor(-headroomOf(first.after)), view.companyCurrency)} over
        </Fact>
      ) : (
        !unsaved && <Fact>{nextWords(order.state)}</Fact>
      )}
      {unsaved && !asking && <Fact>{typed.words}</Fact>}
    </>
  );
  return (
    <>
      <Shelf facts={facts} fault={fault}>
        {asking ? (
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
        ) : (
          <>
            {unsaved && <ShelfPlain onClick={typed.onPutBack}>Discard changes</ShelfPlain>}
            {!unsaved && may('draft orders') && canMove(order.state, 'holdOpen') && (
              <ShelfPlain disabled={hold.busy} onClick={() => void holdOpen(true)}>
                Hold open
              </ShelfPlain>
            )}
            {!unsaved && may('draft orders') && canMove(order.state, 'takeUp') && (
              <ShelfPlain disabled={hold.busy} onClick={() => void holdOpen(false)}>
                Resume drafting
              </ShelfPlain>
            )}
            {!unsaved && unsent && may('draft orders') && canMove(order.state, 'callOff') && (
              <ShelfPlain onClick={() => setEnding('callOff')}>Cancel order</ShelfPlain>
            )}
            {order.state === 'calledOff' && order.sentOn === null && may('draft orders') && (
              <ShelfMain disabled={again.busy} onClick={() => void again.run(ref)}>
                Reopen as draft
              </ShelfMain>
            )}
            {round !== null && <WithSignOff view={view} />}
            {!unsaved && revising !== undefined && round === null && may('draft orders') && (
              <ShelfPlain disabled={drop.busy} onClick={() => void drop.run(ref)}>
                Discard revision
              </ShelfPlain>
            )}
            {out && revising === undefined && may('send orders') && (
              <>
                {owes && (
                  <ShelfPlain
                    disabled={chase.busy}
                    onClick={() => void chase.run({ once: makeKey(), orderId: order.id })}
                  >
                    {chase.busy ? 'Chasing…' : 'Chase'}
                  </ShelfPlain>
                )}
                <ShelfPlain onClick={() => setEnding('answer')}>Record confirmation</ShelfPlain>
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
              <ShelfMain disabled={typed.busy} onClick={save} hint="Ctrl ↵">
                {typed.busy ? 'Saving…' : 'Save'}
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
        )}
      </Shelf>
      {ending === 'callOff' && <CallOff view={view} onClose={() => setEnding(undefined)} />}
      {ending === 'answer' && <Answer view={view} onClose={() => setEnding(undefined)} />}
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
    calledOff: 'cancelled',
  }[state];
}
