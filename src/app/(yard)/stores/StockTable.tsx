'use client';

import { formatAmount, signOf } from '@/core/money/money';
import { formatQuantity, type Quantity } from '@/core/quantity/quantity';
import { unitOf } from '@/core/quantity/units';
import type { StockRow } from '@/queries/stores/stores';
import { Dash } from '@/ui/kit/Sheet';
import type { Column, Picks } from '@/ui/ledger/column';
import { LedgerTable } from '@/ui/ledger/LedgerTable';
import type { Listed } from '@/ui/ledger/Listed';
import Link from '@/ui/kit/Link';
import { useYard } from '@/ui/frame/YardContext';

const amount = (q: Quantity, unit: string) =>
  q === 0 ? <Dash /> : `${formatQuantity(q)} ${unitOf(unit).short}`.trim();

type Props = {
  readonly rows: readonly StockRow[];
  readonly list: Listed;
  readonly picks?: Picks<StockRow> | undefined;
};

export function StockTable({ rows, list, picks }: Props) {
  const { currency, day, may } = useYard();
  const measure = (
    key: 'onHand' | 'reserved' | 'free' | 'ofJobs' | 'coming' | 'keep',
    head: string,
    wide: boolean,
  ): Column<StockRow> => ({
    key,
    head,
    num: true,
    wide,
    by: (s) => s[key],
    cell: (s) => amount(s[key], s.unit),
  });
  const columns: Column<StockRow>[] = [
    {
      key: 'number',
      head: 'Item',
      by: (s) => s.number,
      cell: (s) => (
        <Link href={`/stores/${s.id}`} className="mono font-bold whitespace-nowrap">
          {s.number}
        </Link>
      ),
    },
    {
      key: 'name',
      head: 'Name',
      by: (s) => s.name,
      cell: (s) => (
        <>
          <span className="font-semibold">{s.name}</span>{' '}
          {s.below > 0 && <span className="tag tag-care">below minimum</span>}
        </>
      ),
    },
    measure('onHand', 'In stock', false),
    measure('reserved', 'Reserved', true),
    { ...measure('free', 'Free', false), cell: (s) => <b>{amount(s.free, s.unit)}</b> },
    measure('ofJobs', 'Job stock', true),
    measure('coming', 'On order', true),
    measure('keep', 'Minimum', true),
    ...(picks === undefined
      ? []
      : [
          {
            key: 'toOrder',
            head: 'To order',
            num: true,
            cell: (s: StockRow) => (
              <>
                <b>{amount(s.toOrder, s.unit)}</b>{' '}
                <span className="block text-[12.5px] text-ink-2">{s.supplier ?? 'no supplier yet'}</span>
              </>
            ),
          },
        ]),
    {
      key: 'lastOut',
      head: 'Last issued',
      wide: true,
      className: 'whitespace-nowrap',
      by: (s) => s.lastOut ?? '',
      cell: (s) => (s.lastOut === null ? <Dash /> : day(s.lastOut)),
    },
    ...(may('see money')
      ? [
          {
            key: 'value',
            head: `Value ${signOf(currency)}`,
            num: true,
            wide: true,
            cell: (s: StockRow) => (s.value === null || s.value === 0 ? <Dash /> : formatAmount(s.value, currency)),
          },
        ]
      : []),
  ];
  return (
    <LedgerTable
      label="Stores"
      list={list}
      picks={picks}
      rows={rows}
      columns={columns}
      keyOf={(s) => s.id}
      hrefOf={(s) => `/stores/${s.id}`}
    />
  );
}
