'use client';

import { useRouter } from 'next/navigation';
import { toast } from 'sonner';
import { makeKey, useAct } from '@/ui/acting/useAct';
import { acts } from '../../../actions';

type Drafted = { readonly id: number; readonly number: string; readonly version: number; readonly joined: boolean };

function inThePast(orders: readonly Drafted[]): string {
  const numbers = (joined: boolean) => orders.flatMap((o) => (o.joined === joined ? o.number : [])).join(', ');
  const [drafted, added] = [numbers(false), numbers(true)];
  if (drafted === '') return `Added to ${added}`;
  return `Drafted ${drafted}${added === '' ? '' : `, added to ${added}`}`;
}

/**
 * Says what was drafted, with a way to undo it.
 * @param back - where that leads
 */
export function useTellDrafted(back: string) {
  const router = useRouter();
  const undoing = useAct(acts.cancelOrder, { said: () => 'Draft cancelled: nothing is ordered' });
  return (orders: readonly Drafted[]) => {
    const undo = async () => {
      for (const o of orders)
        await undoing.run({ once: makeKey(), orderId: o.id, version: o.version, reason: 'drafted by mistake' });
      router.push(back);
    };
    // Lines that joined a draft are taken off it where they stand.
    const action = orders.some((o) => o.joined) ? {} : { action: { label: 'Undo', onClick: () => void undo() } };
    toast.success(inThePast(orders), action);
  };
}
