import { GOT_BY_NAMES } from '@/core/boms/bom';
import { formatMoney, type Minor } from '@/core/money/money';
import { type Quantity } from '@/core/quantity/quantity';
import { measured } from '@/core/quantity/units';
import type { BuyListLine } from '@/queries/buying/buyList';
import type { PlanRow } from '@/queries/buying/plan';
import { Dash } from '@/ui/kit/Sheet';
import type { Column } from '@/ui/ledger/column';
import { ProgressGlass } from '@/ui/jobs/SightGlass';
import { FulfilmentMark } from '@/ui/buying/FulfilmentMark';
import { Tags } from '@/ui/kit/Tags';
import type { useYard } from '@/ui/frame/YardContext';

const gotBy = ({ gotBy: way, work, piece, level, need }: PlanRow): string => {
  if (way === 'made' && level > 0)
    return work === 'own' ? `made (${piece})` : work === 'apart' ? 'handled separately' : 'made';
  if (need?.kind === 'service') return 'service / subcontract';
  return GOT_BY_NAMES[way];
};

/** How far a line has come, in words. */
export function wayInWords(n: BuyListLine): string {
  const part = (q: number, words: string) => (q > 0 ? `${measured(q as Quantity, n.unit)} ${words}` : '');
  return (
    [
      part(n.issued, 'issued'),
      part(n.received, 'received'),
      part(n.inStores, 'in stock'),
      part(n.coming, 'on order for stores'),
      part(n.ordered - n.received, 'on order'),
      part(n.drafted, 'drafted'),
      part(n.open, 'to buy'),
    ]
      .filter(Boolean)
      .join(', ') || 'nothing needed'
  );
}

/** A line's way in one bar: issued, in or there for it in stores, on order or coming, drafted; what is white is to buy. */
export const Way = ({ need }: { need: BuyListLine }) => (
  <ProgressGlass
    whole={need.quantity}
    words={wayInWords(need)}
    parts={[
      { stage: 'actual', share: need.issued },
      { stage: 'received', share: need.received + need.inStores },
      { stage: 'onOrder', share: need.ordered - need.received + need.coming },
      { stage: 'drafted', share: need.drafted },
    ]}
  />
);

/** The day that is told beside how far a line is: when the rest of it is to come. */
export const awaitedOn = ({ standing, promisedOn }: BuyListLine, day: Tree['day']): string | undefined =>
  promisedOn === null || (standing !== 'ordered' && standing !== 'partIn') ? undefined : `expected ${day(promisedOn)}`;

/** By how much buying it at today's prices differs from its estimate. */
export const moreTag = (more: Minor, currency: string) => ({
  words: `${more > 0 ? '+' : ''}${formatMoney(more, currency)} at today’s price`,
  weight: more > 0 ? ('care' as const) : ('note' as const),
});

type Tree = {
  readonly currency: string;
  readonly day: ReturnType<typeof useYard>['day'];
  readonly closed: ReadonlySet<string>;
  readonly parents: ReadonlySet<string>;
  readonly onFold: (key: string) => void;
  readonly onOpen: (row: PlanRow) => void;
};

const INDENT = 18;

function What({ row, tree }: { row: PlanRow; tree: Tree }) {
  const { key, description, number, level, leftOut, isIn, need } = row;
  const folds = tree.parents.has(key);
  const open = !tree.closed.has(key);
  const { currency } = tree;
  const more = need === null || need.more === 0 ? [] : [moreTag(need.more, currency)];
  const kept = need !== null && need.reserved ? [{ words: 'reserved', weight: 'good' as const }] : [];
  return (
    <span className="flex items-baseline gap-1" style={{ paddingLeft: level * INDENT }}>
      {folds ? (
        <button
          type="button"
          aria-expanded={open}
          aria-label={`Components of ${description}`}
          className="w-[13px] shrink-0 text-[11px] text-ink-2"
          onClick={() => tree.onFold(key)}
        >
          {open ? '▾' : '▸'}
        </button>
      ) : (
        <span className="w-[13px] shrink-0" />
      )}
      <span>
        {need !== null && isIn ? (
          <button type="button" className="text-left font-semibold hover:underline" onClick={() => tree.onOpen(row)}>
            {description}
          </button>
        ) : (
          <span className={row.gotBy === 'made' ? 'font-semibold' : ''}>{description}</span>
        )}{' '}
        {number !== null && <span className="mono whitespace-nowrap text-ink-2">{number}</span>}{' '}
        {leftOut !== null && <span className="tag tag-care">excluded: {leftOut}</span>}
        {isIn && need !== null && <Tags tags={[...kept, ...need.tags, ...more]} />}
        {isIn && need !== null && need.neededOn !== null && (
          <span className="block text-[12.5px] text-ink-2 phone:hidden">needed {tree.day(need.neededOn)}</span>
        )}
        {isIn && need !== null && (
          <span className="mt-0.5 block font-normal phone:hidden">
            <FulfilmentMark standing={need.standing} on={awaitedOn(need, tree.day)} />
          </span>
        )}
      </span>
    </span>
  );
}

/** The columns of a plan. */
export const planColumns = (tree: Tree): Column<PlanRow>[] => {
  const { day } = tree;
  const bought = (row: PlanRow, cell: (need: BuyListLine) => React.ReactNode) =>
    row.need === null || !row.isIn ? '' : cell(row.need);
  const some = (q: Quantity, unit: string) => (q === 0 ? <Dash /> : measured(q, unit));
  return [
    {
      key: 'what',
      head: 'Item',
      leads: true,
      className: '!font-normal text-left !whitespace-normal [&_.tag]:whitespace-normal',
      cell: (r) => <What row={r} tree={tree} />,
    },
    { key: 'got', head: 'Type', wide: true, className: 'text-ink-2', cell: gotBy },
    { key: 'need', head: 'Quantity', num: true, cell: (r) => measured(r.quantity, r.unit) },
    { key: 'stores', head: 'Stores', num: true, wide: true, cell: (r) => bought(r, (n) => some(n.inStores, n.unit)) },
    { key: 'coming', head: 'On order', num: true, wide: true, cell: (r) => bought(r, (n) => some(n.coming, n.unit)) },
    {
      key: 'open',
      head: 'To buy',
      num: true,
      cell: (r) => bought(r, (n) => (n.open === 0 ? <Dash /> : <b>{measured(n.open, n.unit)}</b>)),
    },
    {
      key: 'needed',
      head: 'Needed by',
      wide: true,
      className: 'whitespace-nowrap',
      cell: (r) => (r.neededOn === null ? '' : day(r.need?.neededOn ?? r.neededOn)),
    },
    {
      key: 'by',
      head: 'Order by',
      wide: true,
      className: 'whitespace-nowrap',
      cell: (r) =>
        bought(r, (n) =>
          n.orderBy === null ? '' : <span className={n.late ? 'font-bold text-brick' : ''}>{day(n.orderBy)}</span>,
        ),
    },
    {
      key: 'standing',
      head: 'Status',
      wide: true,
      cell: (r) => bought(r, (n) => <FulfilmentMark standing={n.standing} on={awaitedOn(n, day)} />),
    },
    {
      key: 'way',
      head: 'Progress',
      wide: true,
      className: 'w-[84px]',
      cell: (r) => bought(r, (n) => <Way need={n} />),
    },
  ];
};
