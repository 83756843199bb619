'use client';

import { useState } from 'react';
import { addQ, NONE } from '@/core/quantity/quantity';
import { measured } from '@/core/quantity/units';
import type { PileView, StockView } from '@/queries/stores/stock';
import { Fact, Shelf } from '@/ui/kit/Shelf';
import { Sheet } from '@/ui/kit/Sheet';
import Link from '@/ui/kit/Link';
import { useYard } from '@/ui/frame/YardContext';
import { MoveSlip, ScrapSlip, TransferSlip } from './MovingSlips';
import { PutBy } from './PutBy';
import { CountSlip, IssueSlip, LevelSlip, ReturnSlip } from './StockSlips';
import { IssuedTable, MovesTable, PilesTable, SpotsTable, type Issue, type PileStep } from './StockTables';

type Open = { readonly kind: PileStep; readonly pile: PileView } | { readonly kind: 'return'; readonly issue: Issue };

/** Where an item lies, for whom it is reserved, what is coming, and how it moved. */
export function StockPage({ view }: { view: StockView }) {
  const { item, piles, onHand, reserved, free } = view;
  const [open, setOpen] = useState<Open>();
  const ofJobs = addQ(NONE, ...piles.filter((p) => p.jobId !== null).map((p) => p.quantity));
  return (
    <Sheet aside={<ComingAside view={view} />}>
      <h1 className="text-[25px] leading-tight">{item.name}</h1>
      <p className="mb-4 text-ink-2">
        <Link href={`/items/${item.id}`} className="mono hover:underline">
          {item.number}
        </Link>{' '}
        in stores
      </p>
      <PilesTable view={view} onStep={(kind, pile) => setOpen({ kind, pile })} />
      <SpotsTable view={view} />
      <PutBy view={view} />
      <IssuedTable view={view} onReturn={(issue) => setOpen({ kind: 'return', issue })} />
      <h2 className="mt-6 text-[16px]">Movements</h2>
      <MovesTable moves={view.moves} />
      <Shelf
        facts={
          <>
            <Fact strong>{measured(onHand, item.unit)} in stock</Fact>
            <Fact>{measured(reserved, item.unit)} reserved</Fact>
            <Fact>{measured(free, item.unit)} free</Fact>
            {ofJobs > 0 && <Fact>{measured(ofJobs, item.unit)} job stock</Fact>}
          </>
        }
      />
      {open !== undefined && 'pile' in open && <PileSlip open={open} view={view} onClose={() => setOpen(undefined)} />}
      {open?.kind === 'return' && <ReturnSlip view={view} issue={open.issue} onClose={() => setOpen(undefined)} />}
    </Sheet>
  );
}

function ComingAside({ view: { item, coming } }: { view: StockView }) {
  const { day } = useYard();
  return (
    <>
      <h2 className="mb-1 text-[16px]">On order for stores</h2>
      {coming.length === 0 && <p className="text-ink-2">Nothing is on order for stores.</p>}
      <ul>
        {coming.map((c) => (
          <li key={c.splitId} className="flex justify-between gap-2 border-b border-line-2 py-1">
            <Link href={`/orders/${c.order}`} className="mono font-semibold hover:underline">
              {c.order}
            </Link>
            <span className="text-ink-2">{day(c.on)}</span>
            <span>{measured(c.toCome, item.unit)}</span>
          </li>
        ))}
      </ul>
    </>
  );
}

type PileSlipProps = {
  readonly open: { readonly kind: PileStep; readonly pile: PileView };
  readonly view: StockView;
  readonly onClose: () => void;
};

const SLIPS = {
  count: CountSlip,
  level: LevelSlip,
  issue: IssueSlip,
  move: MoveSlip,
  scrap: ScrapSlip,
  transfer: TransferSlip,
};

function PileSlip({ open: { kind, pile }, ...rest }: PileSlipProps) {
  const OpenSlip = SLIPS[kind];
  return <OpenSlip pile={pile} {...rest} />;
}
