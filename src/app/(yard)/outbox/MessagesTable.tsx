'use client';

import type { Day } from '@/core/calendar/workdays';
import type { MessageRow } from '@/queries/orders/outbox';
import type { Column } from '@/ui/ledger/column';
import { LedgerTable } from '@/ui/ledger/LedgerTable';
import Link from '@/ui/kit/Link';
import { useYard } from '@/ui/frame/YardContext';
import { MessageTag } from './MessageTag';

export function MessagesTable({ rows }: { rows: readonly MessageRow[] }) {
  const { day } = useYard();
  const columns: Column<MessageRow>[] = [
    {
      key: 'when',
      head: 'When',
      className: 'whitespace-nowrap',
      cell: (m) => `${day(m.at.slice(0, 10) as Day)} ${m.at.slice(11, 16)}`,
    },
    {
      key: 'order',
      head: 'Order',
      cell: (m) => (
        <Link href={`/orders/${m.order}`} className="mono font-bold">
          {m.order}
        </Link>
      ),
    },
    { key: 'to', head: 'To', cell: (m) => m.recipient },
    {
      key: 'subject',
      head: 'Subject',
      wide: true,
      cell: (m) => (
        <Link href={`/outbox/${m.id}`} className="font-semibold hover:underline">
          {m.subject}
        </Link>
      ),
    },
    {
      key: 'result',
      head: 'Result',
      cell: (m) => (
        <Link href={`/outbox/${m.id}`}>
          <MessageTag state={m.state} />
        </Link>
      ),
    },
    { key: 'who', head: 'Sent by', wide: true, className: 'text-ink-2', cell: (m) => m.who },
  ];
  return (
    <LedgerTable label="Messages" rows={rows} columns={columns} keyOf={(m) => m.id} hrefOf={(m) => `/outbox/${m.id}`} />
  );
}
