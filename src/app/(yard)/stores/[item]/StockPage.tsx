'use client';

import { useState } from 'react';
import { formatAmount, signOf } from '@/core/money/money';
import { addQ, formatQuantity, NONE, subtractQ, type Quantity } from '@/core/quantity/quantity';
import { unitOf } from '@/core/quantity/units';
import type { PileView, SpotView, StockView } from '@/queries/stores/stores';
import { Fact, Shelf } from '@/ui/kit/Shelf';
import { Dash, Sheet } from '@/ui/kit/Sheet';
import type { Column } from '@/ui/ledger/column';
import { LedgerTable } from '@/ui/ledger/LedgerTable';
import Link from '@/ui/kit/Link';
import { useYard } from '@/ui/frame/YardContext';
import { MoveSlip, ScrapSlip, TransferSlip } from './MovingSlips';
import { PutBy } from './PutBy';
import { CountSlip, IssueSlip, LevelSlip, ReturnSlip } from './StockSlips';

type Issue = StockView['issues'][number];
type PileStep = 'count' | 'level' | 'issue' | 'move' | 'scrap' | 'transfer';
type Open = { readonly kind: PileStep; readonly pile: PileView } | { readonly kind: 'return'; readonly issue: Issue };

const MOVES = {
  counted: 'counted',
  received: 'received',
  issued: 'issued',
  returned: 'returned',
  revalued: 'revalued',
  moved: 'moved',
  scrapped: 'scrapped',
  transferred: 'transferred',
  sentBack: 'returned to supplier',
};

/** Where an item lies, for whom it is reserved, what is coming, and how it moved. */
export function StockPage({ view }: { view: StockView }) {
  const { item, piles, spots, claims, coming, issues, moves } = view;
  const { currency, day, may } = useYard();
  const [open, setOpen] = useState<Open>();
  const keeps = may('keep stores');
  const money = may('see money');
  const told = (q: Quantity) => `${formatQuantity(q)} ${unitOf(item.unit).short}`.trim();
  const measured = (q: Quantity) => (q === 0 ? <Dash /> : told(q));
  const own = piles.filter((p) => p.jobId === null);
  const onHand = addQ(NONE, ...own.map((p) => p.quantity));
  const ofJobs = addQ(NONE, ...piles.filter((p) => p.jobId !== null).map((p) => p.quantity));
  const reserved = addQ(NONE, ...claims.filter((c) => c.placeId !== null).map((c) => c.quantity));
  const step = (words: string, to: Open) => (
    <button type="button" className="step" onClick={() => setOpen(to)}>
      {words}
    </button>
  );
  const worth = (value: number | null) =>
    value === null || value === 0 ? <Dash /> : formatAmount(value as never, currency);
  const places: Column<PileView>[] = [
    {
      key: 'place',
      head: 'Location',
      cell: (p) => (
        <>
          <span className="font-semibold">{p.place}</span>{' '}
          {p.job !== null && <span className="tag">Job {p.job} stock</span>}
        </>
      ),
    },
    { key: 'quantity', head: 'In stock', num: true, cell: (p) => measured(p.quantity) },
    { key: 'keep', head: 'Minimum', num: true, wide: true, cell: (p) => measured(p.keep) },
    ...(money
      ? [
          {
            key: 'value',
            head: `Value ${signOf(currency)}`,
            num: true,
            wide: true,
            cell: (p: PileView) => worth(p.value),
          },
        ]
      : []),
    ...(keeps
      ? [
          {
            key: 'steps',
            head: <span className="sr-only">Actions</span>,
            className: 'text-right',
            cell: (p: PileView) => (
              <span className="steps justify-end">
                {step('Count', { kind: 'count', pile: p })}
                {p.jobId === null && step('Set minimum', { kind: 'level', pile: p })}
                {p.quantity > 0 && (
                  <>
                    {step('Issue', { kind: 'issue', pile: p })}
                    {step('Move', { kind: 'move', pile: p })}
                    {p.jobId !== null && step('Transfer', { kind: 'transfer', pile: p })}
                    {step('Scrap', { kind: 'scrap', pile: p })}
                  </>
                )}
              </span>
            ),
          },
        ]
      : []),
  ];
  const lies: Column<SpotView>[] = [
    ...(item.tracking === 'none'
      ? []
      : [
          {
            key: 'number',
            head: item.tracking === 'lot' ? 'Lot' : 'Serial number',
            cell: (s: SpotView) =>
              s.lotId === null ? (
                <Dash />
              ) : (
                <Link href={`/stores/numbers/${s.lotId}`} className="mono font-bold hover:underline">
                  {s.number}
                </Link>
              ),
          },
        ]),
    { key: 'bin', head: 'Bin', cell: (s) => s.bin ?? <Dash /> },
    {
      key: 'place',
      head: 'Location',
      wide: true,
      cell: (s) => (
        <>
          {s.place} {s.job !== null && <span className="tag">Job {s.job} stock</span>}
        </>
      ),
    },
    ...(item.tracking === 'lot'
      ? [{ key: 'by', head: 'Use-by date', className: 'whitespace-nowrap', cell: (s: SpotView) => day(s.expiresOn) }]
      : []),
    { key: 'quantity', head: 'In stock', num: true, cell: (s) => measured(s.quantity) },
  ];
  const issued: Column<Issue>[] = [
    { key: 'job', head: 'Job', cell: (i) => <b className="mono">{i.job}</b> },
    { key: 'code', head: 'Cost code', wide: true, cell: (i) => i.code },
    { key: 'day', head: 'Date', className: 'whitespace-nowrap', cell: (i) => day(i.day) },
    { key: 'quantity', head: 'With the job', num: true, cell: (i) => measured(i.quantity) },
    ...(money
      ? [{ key: 'value', head: `Cost ${signOf(currency)}`, num: true, wide: true, cell: (i: Issue) => worth(i.value) }]
      : []),
    ...(keeps
      ? [
          {
            key: 'steps',
            head: <span className="sr-only">Actions</span>,
            className: 'text-right',
            cell: (i: Issue) => step('Return to stores', { kind: 'return', issue: i }),
          },
        ]
      : []),
  ];
  const moved: Column<StockView['moves'][number]>[] = [
    { key: 'day', head: 'Date', className: 'whitespace-nowrap', cell: (m) => day(m.day) },
    { key: 'kind', head: 'Event', cell: (m) => MOVES[m.kind] },
    { key: 'place', head: 'Location', wide: true, cell: (m) => m.place },
    { key: 'why', head: 'For', cell: (m) => m.why || <Dash /> },
    { key: 'who', head: 'Who', wide: true, className: 'text-ink-2', cell: (m) => m.who },
    {
      key: 'quantity',
      head: 'Quantity',
      num: true,
      cell: (m) => (m.quantity > 0 ? `+${formatQuantity(m.quantity)}` : formatQuantity(m.quantity)),
    },
    ...(money
      ? [
          {
            key: 'value',
            head: `Value ${signOf(currency)}`,
            num: true,
            wide: true,
            cell: (m: StockView['moves'][number]) => worth(m.value),
          },
        ]
      : []),
  ];
  const aside = (
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
            <span>{measured(c.toCome)}</span>
          </li>
        ))}
      </ul>
    </>
  );
  return (
    <Sheet aside={aside}>
      <h1 className="text-[25px] leading-tight">{item.name}</h1>
      <p className="mb-4 text-ink-2">
        <Link href={`/items/${item.id}`} className="mono hover:underline">
          {item.number}
        </Link>{' '}
        in stores
      </p>
      <LedgerTable label="Locations" rows={piles} columns={places} keyOf={(p) => `${p.placeId}/${p.jobId}`} />
      {spots.some((s) => s.binId !== null || s.number !== null) && (
        <>
          <h2 className="mt-6 text-[16px]">Locations</h2>
          <LedgerTable
            label="Locations"
            rows={spots}
            columns={lies}
            keyOf={(s) => `${s.placeId}/${s.jobId}/${s.binId}/${s.lotId}`}
          />
        </>
      )}
      <PutBy view={view} />
      {issues.length > 0 && (
        <>
          <h2 className="mt-6 text-[16px]">Issued to jobs</h2>
          <LedgerTable label="Issued to jobs" rows={issues} columns={issued} keyOf={(i) => i.id} />
        </>
      )}
      <h2 className="mt-6 text-[16px]">Movements</h2>
      {moves.length === 0 ? (
        <p className="text-ink-2">No movements yet. Enter an opening count.</p>
      ) : (
        <LedgerTable label="Movements" rows={moves} columns={moved} keyOf={(m) => m.id} />
      )}
      <Shelf
        facts={
          <>
            <Fact strong>{told(addQ(onHand, ofJobs))} in stock</Fact>
            {ofJobs > 0 && <Fact>{told(ofJobs)} job stock</Fact>}
            <Fact>{told(reserved)} reserved</Fact>
            <Fact>{told(subtractQ(onHand, reserved))} free</Fact>
          </>
        }
      />
      {open !== undefined && 'pile' in open && <PileSlip open={open} view={view} onClose={() => setOpen(undefined)} />}
      {open?.kind === 'return' && <ReturnSlip view={view} issue={open.issue} onClose={() => setOpen(undefined)} />}
    </Sheet>
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
