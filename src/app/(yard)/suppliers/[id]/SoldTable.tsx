'use client';

import { formatPrice } from '@/core/money/money';
import { formatQuantity } from '@/core/quantity/quantity';
import { unitOf } from '@/core/quantity/units';
import type { SupplierView } from '@/queries/items/suppliers';
import { Dash } from '@/ui/kit/Sheet';
import type { Column } from '@/ui/ledger/column';
import { LedgerTable } from '@/ui/ledger/LedgerTable';
import Link from '@/ui/kit/Link';

type Part = SupplierView['parts'][number];

/** What a supplier sells us. */
export function SoldTable({ parts, currency }: { parts: readonly Part[]; currency: string }) {
  const columns: Column<Part>[] = [
    {
      key: 'number',
      head: 'Item',
      by: (p) => p.number,
      cell: (p) => (
        <Link href={`/items/${p.itemId}`} className="mono font-bold whitespace-nowrap hover:underline">
          {p.number}
        </Link>
      ),
    },
    { key: 'name', head: 'Name', by: (p) => p.name, cell: (p) => p.name },
    {
      key: 'theirs',
      head: 'Supplier’s item no.',
      wide: true,
      className: 'mono',
      cell: (p) => p.theirNumber || <Dash />,
    },
    { key: 'unit', head: 'Unit', wide: true, cell: (p) => unitOf(p.unit).short || unitOf(p.unit).name },
    {
      key: 'minimum',
      head: 'Minimum quantity',
      num: true,
      wide: true,
      cell: (p) => (p.minimum === 0 ? <Dash /> : formatQuantity(p.minimum)),
    },
    {
      key: 'pack',
      head: 'Pack size',
      num: true,
      wide: true,
      cell: (p) => (p.pack === 0 ? <Dash /> : formatQuantity(p.pack)),
    },
    {
      key: 'price',
      head: `Price ${currency}`,
      num: true,
      by: (p) => p.price ?? 0,
      cell: (p) =>
        p.price === null ? (
          <Dash />
        ) : (
          <>
            {p.breaks > 1 && <span className="text-ink-2">from </span>}
            {formatPrice(p.price, currency)}
            {p.priceQuantity > 1 && ` per ${p.priceQuantity}`}
            <span className="text-[12.5px] text-ink-2 phone:hidden">
              {' '}
              / {unitOf(p.unit).short || unitOf(p.unit).name}
            </span>
          </>
        ),
    },
  ];
  return (
    <LedgerTable
      label="Items from this supplier"
      rows={parts}
      columns={columns}
      keyOf={(p) => p.itemId}
      hrefOf={(p) => `/items/${p.itemId}`}
    />
  );
}
