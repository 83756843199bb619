'use client';

import { useRouter } from 'next/navigation';
import { useEffect, useEffectEvent, useRef, useState } from 'react';
import { toast } from 'sonner';
import { ungrouped } from '@/core/locale/locale';
import { formatQuantity, parseQuantity } from '@/core/quantity/quantity';
import type { GatherView } from '@/queries/buying/gather';
import type { NeedLine } from '@/queries/buying/needLine';
import { ask, asJson } from '@/ui/acting/ask';
import { useAct, useOnce } from '@/ui/acting/useAct';
import { useDraft } from '@/ui/acting/useDraft';
import { acts } from '../../actions';
import { useTellDrafted } from '../_shared/buying/useTellDrafted';
import { toPicks, toStock, type Joins, type Picks, type StockPicks } from './picks';

const without = <T>(all: Readonly<Record<number, T>>, id: number): Readonly<Record<number, T>> =>
  Object.fromEntries(Object.entries(all).filter(([own]) => Number(own) !== id));

const openText = (need: NeedLine): string => ungrouped(formatQuantity(need.open));

/** What is picked to buy, for jobs and beside them for stores, what drafting it would do, and drafting it. */
export function useGather(rows: readonly NeedLine[]) {
  const router = useRouter();
  const draft = useDraft<Picks>('gather', {});
  const picks = draft.value;
  const riding = useDraft<StockPicks>('gather, stores', {});
  const stock = riding.value;
  const [joins, setJoins] = useState<Joins>({});
  const once = useOnce();
  const restart = () => {
    draft.restart();
    riding.restart();
    setJoins({});
  };
  const tellDrafted = useTellDrafted('/gather');
  const drafting = useAct(acts.draftOrders, {
    onDone: ({ orders }) => {
      once.renew();
      tellDrafted(orders);
      restart();
      router.push(orders.length === 1 ? `/orders/${orders[0]?.number}` : '/orders?show=unsent');
    },
  });
  const { view, current } = usePreview(picks, stock, joins, drafting.clash);
  const count = Object.keys(picks).length;
  const forStores = Object.keys(stock).length;
  const into = (view?.bundles ?? []).flatMap((b) => (b.into ? [{ orderId: b.into.id, version: b.into.version }] : []));
  const wrong = Object.entries(picks)
    .filter(([, text]) => !parseQuantity(text).ok)
    .map(([id]) => Number(id));
  const unread = [
    ...wrong.map((id) => rows.find((n) => n.id === id)?.description ?? 'A line that is not shown'),
    ...Object.values(stock).flatMap((s) => (parseQuantity(s.text).ok ? [] : [s.name])),
  ];
  const readable = count + forStores > 0 && unread.length === 0;
  const submit = () => void drafting.run({ once: once.key(), picks: toPicks(picks), stock: toStock(stock), into });
  /** The key came before it was worked out what these make: it is heard as soon as that stands there. */
  const wanted = useRef<Picks>(undefined);
  const workedOut = useEffectEvent(() => {
    if (wanted.current === picks && readable) submit();
    wanted.current = undefined;
  });
  useEffect(() => {
    if (current) workedOut();
  }, [current]);

  return {
    ...{ picks, stock, view, current, drafting, count, forStores, into, wrong, unread, readable, submit },
    /** Lines picked, each with what is open of it unless something else was typed before. */
    pick: (ids: readonly number[]) => {
      drafting.clear();
      draft.set((now) =>
        Object.fromEntries(
          ids.map((id) => {
            const need = rows.find((r) => r.id === id);
            return [id, now[id] ?? (need === undefined ? '' : openText(need))];
          }),
        ),
      );
    },
    pickOne: (need: NeedLine, on: boolean) =>
      draft.set((now) => (on ? { ...now, [need.id]: openText(need) } : without(now, need.id))),
    type: (id: number, text: string) => draft.set((now) => ({ ...now, [id]: text })),
    /** So much of an item beside, for stores; none where nothing is typed. */
    ride: (supplierId: number, item: { readonly itemId: number; readonly name: string }, text: string) =>
      riding.set((now) =>
        text === '' ? without(now, item.itemId) : { ...now, [item.itemId]: { supplierId, name: item.name, text } },
      ),
    join: (supplierId: number, orderId: number) => {
      drafting.clear();
      setJoins((now) => ({ ...now, [supplierId]: orderId }));
    },
    /** Drafts what is picked, as soon as what it makes is worked out. */
    draftNow: () => {
      if (current) submit();
      else wanted.current = picks;
    },
    /** Picks that are put back can be picked again for a while. */
    putBack: () => {
      wanted.current = undefined;
      restart();
      drafting.clear();
      const undo = () => {
        draft.set(picks);
        riding.set(stock);
      };
      toast('Selection cleared', { action: { label: 'Undo', onClick: undo } });
    },
  };
}

/**
 * What drafting would do, asked from the server as the picks change; the answer to an older question is dropped.
 * @returns the last answer, and whether it is the answer to these picks
 */
function usePreview(
  picks: Picks,
  stock: StockPicks,
  joins: Joins,
  clash: unknown,
): { view: GatherView | undefined; current: boolean } {
  const [told, setTold] = useState<{ asked: string; view: GatherView }>();
  const asked = JSON.stringify({ picks: toPicks(picks), stock: toStock(stock), joins });
  const nothing = Object.keys(picks).length + Object.keys(stock).length === 0;
  useEffect(() => {
    const stop = new AbortController();
    const wait = setTimeout(async () => {
      const view = nothing ? undefined : await ask<GatherView>('/gather/preview', asJson(asked, stop.signal));
      if (nothing) setTold(undefined);
      else if (view !== undefined) setTold({ asked, view });
    }, 40);
    return () => {
      clearTimeout(wait);
      stop.abort();
    };
  }, [asked, nothing, clash]);
  return { view: told?.view, current: told?.asked === asked };
}
