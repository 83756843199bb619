'use client';

import { formatAmount, signOf, type Minor } from '@/core/money/money';
import { formatQuantity, type Quantity } from '@/core/quantity/quantity';
import { measured } from '@/core/quantity/units';
import type { Item } from '@/store/tables';
import type { PileView, SpotView, StockView } from '@/queries/stores/stock';
import { useYard } from '@/ui/frame/YardContext';
import Link from '@/ui/kit/Link';
import { Dash } from '@/ui/kit/Sheet';
import type { Column } from '@/ui/ledger/column';
import { LedgerTable } from '@/ui/ledger/LedgerTable';

export type Issue = StockView['issues'][number];
type Move = StockView['moves'][number];
export type PileStep = 'count' | 'level' | 'issue' | 'move' | 'scrap' | 'transfer';

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

const amount = (q: Quantity, item: Item) => (q === 0 ? <Dash /> : measured(q, item.unit));

/** What goods are worth, for those who may see money. */
function useValue<R extends { readonly value: Minor | null }>(head: string): Column<R>[] {
  const { currency, may } = useYard();
  if (!may('see money')) return [];
  const cell = ({ value }: R) => (value === null || value === 0 ? <Dash /> : formatAmount(value, currency));
  return [{ key: 'value', head: `${head} ${signOf(currency)}`, num: true, wide: true, cell }];
}

/** What can be done with a row, for those who keep stores. */
function useSteps<R>(cell: (row: R) => React.ReactNode): Column<R>[] {
  const { may } = useYard();
  if (!may('keep stores')) return [];
  return [{ key: 'steps', head: <span className="sr-only">Actions</span>, className: 'text-right', cell }];
}

const Step = ({ words, onGo }: { words: string; onGo: () => void }) => (
  <button type="button" className="step" onClick={onGo}>
    {words}
  </button>
);

type PilesProps = { readonly view: StockView; readonly onStep: (kind: PileStep, pile: PileView) => void };

export function PilesTable({ view: { item, piles }, onStep }: PilesProps) {
  const value = useValue<PileView>('Value');
  const steps = useSteps<PileView>((pile) => {
    const step = (words: string, kind: PileStep) => <Step words={words} onGo={() => onStep(kind, pile)} />;
    return (
      <span className="steps justify-end">
        {step('Count', 'count')}
        {pile.jobId === null && step('Set minimum', 'level')}
        {pile.quantity > 0 && (
          <>
            {step('Issue', 'issue')}
            {step('Move', 'move')}
            {pile.jobId !== null && step('Transfer', 'transfer')}
            {step('Scrap', 'scrap')}
          </>
        )}
      </span>
    );
  });
  const columns: Column<PileView>[] = [
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
    { key: 'quantity', head: 'In stock', num: true, cell: (p) => amount(p.quantity, item) },
    { key: 'keep', head: 'Minimum', num: true, wide: true, cell: (p) => amount(p.keep, item) },
    ...value,
    ...steps,
  ];
  return <LedgerTable label="Locations" rows={piles} columns={columns} keyOf={(p) => `${p.placeId}/${p.jobId}`} />;
}

const NUMBERED = { none: 'Bins', lot: 'Lots', serial: 'Serial numbers' };

/** Bins, lots and serial numbers; nothing where there are none. */
export function SpotsTable({ view: { item, spots } }: { view: StockView }) {
  const { day } = useYard();
  if (!spots.some((s) => s.binId !== null || s.number !== null)) return null;
  const columns: Column<SpotView>[] = [
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
    { key: 'quantity', head: 'In stock', num: true, cell: (s) => amount(s.quantity, item) },
  ];
  return (
    <>
      <h2 className="mt-6 text-[16px]">{NUMBERED[item.tracking]}</h2>
      <LedgerTable
        label={NUMBERED[item.tracking]}
        rows={spots}
        columns={columns}
        keyOf={(s) => `${s.placeId}/${s.jobId}/${s.binId}/${s.lotId}`}
      />
    </>
  );
}

/** What jobs were issued and still have; nothing where there is none. */
export function IssuedTable({
  view: { item, issues },
  onReturn,
}: {
  view: StockView;
  onReturn: (issue: Issue) => void;
}) {
  const { day } = useYard();
  const value = useValue<Issue>('Cost');
  const steps = useSteps<Issue>((issue) => <Step words="Return to stores" onGo={() => onReturn(issue)} />);
  if (issues.length === 0) return null;
  const columns: Column<Issue>[] = [
    { key: 'job', head: 'Job', cell: (i) => <b className="mono">{i.job}</b> },
    { key: 'code', head: 'Cost code', wide: true, cell: (i) => i.code },
    { key: 'day', head: 'Date', className: 'whitespace-nowrap', cell: (i) => day(i.day) },
    { key: 'quantity', head: 'With the job', num: true, cell: (i) => amount(i.quantity, item) },
    ...value,
    ...steps,
  ];
  return (
    <>
      <h2 className="mt-6 text-[16px]">Issued to jobs</h2>
      <LedgerTable label="Issued to jobs" rows={issues} columns={columns} keyOf={(i) => i.id} />
    </>
  );
}

export function MovesTable({ moves }: { moves: readonly Move[] }) {
  const { day } = useYard();
  const value = useValue<Move>('Value');
  if (moves.length === 0) return <p className="text-ink-2">No movements yet. Enter an opening count.</p>;
  const columns: Column<Move>[] = [
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
    ...value,
  ];
  return <LedgerTable label="Movements" rows={moves} columns={columns} keyOf={(m) => m.id} />;
}
