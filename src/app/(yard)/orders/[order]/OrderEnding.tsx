'use client';

import { useState } from 'react';
import { isAsConfirmed } from '@/core/orders/confirming';
import type { OrderView } from '@/queries/order';
import { ReasonQuestion } from '@/ui/kit/Reason';
import { useAct, useOnce } from '@/ui/useAct';
import { beginRevision, callOff } from '../../../acts';
import { Ahead } from './Ahead';

type Props = { readonly view: OrderView; readonly onClose: () => void };

/** Calls the whole order off. */
export function CallOff({ view, onClose }: Props) {
  const { order } = view;
  const once = useOnce();
  const act = useAct(callOff, {
    said: () => `${order.number} is called off`,
    onDone: onClose,
  });
  const tell = order.sentOn === null ? '' : ' Tell the supplier too: this sends nothing.';
  return (
    <ReasonQuestion
      title={`Call off ${order.number}?`}
      words={`What it would have covered goes back to the buy lists, and its money is free again.${tell}`}
      keep="Keep the order"
      go="Call off"
      act={act}
      onClose={onClose}
      onGo={(reason) => void act.run({ once: once.key(), orderId: order.id, version: order.version, reason })}
    >
      <Ahead number={order.number} what="callOff" lineId={null} />
    </ReasonQuestion>
  );
}

/** Begins a revision of an order that was sent. */
export function Revise({ view, onClose }: Props) {
  const { order } = view;
  const once = useOnce();
  const answered = order.lines.some(
    (l) => l.kind !== 'charge' && l.confirmed !== null && l.confirmed > 0 && !isAsConfirmed(l, l),
  );
  const [asConfirmed, setAsConfirmed] = useState(answered);
  const act = useAct(beginRevision, {
    said: () => `Revision ${order.revision + 1} of ${order.number} is begun`,
    onDone: onClose,
  });
  return (
    <ReasonQuestion
      title={`Revise ${order.number}?`}
      words="Change it where it stands. Nothing moves on the jobs, and the supplier knows nothing, until the revision is sent."
      label="Why it is revised, as the supplier reads it"
      keep="Leave it as it is"
      go="Begin the revision"
      act={act}
      onClose={onClose}
      onGo={(reason) =>
        void act.run({ once: once.key(), orderId: order.id, version: order.version, reason, asConfirmed })
      }
    >
      {answered && (
        <label className="mb-3 flex items-center gap-2">
          <input
            type="checkbox"
            className="box"
            checked={asConfirmed}
            onChange={(e) => setAsConfirmed(e.target.checked)}
          />
          Begin with what {view.supplier.name} confirmed: quantities, prices and days
        </label>
      )}
    </ReasonQuestion>
  );
}
