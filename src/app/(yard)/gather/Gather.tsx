'use client';

import { ungrouped } from '@/core/locale/locale';
import { useRouter } from 'next/navigation';
import { toast } from 'sonner';
import { useEffect, useEffectEvent, useMemo, useRef, useState, type ReactNode } from 'react';
import { groupBy } from '@/core/group';
import { formatAmount, minor, signOf } from '@/core/money/money';
import { formatQuantity, parseQuantity } from '@/core/quantity/quantity';
import { headroomOf } from '@/core/tab/sums';
import type { GatherView, SupplierTerms } from '@/queries/buying/gather';
import type { NeedLine } from '@/queries/buying/needLine';
import type { GatherGroup } from '@/queries/buying/openNeeds';
import { ask, asJson } from '@/ui/acting/ask';
import { useKey } from '@/ui/frame/keys';
import { Fact, Shelf, ShelfMain, ShelfPlain } from '@/ui/kit/Shelf';
import { Empty, PlaceTitle, Sheet } from '@/ui/kit/Sheet';
import { TakeOut } from '@/ui/kit/TakeOut';
import type { Key } from '@/ui/ledger/column';
import { LedgerTable } from '@/ui/ledger/LedgerTable';
import { makeKey, useAct, useOnce } from '@/ui/acting/useAct';
import { useDraft } from '@/ui/acting/useDraft';
import { later } from '@/ui/acting/later';
import { useYard } from '@/ui/frame/YardContext';
import { acts } from '../../actions';
import { gatherColumns, groupsBy } from './gatherColumns';
import { GatherPlan } from './GatherPlan';
import { useMore, type Page } from './useMore';
import { counted } from '@/core/words';
import { toPicks, toStock, type Joins, type Picks, type StockPicks } from './picks';

const NeedSlip = later(() => import('../_shared/buying/NeedSlip'));
const FillUp = later(() => import('./FillUp'));

type Props = {
  readonly first: Page;
  readonly total: number;
  readonly terms: readonly SupplierTerms[];
  readonly group: GatherGroup;
  readonly filters: ReactNode;
};

const without = <T,>(all: Readonly<Record<number, T>>, id: number): Readonly<Record<number, T>> =>
  Object.fromEntries(Object.entries(all).filter(([own]) => Number(own) !== id));

export function Gather({ first, total, terms, group, filters }: Props) {
  const router = useRouter();
  const { rows, onEnd } = useMore(first);
  const yard = useYard();
  const draft = useDraft<Picks>('gather', {});
  const picks = draft.value;
  const riding = useDraft<StockPicks>('gather, stores', {});
  const stock = riding.value;
  const [filling, setFilling] = useState<number>();
  const [open, setOpen] = useState<NeedLine>();
  const [joins, setJoins] = useState<Joins>({});
  const once = useOnce();
  const undoing = useAct(acts.cancelOrder, { said: () => 'Draft cancelled: its lines are back to buy' });
  const tellDrafted = (orders: readonly Drafted[]) => {
    const undo = async () => {
      for (const o of orders)
        await undoing.run({ once: makeKey(), orderId: o.id, version: o.version, reason: 'drafted by mistake' });
      router.push('/gather');
    };
    // Lines that joined a draft are taken off it where they stand.
    const action = orders.some((o) => o.joined) ? {} : { action: { label: 'Undo', onClick: () => void undo() } };
    toast.success(inThePast(orders), action);
  };
  const drafting = useAct(acts.draftOrders, {
    onDone: ({ orders }) => {
      once.renew();
      tellDrafted(orders);
      draft.restart();
      riding.restart();
      setJoins({});
      router.push(orders.length === 1 ? `/orders/${orders[0]?.number}` : '/orders?show=unsent');
    },
  });
  const { view, current } = usePreview(picks, stock, joins, drafting.clash);
  const choosing = useAct(acts.changeNeeds);
  const byId = useMemo(() => new Map(rows.map((r) => [r.id, r])), [rows]);
  // Of the group that the last line stands in there may be more.
  const last = onEnd === undefined ? undefined : rows.at(-1);
  // eslint-disable-next-line react-hooks/exhaustive-deps -- how days are told is the same for the whole visit
  const groups = useMemo(() => groupsBy(group, terms, yard, last), [group, terms, yard.currency, last]);
  const count = Object.keys(picks).length;
  const forStores = Object.keys(stock).length;

  const pick = (keys: ReadonlySet<Key>) => {
    drafting.clear();
    draft.set((now) =>
      Object.fromEntries(
        [...keys].map(Number).map((id) => {
          const need = byId.get(id);
          return [id, now[id] ?? (need === undefined ? '' : ungrouped(formatQuantity(need.open)))];
        }),
      ),
    );
  };
  /** The key came before it was worked out what these make: it is heard as soon as that stands there. */
  const wanted = useRef<Picks>(undefined);
  /** Picks that are put back can be picked again for a while. */
  const putBack = () => {
    const [was, ride] = [picks, stock];
    wanted.current = undefined;
    draft.restart();
    riding.restart();
    setJoins({});
    drafting.clear();
    toast(`Selection cleared`, {
      action: {
        label: 'Undo',
        onClick: () => {
          draft.set(was);
          riding.set(ride);
        },
      },
    });
  };
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
  const draftNow = () => {
    if (current) submit();
    else wanted.current = picks;
  };
  const workedOut = useEffectEvent(() => {
    if (wanted.current === picks && readable) submit();
    wanted.current = undefined;
  });
  useEffect(() => {
    if (current) workedOut();
  }, [current]);
  useKey('B', 'Draft selected lines', draftNow, readable && !drafting.busy);
  useKey('Ctrl+Enter', 'Draft selected lines', draftNow, readable && !drafting.busy);
  useKey('Escape', 'Clear selection', putBack, count + forStores > 0);

  const columns = gatherColumns({
    named: group !== 'supplier',
    sorts: onEnd === undefined,
    yard,
    picks,
    wrong,
    onOpen: setOpen,
    onQuantity: (id, text) => draft.set((now) => ({ ...now, [id]: text })),
    onSupplier: ({ id, version }, supplierId) => void choosing.run({ needs: [{ needId: id, version }], supplierId }),
  });
  const bundle = view?.bundles.find((b) => b.supplierId === filling);
  const orders = view?.bundles.length ?? 0;
  const value = sumsByCurrency(view);
  const over = view?.effects.filter((e) => headroomOf(e.after) < 0).length ?? 0;
  const late = view?.bundles.reduce((sum, b) => sum + b.late, 0) ?? 0;
  const warnings = [
    over > 0 && `${counted(over, 'budget')} ${over === 1 ? 'goes' : 'go'} over`,
    late > 0 && `${counted(late, 'line')} late`,
  ]
    .filter(Boolean)
    .join(' · ');
  const fault =
    (drafting.clash ?? choosing.clash)?.message ??
    drafting.refusals[0]?.message ??
    (unread[0] === undefined
      ? view?.refusals[0]?.message
      : `${unread[0]}: the quantity isn’t a number. Correct it, then draft.`);

  return (
    <Sheet
      aside={
        <GatherPlan
          view={view}
          picked={count + forStores}
          stock={stock}
          onFill={setFilling}
          onJoin={(supplierId, orderId) => {
            drafting.clear();
            setJoins((now) => ({ ...now, [supplierId]: orderId }));
          }}
        />
      }
    >
      <PlaceTitle title="Gather" count={`${counted(total, 'line')} to buy`}>
        {filters}
      </PlaceTitle>
      {rows.length === 0 ? (
        <Empty title="Nothing left to buy here">
          Every line shown is drafted, ordered or received. Clear the filters to see more.
        </Empty>
      ) : (
        <LedgerTable
          label="Lines to buy"
          rows={rows}
          columns={columns}
          keyOf={(n) => n.id}
          groups={groups}
          onEnd={onEnd}
          clickPicks
          onOpen={setOpen}
          picks={{
            picked: new Set(Object.keys(picks).map(Number)),
            onPick: pick,
            may: (n) => n.supplierId !== null,
            words: (n) => `Select ${n.description} for ${n.job}`,
          }}
        />
      )}
      {rows.length > 0 && (
        <p className="mt-3 text-right">
          <TakeOut list="gather" />
        </p>
      )}
      <Shelf
        fault={fault}
        facts={
          count + forStores === 0 ? (
            <Fact>Select lines to see the orders they make and the effect on each budget.</Fact>
          ) : (
            <>
              <Fact strong>
                {counted(count, 'line')} selected{forStores > 0 && `, ${forStores} for stores`}
              </Fact>
              {view && (
                <Fact>
                  {counted(orders, 'supplier')} · {counted(new Set(view.bundles.flatMap((b) => b.jobs)).size, 'job')}
                </Fact>
              )}
              {value !== '' && <Fact strong>{value}</Fact>}
              {warnings !== '' && <Fact warn>{warnings}</Fact>}
            </>
          )
        }
      >
        {count + forStores > 0 && (
          <ShelfPlain onClick={putBack} hint="Esc">
            Clear selection
          </ShelfPlain>
        )}
        <ShelfMain disabled={!readable || !current || drafting.busy} onClick={submit} hint="B">
          {drafting.busy ? 'Drafting…' : orders === 0 ? 'Draft orders' : inWords(orders - into.length, into.length)}
        </ShelfMain>
      </Shelf>
      {open && <NeedSlip key={open.id} need={open} picks={toPicks(picks)} onClose={() => setOpen(undefined)} />}
      {bundle && (
        <FillUp
          bundle={bundle}
          picked={Object.keys(picks).map(Number)}
          stock={stock}
          onNeed={(n, on) =>
            draft.set((now) => (on ? { ...now, [n.id]: ungrouped(formatQuantity(n.open)) } : without(now, n.id)))
          }
          onStock={(item, text) =>
            riding.set((now) =>
              text === ''
                ? without(now, item.itemId)
                : { ...now, [item.itemId]: { supplierId: bundle.supplierId, name: item.name, text } },
            )
          }
          onClose={() => setFilling(undefined)}
        />
      )}
    </Sheet>
  );
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

const inWords = (made: number, joined: number) =>
  made === 0
    ? `Add to ${counted(joined, 'draft')}`
    : `Draft ${counted(made, 'order')}${joined === 0 ? '' : `, add to ${joined}`}`;

type Drafted = { readonly id: number; readonly number: string; readonly version: number; readonly joined: boolean };

function inThePast(orders: readonly Drafted[]): string {
  const numbers = (joined: boolean) => orders.flatMap((o) => (o.joined === joined ? o.number : [])).join(', ');
  const [drafted, added] = [numbers(false), numbers(true)];
  if (drafted === '') return `Added to ${added}`;
  return `Drafted ${drafted}${added === '' ? '' : `, added to ${added}`}`;
}

function sumsByCurrency(view: GatherView | undefined): string {
  const sums = groupBy(view?.bundles ?? [], (b) => b.currency);
  return [...sums]
    .map(
      ([currency, own]) =>
        `${signOf(currency)}\u202f${formatAmount(minor(own.reduce((sum, b) => sum + b.adds, 0)), currency)}`,
    )
    .join(' + ');
}
