'use client';

import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { formatMoney } from '@/core/money/money';
import { together } from '@/core/words';
import type { OrderView } from '@/queries/orders/order';
import type { SignView } from '@/queries/signoff/signOff';
import { useKey } from '@/ui/frame/keys';
import { Fact, Shelf, ShelfMain, ShelfPlain } from '@/ui/kit/Shelf';
import { makeKey, useAct, useOnce } from '@/ui/acting/useAct';
import { useYard } from '@/ui/frame/YardContext';
import { acts } from '../../../actions';

type Props = {
  readonly order: Pick<OrderView['order'], 'id' | 'number'>;
  readonly signing: SignView;
  /** Saves what is typed; the version that is asked for, or undefined when it was not saved. */
  readonly version: () => Promise<number | undefined>;
  readonly onClose: () => void;
};

/** Asks for the signatures that an order lacks, with a word for those who sign. */
export function AskForSignOff({ order, signing, version, onClose }: Props) {
  const { currency } = useYard();
  const once = useOnce();
  const [note, setNote] = useState('');
  const act = useAct(acts.requestSignOff, { said: () => `Sign-off of ${order.number} requested`, onDone: onClose });
  const go = async () => {
    const saved = await version();
    if (saved !== undefined) await act.run({ once: once.key(), orderId: order.id, version: saved, note });
  };
  useKey('Ctrl+Enter', 'Send request', () => void go(), !act.busy);
  useKey('Escape', 'Cancel', onClose);
  const who = together(signing.steps.filter((s) => s.state !== 'signed').map((s) => s.who));
  const fault = act.clash
    ? `${act.clash.message} This is the latest version: check it, then try again.`
    : act.refusals[0]?.message;
  return (
    <Shelf
      fault={fault}
      facts={
        <>
          <Fact strong>
            <span className="mono">{order.number}</span> {formatMoney(signing.value, currency)}
          </Fact>
          <Fact>to be signed by {who}</Fact>
          <input
            className="min-w-[240px] flex-1 rounded-md border border-[#5d6d70] bg-transparent px-3 py-1.5 text-on-rim placeholder:text-on-rim-2"
            aria-label="Note to signatories"
            placeholder="Note to signatories"
            maxLength={300}
            value={note}
            autoFocus
            onChange={(e) => setNote(e.target.value)}
          />
        </>
      }
    >
      <ShelfPlain onClick={onClose} hint="Esc">
        Cancel
      </ShelfPlain>
      <ShelfMain disabled={act.busy} onClick={() => void go()} hint="Ctrl ↵">
        {act.busy ? 'Requesting…' : 'Send request'}
      </ShelfMain>
    </Shelf>
  );
}

/** What can be done with an order while it is with sign-off. */
export function WithSignOff({ view: { order, signing } }: { readonly view: OrderView }) {
  const { may } = useYard();
  const router = useRouter();
  const back = useAct(acts.withdrawSignOff, { said: () => `${order.number} withdrawn: you can change it` });
  const remind = useAct(acts.remindSigners, {
    said: ({ told }) => (told === 1 ? 'Signatory reminded' : `${told} signatories reminded`),
  });
  const mine = signing?.steps.find((s) => s.mine !== null);
  const look = () => router.push(`/sign/${order.number}`);
  useKey('Ctrl+Enter', 'Review and sign', look, mine !== undefined);
  return (
    <>
      {may('draft orders') && (
        <>
          <ShelfPlain disabled={back.busy} onClick={() => void back.run({ orderId: order.id, version: order.version })}>
            Withdraw
          </ShelfPlain>
          <ShelfPlain
            disabled={remind.busy}
            onClick={() => void remind.run({ once: makeKey(), orderId: order.id, version: order.version })}
          >
            Remind
          </ShelfPlain>
        </>
      )}
      {mine !== undefined && (
        <ShelfMain onClick={look} hint="Ctrl ↵">
          Review and sign
        </ShelfMain>
      )}
    </>
  );
}
