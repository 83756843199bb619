'use client';

import { useRouter } from 'next/navigation';
import { ShelfPlain } from '@/ui/kit/Shelf';
import { useAct, useOnce } from '@/ui/acting/useAct';
import { acts } from '../../../actions';

/** Begins an order to a supplier and opens it. */
export function StartOrder({ supplierId }: { supplierId: number }) {
  const router = useRouter();
  const once = useOnce();
  const act = useAct(acts.startOrder, {
    said: ({ number }) => `Order ${number} drafted`,
    onDone: ({ number }) => {
      once.renew();
      router.push(`/orders/${number}`);
    },
  });
  return (
    <>
      {act.refusals[0] !== undefined && (
        <span role="alert" className="text-[13px] text-[#f3b4a8]">
          {act.refusals[0].message}
        </span>
      )}
      <ShelfPlain onClick={() => void act.run({ once: once.key(), supplierId })}>New order</ShelfPlain>
    </>
  );
}
