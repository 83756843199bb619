'use client';

import Link from '@/ui/kit/Link';
import { useRouter } from 'next/navigation';
import { formatPrice, signOf } from '@/core/money/money';
import { unitOf } from '@/core/quantity/units';
import type { ItemRow } from '@/queries/items/items';
import { useKey } from '@/ui/frame/keys';
import type { Column } from '@/ui/ledger/column';
import { LedgerTable } from '@/ui/ledger/LedgerTable';
import type { Listed } from '@/ui/ledger/Listed';
import { Dash } from '@/ui/kit/Sheet';
import { useYard } from '@/ui/frame/YardContext';

export function ItemsTable({ rows, list }: { rows: readonly ItemRow[]; list: Listed }) {
  const { may } = useYard();
  const router = useRouter();
  useKey('N', 'New item', () => router.push('/items/new'), may('keep suppliers'));
  const columns: Column<ItemRow>[] = [
    {
      key: 'number',
      head: 'Item',
      by: (i) => i.number,
      cell: (i) => (
        <Link href={`/items/${i.id}`} className="mono font-bold whitespace-nowrap">
          {i.number}
        </Link>
      ),
    },
    {
      key: 'name',
      head: 'Name',
      by: (i) => i.name,
      cell: (i) => (
        <>
          <span className="font-semibold">{i.name}</span> {i.stocked === 1 && <span className="tag">stock item</span>}
        </>
      ),
    },
    {
      key: 'unit',
      head: 'Unit',
      by: (i) => i.unit,
      cell: (i) => unitOf(i.unit).short || unitOf(i.unit).name,
      wide: true,
    },
    {
      key: 'code',
      head: 'Cost code',
      by: (i) => i.code ?? '',
      cell: (i) =>
        i.code === null ? (
          <Dash />
        ) : (
          <span className="whitespace-nowrap">
            {i.code} <span className="text-ink-2">{i.codeName}</span>
          </span>
        ),
      wide: true,
    },
    {
      key: 'supplier',
      head: 'Default supplier',
      by: (i) => i.supplier ?? '',
      cell: (i) => i.supplier ?? <Dash />,
      wide: true,
    },
    {
      key: 'theirs',
      head: 'Supplier’s item no.',
      cell: (i) => <span className="mono">{i.theirNumber || '–'}</span>,
      wide: true,
    },
    {
      key: 'price',
      head: 'Price',
      num: true,
      by: (i) => i.price ?? 0,
      cell: (i) =>
        i.price === null || i.currency === null ? (
          <Dash />
        ) : (
          <>
            {`${signOf(i.currency)}\u202f${formatPrice(i.price, i.currency)}`}
            {i.priceUnit !== null && i.priceUnit !== i.unit && (
              <span className="text-[12.5px] text-ink-2">
                {' '}
                / {unitOf(i.priceUnit).short || unitOf(i.priceUnit).name}
              </span>
            )}
          </>
        ),
    },
  ];
  return (
    <LedgerTable
      label="Items"
      list={list}
      rows={rows}
      columns={columns}
      keyOf={(i) => i.id}
      hrefOf={(i) => `/items/${i.id}`}
    />
  );
}
