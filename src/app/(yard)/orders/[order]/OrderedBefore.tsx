'use client';

import { useState } from 'react';
import { formatPrice, signOf } from '@/core/money/money';
import { formatQuantity } from '@/core/quantity/quantity';
import { unitOf } from '@/core/quantity/units';
import type { OrderView } from '@/queries/orders/order';
import type { OrderedBefore as Before } from '@/queries/orders/orderedBefore';
import { Slip } from '@/ui/kit/Slip';
import { useAnswer } from '@/ui/acting/useAnswer';
import { useYard } from '@/ui/frame/YardContext';

type Props = { readonly view: OrderView; readonly onAgain: (line: Before) => void; readonly onClose: () => void };

/** What was ordered of this supplier before, to be ordered again line by line. */
export default function OrderedBefore({ view, onAgain, onClose }: Props) {
  const { order, supplier } = view;
  const { day } = useYard();
  const [words, setWords] = useState('');
  const [taken, setTaken] = useState<ReadonlySet<number>>(new Set());
  const found = useAnswer<readonly Before[]>(`/orders/${order.number}/before?words=${encodeURIComponent(words)}`);
  return (
    <Slip open onClose={onClose} title={`Ordered from ${supplier.name} before`} detail="Today’s price, last quantity.">
      <input
        type="search"
        aria-label="Item or number"
        placeholder="Item or number"
        className="field mb-2"
        value={words}
        onChange={(e) => setWords(e.target.value)}
      />
      {found?.length === 0 && (
        <p className="text-ink-2">{words === '' ? 'Nothing ordered from them yet.' : 'No match.'}</p>
      )}
      <ul aria-label="Ordered before">
        {found?.map((l) => (
          <li key={l.lineId} className="flex items-start justify-between gap-3 border-b border-line-2 py-2">
            <span className="min-w-0">
              <b className="font-semibold">{l.description}</b> <span className="mono text-ink-2">{l.number}</span>
              <span className="block text-[12.5px] text-ink-2">
                {formatQuantity(l.quantity)} {unitOf(l.unit).short}
                {l.price !== null &&
                  ` at ${signOf(l.currency)}\u202f${formatPrice(l.price, l.currency)}${l.priceQuantity > 1 ? ` per ${l.priceQuantity}` : ''}`}
                , {day(l.on)} on {l.order}
                {l.times > 1 && `ordered ${l.times} times`}
              </span>
            </span>
            {taken.has(l.lineId) ? (
              <span className="tag tag-good">On this order</span>
            ) : (
              <button
                type="button"
                className="step"
                aria-label={`Add ${l.description}`}
                onClick={() => {
                  onAgain(l);
                  setTaken((now) => new Set([...now, l.lineId]));
                }}
              >
                Add
              </button>
            )}
          </li>
        ))}
      </ul>
    </Slip>
  );
}
