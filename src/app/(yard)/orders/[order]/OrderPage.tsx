'use client';

import type { HistoryRow } from '@/queries/company/history';
import type { NextAct } from '@/queries/orders/nextAct';
import type { OrderView } from '@/queries/orders/order';
import { Sheet } from '@/ui/kit/Sheet';
import { GoesWith } from './GoesWith';
import { OrderAside } from './OrderAside';
import { OrderDraft } from './OrderDraft';
import { OrderHead, Terms } from './OrderHead';
import { OrderLines } from './OrderLines';
import { OrderShelf } from './OrderShelf';
import type { OrderFormChoices } from './useOrderDraft';

type Props = {
  readonly view: OrderView;
  /** What changing it offers; undefined when it may not be changed. */
  readonly form: OrderFormChoices | undefined;
  readonly history: readonly HistoryRow[];
  /** What is done next once it is sent. */
  readonly next: NextAct | undefined;
};

export function OrderPage({ view, form, history, next }: Props) {
  if (form !== undefined) return <OrderDraft view={view} form={form} history={history} />;
  return (
    <Sheet aside={<OrderAside view={view} history={history} />}>
      <OrderHead view={view} />
      <Terms view={view} />
      <OrderLines view={view} />
      <GoesWith view={view} />
      <OrderShelf view={view} next={next} />
    </Sheet>
  );
}
