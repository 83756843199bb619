import { ORDER_STATE_NAMES, type OrderState } from '@/core/orders/states';

const LOOK: Readonly<Partial<Record<OrderState, string>>> = {
  settled: 'tag-good',
  allIn: 'tag-good',
  calledOff: '',
  partIn: 'tag-care',
};

/** An order's state as a word in an outline. */
export function StateTag({ state, failed = false }: { state: OrderState; failed?: boolean }) {
  const unsent = state === 'drafting' || state === 'heldOpen' || state === 'readyToSend';
  return (
    <>
      <span className={`tag ${LOOK[state] ?? ''}`}>{ORDER_STATE_NAMES[state]}</span>
      {failed && unsent && <span className="tag tag-stop ml-1">mail failed</span>}
    </>
  );
}
