'use client';

import { useMemo, useState, type ReactNode } from 'react';
import { counted } from '@/core/words';
import type { SupplierTerms } from '@/queries/buying/gather';
import type { NeedLine } from '@/queries/buying/needLine';
import type { GatherGroup } from '@/queries/buying/openNeeds';
import { later } from '@/ui/acting/later';
import { useAct } from '@/ui/acting/useAct';
import { useKey } from '@/ui/frame/keys';
import { useYard } from '@/ui/frame/YardContext';
import { Empty, PlaceTitle, Sheet } from '@/ui/kit/Sheet';
import { TakeOut } from '@/ui/kit/TakeOut';
import { LedgerTable } from '@/ui/ledger/LedgerTable';
import { acts } from '../../actions';
import { gatherColumns, groupsBy } from './gatherColumns';
import { GatherPlan } from './GatherPlan';
import { GatherShelf } from './GatherShelf';
import { toPicks } from './picks';
import { useGather } from './useGather';
import { useMore, type Page } from './useMore';

const NeedSlip = later(() => import('../_shared/buying/NeedSlip'));
const FillUp = later(() => import('./FillUp'));

type Props = {
  readonly first: Page;
  readonly total: number;
  readonly terms: readonly SupplierTerms[];
  readonly group: GatherGroup;
  readonly filters: ReactNode;
};

/** What is still to buy over all live jobs: picked here, and made into orders. */
export function Gather({ first, total, terms, group, filters }: Props) {
  const { rows, onEnd } = useMore(first);
  const yard = useYard();
  const gather = useGather(rows);
  const { picks, stock, view, count, forStores, drafting, unread } = gather;
  const [filling, setFilling] = useState<number>();
  const [open, setOpen] = useState<NeedLine>();
  const choosing = useAct(acts.changeNeeds);
  // Of the group that the last line stands in there may be more.
  const last = onEnd === undefined ? undefined : rows.at(-1);
  // eslint-disable-next-line react-hooks/exhaustive-deps -- how days are told is the same for the whole visit
  const groups = useMemo(() => groupsBy(group, terms, yard, last), [group, terms, yard.currency, last]);
  useKey('B', 'Draft selected lines', gather.draftNow, gather.readable && !drafting.busy);
  useKey('Ctrl+Enter', 'Draft selected lines', gather.draftNow, gather.readable && !drafting.busy);
  useKey('Escape', 'Clear selection', gather.putBack, count + forStores > 0);
  const columns = gatherColumns({
    ...{ named: group !== 'supplier', sorts: onEnd === undefined, yard, picks, wrong: gather.wrong },
    onOpen: setOpen,
    onQuantity: gather.type,
    onSupplier: ({ id, version }, supplierId) => void choosing.run({ needs: [{ needId: id, version }], supplierId }),
  });
  const bundle = view?.bundles.find((b) => b.supplierId === filling);
  const fault =
    (drafting.clash ?? choosing.clash)?.message ??
    drafting.refusals[0]?.message ??
    (unread[0] === undefined
      ? view?.refusals[0]?.message
      : `${unread[0]}: the quantity isn’t a number. Correct it, then draft.`);
  return (
    <Sheet
      aside={
        <GatherPlan view={view} picked={count + forStores} stock={stock} onFill={setFilling} onJoin={gather.join} />
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
        <>
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
              onPick: (keys) => gather.pick([...keys].map(Number)),
              may: (n) => n.supplierId !== null,
              words: (n) => `Select ${n.description} for ${n.job}`,
            }}
          />
          <p className="mt-3 text-right">
            <TakeOut list="gather" />
          </p>
        </>
      )}
      <GatherShelf gather={gather} fault={fault} />
      {open && <NeedSlip key={open.id} need={open} picks={toPicks(picks)} onClose={() => setOpen(undefined)} />}
      {bundle && (
        <FillUp
          bundle={bundle}
          picked={Object.keys(picks).map(Number)}
          stock={stock}
          onNeed={gather.pickOne}
          onStock={(item, text) => gather.ride(bundle.supplierId, item, text)}
          onClose={() => setFilling(undefined)}
        />
      )}
    </Sheet>
  );
}
