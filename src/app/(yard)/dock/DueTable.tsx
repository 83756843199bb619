'use client';

import Link from '@/ui/kit/Link';
import type { DockShow, DueRow } from '@/queries/dock/dock';
import type { Column } from '@/ui/ledger/column';
import { LedgerTable } from '@/ui/ledger/LedgerTable';
import { useYard } from '@/ui/frame/YardContext';
import { StateTag } from '../orders/StateTag';

const HEADS: Partial<Record<DockShow, string>> = { inspect: 'Lines to inspect', back: 'Lines to return' };

export function DueTable({ rows, show }: { rows: readonly DueRow[]; show: DockShow | undefined }) {
  const { day, far, today } = useYard();
  const late = (o: DueRow) => o.comesOn !== null && o.comesOn < today && show !== 'inspect' && show !== 'back';
  const columns: Column<DueRow>[] = [
    {
      key: 'number',
      head: 'Order',
      by: (o) => o.number,
      cell: (o) => (
        <Link href={`/dock/${o.number}`} className="mono font-bold whitespace-nowrap">
          {o.number}
        </Link>
      ),
    },
    {
      key: 'supplier',
      head: 'Supplier',
      by: (o) => o.supplier,
      cell: (o) => (
        <>
          <span className="font-semibold">{o.supplier}</span>
          <span className="block text-[12.5px] text-ink-2 phone:hidden">
            {o.linesDue} of {o.lines} lines · {o.jobs?.replaceAll(',', ', ')}
          </span>
        </>
      ),
    },
    {
      key: 'jobs',
      head: 'Jobs',
      cell: (o) => <span className="mono">{o.jobs?.replaceAll(',', ' ') ?? '–'}</span>,
      wide: true,
    },
    {
      key: 'lines',
      head: (show && HEADS[show]) ?? 'Outstanding',
      num: true,
      by: (o) => o.linesDue,
      cell: (o) => `${o.linesDue} of ${o.lines} lines`,
      wide: true,
    },
    ...(show === 'straight'
      ? [
          {
            key: 'places',
            head: 'Deliver to',
            cell: (o: DueRow) => <span className="text-ink-2">{o.places?.replaceAll(',', ', ')}</span>,
            wide: true,
          },
        ]
      : []),
    {
      key: 'carrier',
      head: 'Carrier',
      by: (o) => o.carrier,
      cell: (o) => <span className="text-ink-2">{o.carrier}</span>,
      wide: true,
    },
    { key: 'state', head: 'Status', by: (o) => o.state, cell: (o) => <StateTag state={o.state} />, wide: true },
    {
      key: 'comes',
      head: 'Expected',
      by: (o) => o.comesOn ?? '9999',
      cell: (o) => (
        <span className={`whitespace-nowrap ${late(o) ? 'font-bold text-brick' : ''}`}>
          {day(o.comesOn)}
          {o.comesOn !== null && <span className="block text-[12px] font-normal">{far(o.comesOn)}</span>}
        </span>
      ),
    },
  ];
  return (
    <LedgerTable
      label="Deliveries to come"
      rows={rows}
      columns={columns}
      keyOf={(o) => o.id}
      hrefOf={(o) => `/dock/${o.number}`}
    />
  );
}
