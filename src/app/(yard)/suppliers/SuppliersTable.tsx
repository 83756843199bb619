'use client';

import Link from '@/ui/kit/Link';
import { useRouter } from 'next/navigation';
import { formatAmount, signOf, type Minor } from '@/core/money/money';
import type { SupplierRow } from '@/queries/items/suppliers';
import { useKey } from '@/ui/frame/keys';
import type { Column } from '@/ui/ledger/column';
import { LedgerTable } from '@/ui/ledger/LedgerTable';
import type { Listed } from '@/ui/ledger/Listed';
import { Dash } from '@/ui/kit/Sheet';
import { useYard } from '@/ui/frame/YardContext';
import { counted } from '@/core/words';

export function SuppliersTable({ rows, list }: { rows: readonly SupplierRow[]; list: Listed }) {
  const { may, currency } = useYard();
  const router = useRouter();
  useKey('N', 'New supplier', () => router.push('/suppliers/new'), may('keep suppliers'));
  const money = (amount: Minor, of: string) => `${signOf(of)}\u202f${formatAmount(amount, of)}`;
  const columns: Column<SupplierRow>[] = [
    {
      key: 'name',
      head: 'Supplier',
      by: (s) => s.name,
      cell: (s) => (
        <Link href={`/suppliers/${s.id}`} className="font-semibold hover:underline">
          {s.name}
        </Link>
      ),
    },
    {
      key: 'email',
      head: 'Order email',
      by: (s) => s.email ?? '',
      cell: (s) => s.email ?? <span className="tag tag-care">no address</span>,
      wide: true,
    },
    {
      key: 'lead',
      head: 'Lead time (working days)',
      num: true,
      by: (s) => s.leadDays,
      cell: (s) => s.leadDays,
      wide: true,
    },
    {
      key: 'carriage',
      head: 'Carriage',
      num: true,
      by: (s) => s.carriage,
      cell: (s) => (s.carriage === 0 ? <Dash /> : money(s.carriage, s.currency)),
      wide: true,
    },
    {
      key: 'free',
      head: 'Free carriage from',
      num: true,
      by: (s) => s.carriageFreeFrom ?? 0,
      cell: (s) => (s.carriageFreeFrom === null ? <Dash /> : money(s.carriageFreeFrom, s.currency)),
      wide: true,
    },
    {
      key: 'toBuy',
      head: 'To buy',
      num: true,
      by: (s) => s.toBuy,
      cell: (s) =>
        s.toBuy === 0 ? (
          <Dash />
        ) : (
          <Link href={`/gather?supplier=${s.id}`} className="hover:underline">
            {counted(s.toBuy, 'line')}
          </Link>
        ),
    },
    {
      key: 'open',
      head: 'Open orders',
      num: true,
      by: (s) => s.openOrders,
      cell: (s) =>
        s.openOrders === 0 ? (
          <Dash />
        ) : (
          <Link href={`/orders?supplier=${s.id}`} className="hover:underline">
            {s.openOrders}
          </Link>
        ),
      wide: true,
    },
    {
      key: 'onOrder',
      head: 'On order',
      num: true,
      by: (s) => s.onOrder,
      cell: (s) => (s.onOrder === 0 ? <Dash /> : money(s.onOrder, currency)),
    },
  ];
  return (
    <LedgerTable
      label="Suppliers"
      list={list}
      rows={rows}
      columns={columns}
      keyOf={(s) => s.id}
      hrefOf={(s) => `/suppliers/${s.id}`}
    />
  );
}
