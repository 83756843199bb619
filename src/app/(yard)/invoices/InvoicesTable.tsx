'use client';

import Link from '@/ui/kit/Link';
import { useRouter } from 'next/navigation';
import { formatAmount, signOf } from '@/core/money/money';
import type { InvoiceRow } from '@/queries/invoices/invoices';
import { useKey } from '@/ui/frame/keys';
import type { Column } from '@/ui/ledger/column';
import { LedgerTable } from '@/ui/ledger/LedgerTable';
import type { Listed } from '@/ui/ledger/Listed';
import { Dash } from '@/ui/kit/Sheet';
import { useYard } from '@/ui/frame/YardContext';
import { InvoiceTag } from './InvoiceTag';

export function InvoicesTable({ rows, list }: { rows: readonly InvoiceRow[]; list: Listed }) {
  const { day, may } = useYard();
  const router = useRouter();
  useKey('N', 'Enter invoice', () => router.push('/invoices/new'), may('enter invoices'));
  const columns: Column<InvoiceRow>[] = [
    {
      key: 'number',
      head: 'Invoice',
      by: (i) => i.number,
      cell: (i) => (
        <Link href={`/invoices/${i.id}`} className="mono font-bold whitespace-nowrap">
          {i.number}
        </Link>
      ),
    },
    {
      key: 'supplier',
      head: 'Supplier',
      by: (i) => i.supplier,
      cell: (i) => <span className="font-semibold">{i.supplier}</span>,
    },
    {
      key: 'order',
      head: 'Order',
      by: (i) => i.order,
      cell: (i) => (
        <Link href={`/orders/${i.order}`} className="mono hover:underline">
          {i.order}
        </Link>
      ),
      wide: true,
    },
    {
      key: 'day',
      head: 'Invoice date',
      by: (i) => i.day,
      cell: (i) => <span className="whitespace-nowrap">{day(i.day)}</span>,
      wide: true,
    },
    {
      key: 'due',
      head: 'Payment due',
      by: (i) => i.dueOn,
      cell: (i) => <span className="whitespace-nowrap">{day(i.dueOn)}</span>,
      wide: true,
    },
    { key: 'state', head: 'Status', by: (i) => i.state, cell: (i) => <InvoiceTag state={i.state} /> },
    {
      key: 'held',
      head: 'Difference',
      num: true,
      by: (i) => i.differences ?? '',
      cell: (i) => (i.differences === null ? <Dash /> : <b className="text-brick">{i.differences}</b>),
    },
    {
      key: 'gross',
      head: 'Total incl. tax',
      num: true,
      by: (i) => i.gross,
      cell: (i) => `${signOf(i.currency)}\u202f${formatAmount(i.gross, i.currency)}`,
    },
  ];
  return (
    <LedgerTable
      label="Invoices"
      list={list}
      rows={rows}
      columns={columns}
      keyOf={(i) => i.id}
      hrefOf={(i) => `/invoices/${i.id}`}
    />
  );
}
