'use client';

import { useState } from 'react';
import { toast } from 'sonner';
import { canMove } from '@/core/orders/states';
import type { OrderView } from '@/queries/orders/order';
import { useAct, useOnce } from '@/ui/acting/useAct';
import { useKey } from '@/ui/frame/keys';
import { useYard } from '@/ui/frame/YardContext';
import { acts, chaseOrder, markSentByHand, sendOrder } from '../../../actions';

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

/** What can be done with an order where it stands. Sending asks once more: `asking` until that is answered. */
export function useOrderSteps(view: OrderView, typed: Typed | undefined) {
  const { order, revising, signing } = view;
  const { may } = useYard();
  const [asking, setAsking] = useState(false);
  const [chasing, setChasing] = useState(false);
  const once = useOnce();
  const ref = { orderId: order.id, version: order.version };
  const send = useAct(sendOrder, {
    onDone: ({ came, recipient, number, notTo }) => {
      once.renew();
      setAsking(false);
      const sent = revising === undefined ? number : `Revision ${revising.number} of ${number}`;
      if (came === 'taken' && notTo.length > 0)
        toast.error(`${sent} was sent, but not delivered to ${notTo.join(', ')}. Check the address.`);
      else if (came === 'taken') toast.success(`${sent} sent to ${recipient}`);
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
  const chase = useAct(chaseOrder, {
    said: ({ came, recipient, answer, notTo }) =>
      came === 'taken' && notTo.length > 0
        ? `Chased, but not delivered to ${notTo.join(', ')}. Check the address.`
        : came === 'taken'
          ? `${recipient} chased`
          : `The chaser to ${recipient} wasn’t sent: ${answer}`,
    onDone: () => {
      once.renew();
      setChasing(false);
    },
  });
  const chaseNow = () => void chase.run({ once: `${once.key()}-chase`, orderId: order.id });
  const drop = useAct(acts.dropRevision, {
    said: () => `Revision ${revising?.number} discarded: the order as sent still stands`,
  });
  const again = useAct(acts.draftAgain, { said: () => `${order.number} reopened as draft` });
  const unsent = canMove(order.state, 'beginSending');
  const sends = unsent || revising !== undefined;
  const round = signing?.round ?? null;
  const lacks = signing?.missing === true;
  const maySend = may('send orders') && sends && !lacks && round === null && signing?.forbidden !== true;
  const mayAsk = may('draft orders') && sends && lacks && round === null && !signing.forbidden;
  const mayHaveArrived = view.mail?.state === 'unknown';
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
  const running = [send, byHand, hold, chase, drop, again];
  const clash = running.find((a) => a.clash !== undefined)?.clash;
  const told = clash
    ? `${clash.message} This is the latest version: check it, then try again.`
    : running.flatMap((a) => a.refusals)[0]?.message;
  return {
    ...{
      asking,
      setAsking,
      chasing,
      setChasing,
      chaseNow,
      unsent,
      sends,
      round,
      maySend,
      mayAsk,
      mayHaveArrived,
      unsaved,
      latest,
    },
    ...{ ref, send, byHand, hold, chase, drop, again, holdOpen, sendNow, sentByHand, save },
    fault: told ?? typed?.fault,
  };
}
