'use client';

import { useState } from 'react';
import type { HistoryRow } from '@/queries/job';
import type { loadOrderForm, OrderView } from '@/queries/orders';
import { Sheet } from '@/ui/kit/Sheet';
import { OrderAside } from './OrderAside';
import { OrderForm } from './OrderForm';
import { OrderHead } from './OrderHead';
import { OrderLines } from './OrderLines';
import { OrderShelf } from './OrderShelf';

export type OrderFormChoices = Awaited<ReturnType<typeof loadOrderForm>>;
type Props = {
  readonly view: OrderView;
  readonly form: OrderFormChoices | undefined;
  readonly history: readonly HistoryRow[];
};

export function OrderPage({ view, form, history }: Props) {
  const [changing, setChanging] = useState(false);
  const editing = changing && form !== undefined;
  return (
    <Sheet aside={<OrderAside view={view} history={history} />}>
      <OrderHead view={view} editing={editing} />
      {editing ? (
        <OrderForm view={view} choices={form} onClose={() => setChanging(false)} />
      ) : (
        <>
          <OrderLines view={view} />
          <OrderShelf view={view} onChange={() => setChanging(true)} />
        </>
      )}
    </Sheet>
  );
}
