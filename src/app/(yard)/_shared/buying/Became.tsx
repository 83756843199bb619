'use client';

import { ORDER_STATE_NAMES } from '@/core/orders/states';
import { formatQuantity } from '@/core/quantity/quantity';
import { unitOf } from '@/core/quantity/units';
import type { Became as Told } from '@/queries/buying/atHand';
import Link from '@/ui/kit/Link';
import { Faults } from '@/ui/kit/Field';
import { useAct, useOnce } from '@/ui/acting/useAct';
import { useAnswer } from '@/ui/acting/useAnswer';
import { useYard } from '@/ui/frame/YardContext';
import { acts } from '../../../actions';

type Props = { readonly needId: number; readonly onDone: () => void };

/** The orders that a line of a buy list stands on; from one that is still drafted it can be put back. */
export function Became({ needId, onDone }: Props) {
  const { day, may } = useYard();
  const told = useAnswer<readonly Told[]>(`/needs/${needId}/became`);
  const once = useOnce();
  const act = useAct(acts.putBack, { said: () => 'Back on the buy list', onDone });
  if (told === undefined || told.length === 0) return null;
  return (
    <section aria-labelledby="became" className="mt-5">
      <h3 id="became" className="text-[15px]">
        What was done with it
      </h3>
      <Faults messages={act.clash ? [act.clash.message] : act.refusals.map((r) => r.message)} />
      <ul>
        {told.map((o) => (
          <li key={o.orderId} className="flex items-start justify-between gap-3 border-b border-line-2 py-2">
            <span>
              <Link href={`/orders/${o.order}`} className="mono font-semibold hover:underline">
                {o.order}
              </Link>{' '}
              {o.supplier} <span className="tag">{ORDER_STATE_NAMES[o.state]}</span>
              <span className="block text-[12.5px] text-ink-2">
                {formatQuantity(o.quantity)} {unitOf(o.unit).short}
                {o.received > 0 && `, ${formatQuantity(o.received)} received`}
                {o.on !== null && !o.drafted && `, expected ${day(o.on)}`} · by {o.by}
              </span>
            </span>
            {o.drafted && may('draft orders') && (
              <button
                type="button"
                className="step"
                disabled={act.busy}
                onClick={() =>
                  void act.run({ once: once.key(), orderId: o.orderId, version: o.version, needIds: [needId] })
                }
              >
                Return to buy list
              </button>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}
