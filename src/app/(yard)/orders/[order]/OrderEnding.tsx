'use client';

import { isCharge } from '@/core/orders/kinds';
import { useState } from 'react';
import { isAsConfirmed } from '@/core/orders/confirming';
import type { OrderView } from '@/queries/orders/order';
import { ReasonQuestion } from '@/ui/kit/Reason';
import { useAct, useOnce } from '@/ui/acting/useAct';
import { acts } from '../../../actions';
import { Ahead } from './Ahead';

type Props = { readonly view: OrderView; readonly onClose: () => void };

/** Calls the whole order off. */
export function CancelOrder({ view, onClose }: Props) {
  const { order } = view;
  const once = useOnce();
  const act = useAct(acts.cancelOrder, {
    said: () => `Order ${order.number} cancelled`,
    onDone: onClose,
  });
  const tell = order.sentOn === null ? '' : ' Tell the supplier yourself: no email is sent.';
  return (
    <ReasonQuestion
      title={`Cancel ${order.number}?`}
      words={`Its lines go back to the buy lists and the money is freed.${tell}`}
      keep="Keep order"
      go="Cancel order"
      act={act}
      onClose={onClose}
      onGo={(reason) => void act.run({ once: once.key(), orderId: order.id, version: order.version, reason })}
    >
      <Ahead number={order.number} what="cancel" lineId={null} />
    </ReasonQuestion>
  );
}

/** Begins a revision of an order that was sent. */
export function Revise({ view, onClose }: Props) {
  const { order } = view;
  const once = useOnce();
  const answered = order.lines.some(
    (l) => !isCharge(l) && l.confirmed !== null && l.confirmed > 0 && !isAsConfirmed(l, l),
  );
  const [asConfirmed, setAsConfirmed] = useState(answered);
  const act = useAct(acts.beginRevision, {
    said: () => `Revision ${order.revision + 1} of ${order.number} started`,
    onDone: onClose,
  });
  return (
    <ReasonQuestion
      title={`Revise ${order.number}?`}
      words="Edit the order as it is. Job budgets and the supplier see nothing until you send the revision."
      label="Reason for revision (the supplier reads this)"
      keep="Cancel"
      go="Start revision"
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
          Start from the quantities, prices and dates {view.supplier.name} confirmed
        </label>
      )}
    </ReasonQuestion>
  );
}
