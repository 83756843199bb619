'use client';

import { measured } from '@/core/quantity/units';
import type { OpenLine } from '@/queries/items/openLines';
import { useYard } from '@/ui/frame/YardContext';
import Link from '@/ui/kit/Link';
import { Dash } from '@/ui/kit/Sheet';
import type { Column } from '@/ui/ledger/column';
import { LedgerTable } from '@/ui/ledger/LedgerTable';

/** What is still to come from a supplier, line by line. */
export function OpenLinesTable({ lines }: { lines: readonly OpenLine[] }) {
  const { day, far } = useYard();
  const columns: Column<OpenLine>[] = [
    {
      key: 'order',
      head: 'Order',
      by: (l) => l.order,
      cell: (l) => (
        <Link href={`/orders/${l.order}`} className="mono font-bold whitespace-nowrap hover:underline">
          {l.order}
        </Link>
      ),
    },
    {
      key: 'item',
      head: 'Item',
      by: (l) => l.description,
      cell: (l) => (
        <>
          {l.description} {l.number !== null && <span className="mono text-[12.5px] text-ink-2">{l.number}</span>}
        </>
      ),
    },
    { key: 'left', head: 'To come', num: true, cell: (l) => measured(l.left, l.unit) },
    {
      key: 'came',
      head: 'Received',
      num: true,
      wide: true,
      cell: (l) => (l.came === 0 ? <Dash /> : measured(l.came, l.unit)),
    },
    {
      key: 'wanted',
      head: 'Required',
      wide: true,
      by: (l) => l.wantedOn ?? '9999',
      cell: (l) => (l.wantedOn === null ? <Dash /> : day(l.wantedOn)),
    },
    {
      key: 'promised',
      head: 'Promised',
      by: (l) => l.promisedOn ?? '9999',
      cell: (l) => (l.promisedOn === null ? <Dash /> : day(l.promisedOn)),
    },
    {
      key: 'late',
      head: 'Late',
      cell: (l) => {
        const due = l.promisedOn ?? l.wantedOn;
        return l.late && due !== null ? <b className="whitespace-nowrap text-brick">{far(due)}</b> : <Dash />;
      },
    },
    {
      key: 'chased',
      head: 'Chased',
      wide: true,
      by: (l) => l.chasedOn ?? '',
      cell: (l) => (l.chasedOn === null ? <Dash /> : day(l.chasedOn)),
    },
  ];
  return <LedgerTable label="Open lines" rows={lines} columns={columns} keyOf={(l) => l.lineId} />;
}
