'use client';

import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { measured } from '@/core/quantity/units';
import { counted } from '@/core/words';
import type { StockRow } from '@/queries/stores/stores';
import { useAct, useOnce } from '@/ui/acting/useAct';
import { useKey } from '@/ui/frame/keys';
import { Fact, RowKeys, Shelf, ShelfMain, ShelfPlain } from '@/ui/kit/Shelf';
import type { Key } from '@/ui/ledger/column';
import type { Listed } from '@/ui/ledger/Listed';
import { acts } from '../../actions';
import { useTellDrafted } from '../_shared/buying/useTellDrafted';
import { StockTable } from './StockTable';

/** What is below its minimum, picked and ordered up to it from whom each item is bought. */
export function LowStock({ rows, list }: { readonly rows: readonly StockRow[]; readonly list: Listed }) {
  const router = useRouter();
  const once = useOnce();
  const [picked, setPicked] = useState<ReadonlySet<Key>>(new Set());
  const orderable = (s: StockRow) => s.toOrder > 0 && s.supplierId !== null;
  const chosen = rows.filter((s) => picked.has(s.id) && orderable(s));
  const suppliers = new Set(chosen.map((s) => s.supplier));
  const tellDrafted = useTellDrafted('/stores?show=low');
  const draft = useAct(acts.draftOrders, {
    onDone: ({ orders }) => {
      once.renew();
      setPicked(new Set());
      tellDrafted(orders);
      router.push(orders.length === 1 ? `/orders/${orders[0]?.number}` : '/orders?show=unsent');
    },
  });
  const go = () =>
    void draft.run({
      once: once.key(),
      picks: [],
      stock: chosen.map((s) => ({ itemId: s.id, supplierId: s.supplierId ?? 0, quantity: s.toOrder })),
    });
  useKey('Ctrl+Enter', 'Draft orders', go, chosen.length > 0 && !draft.busy);
  useKey('Escape', 'Clear selection', () => setPicked(new Set()), chosen.length > 0);
  return (
    <>
      <StockTable
        rows={rows}
        list={list}
        picks={{
          picked,
          onPick: (keys) => setPicked(new Set(keys)),
          may: orderable,
          words: (s) => `Select ${s.name}, ${measured(s.toOrder, s.unit)} to order`,
        }}
      />
      <Shelf
        fault={draft.refusals[0]?.message}
        facts={
          chosen.length === 0 ? (
            <RowKeys />
          ) : (
            <>
              <Fact strong>{counted(chosen.length, 'item')} up to minimum</Fact>
              <Fact>from {counted(suppliers.size, 'supplier')}</Fact>
            </>
          )
        }
      >
        {chosen.length > 0 && (
          <>
            <ShelfPlain onClick={() => setPicked(new Set())} hint="Esc">
              Clear selection
            </ShelfPlain>
            <ShelfMain disabled={draft.busy} onClick={go} hint="Ctrl ↵">
              {draft.busy ? 'Drafting…' : `Draft ${counted(suppliers.size, 'order')}`}
            </ShelfMain>
          </>
        )}
      </Shelf>
    </>
  );
}
