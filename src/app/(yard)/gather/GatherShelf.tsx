'use client';

import { groupBy } from '@/core/group';
import { formatAmount, minor, signOf } from '@/core/money/money';
import { headroomOf } from '@/core/tab/sums';
import { counted } from '@/core/words';
import type { GatherView } from '@/queries/buying/gather';
import { Fact, Shelf, ShelfMain, ShelfPlain } from '@/ui/kit/Shelf';
import type { useGather } from './useGather';

/** What is picked and what it comes to, what is wrong with it, and the step that drafts it. */
export function GatherShelf({ gather, fault }: { gather: ReturnType<typeof useGather>; fault: string | undefined }) {
  const { view, current, drafting, count, forStores, into, readable, submit, putBack } = gather;
  const orders = view?.bundles.length ?? 0;
  const nothing = count + forStores === 0;
  return (
    <Shelf
      fault={fault}
      facts={
        nothing ? (
          <Fact>Select lines to see the orders they make and the effect on each budget.</Fact>
        ) : (
          <>
            <Fact strong>
              {counted(count, 'line')} selected{forStores > 0 && `, ${forStores} for stores`}
            </Fact>
            {view && <WhatItMakes view={view} />}
          </>
        )
      }
    >
      {!nothing && (
        <ShelfPlain onClick={putBack} hint="Esc">
          Clear selection
        </ShelfPlain>
      )}
      <ShelfMain disabled={!readable || !current || drafting.busy} onClick={submit} hint="B">
        {drafting.busy ? 'Drafting…' : orders === 0 ? 'Draft orders' : inWords(orders - into.length, into.length)}
      </ShelfMain>
    </Shelf>
  );
}

function WhatItMakes({ view }: { view: GatherView }) {
  const value = sumsByCurrency(view);
  const over = view.effects.filter((e) => headroomOf(e.after) < 0).length;
  const late = view.bundles.reduce((sum, b) => sum + b.late, 0);
  const warnings = [
    over > 0 && `${counted(over, 'budget')} ${over === 1 ? 'goes' : 'go'} over`,
    late > 0 && `${counted(late, 'line')} late`,
  ]
    .filter(Boolean)
    .join(' · ');
  return (
    <>
      <Fact>
        {counted(view.bundles.length, 'supplier')} · {counted(new Set(view.bundles.flatMap((b) => b.jobs)).size, 'job')}
      </Fact>
      {value !== '' && <Fact strong>{value}</Fact>}
      {warnings !== '' && <Fact warn>{warnings}</Fact>}
    </>
  );
}

const inWords = (made: number, joined: number) =>
  made === 0
    ? `Add to ${counted(joined, 'draft')}`
    : `Draft ${counted(made, 'order')}${joined === 0 ? '' : `, add to ${joined}`}`;

function sumsByCurrency(view: GatherView): string {
  const sums = groupBy(view.bundles, (b) => b.currency);
  return [...sums]
    .map(
      ([currency, own]) =>
        `${signOf(currency)}\u202f${formatAmount(minor(own.reduce((sum, b) => sum + b.adds, 0)), currency)}`,
    )
    .join(' + ');
}
