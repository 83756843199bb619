import { ORDER_STATE_NAMES, SENDABLE, type OrderState } from '@/core/orders/states';
import type { MessageState } from '@/store/tables';

const LOOK: Readonly<Partial<Record<OrderState, string>>> = {
  settled: 'tag-good',
  allIn: 'tag-good',
  cancelled: '',
  partIn: 'tag-care',
};

const MAIL: Readonly<Partial<Record<MessageState, string>>> = { failed: 'email failed', unknown: 'may have arrived' };

/** An order's state as a word in an outline; before it is sent, with what became of its mail. */
export function StateTag({ state, mail = null }: { state: OrderState; mail?: MessageState | null }) {
  const trouble = mail !== null && SENDABLE.includes(state) ? MAIL[mail] : undefined;
  return (
    <>
      <span className={`tag ${LOOK[state] ?? ''}`}>{ORDER_STATE_NAMES[state]}</span>
      {trouble !== undefined && <span className="tag tag-stop ml-1">{trouble}</span>}
    </>
  );
}
