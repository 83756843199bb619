'use client';

import Link from '@/ui/kit/Link';
import { formatAmount, signOf, type Minor } from '@/core/money/money';
import { ORDER_STATE_NAMES } from '@/core/orders/states';
import type { OrderRow } from '@/queries/orders/orders';
import type { Column, Picks } from '@/ui/ledger/column';
import { LedgerTable } from '@/ui/ledger/LedgerTable';
import type { Listed } from '@/ui/ledger/Listed';
import { Dash } from '@/ui/kit/Sheet';
import { useYard } from '@/ui/frame/YardContext';
import { StateTag } from './StateTag';

type Row = OrderRow & { readonly share?: Minor | null };

type Props = {
  readonly rows: readonly Row[];
  readonly shares?: boolean;
  readonly picks?: Picks<Row> | undefined;
  readonly list?: Listed;
};

export function OrdersTable({ rows, shares = false, picks, list }: Props) {
  const { day, currency, may } = useYard();
  const late = (o: Row) => o.late;
  const href = (o: Row) => (may('see money') ? `/orders/${o.number}` : `/dock/${o.number}`);
  const columns: Column<Row>[] = [
    {
      key: 'number',
      head: 'Order',
      by: (o) => o.number,
      cell: (o) => (
        <Link href={href(o)} className="mono font-bold whitespace-nowrap">
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
            {ORDER_STATE_NAMES[o.state]}
            {o.wantedOn !== null && (
              <span className={`whitespace-nowrap ${late(o) ? 'font-bold text-brick' : ''}`}> · {day(o.wantedOn)}</span>
            )}
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
    { key: 'lines', head: 'Lines', num: true, by: (o) => o.lines, cell: (o) => o.lines, wide: true },
    {
      key: 'state',
      head: 'Status',
      by: (o) => o.state,
      cell: (o) => <StateTag state={o.state} mail={o.mail} />,
      wide: true,
    },
    {
      key: 'sent',
      head: 'Sent',
      by: (o) => o.sentOn ?? '',
      cell: (o) => <span className="whitespace-nowrap">{day(o.sentOn)}</span>,
      wide: true,
    },
    {
      key: 'wanted',
      head: 'Required by',
      by: (o) => o.wantedOn ?? '9999',
      cell: (o) => (
        <span className={`whitespace-nowrap ${late(o) ? 'font-bold text-brick' : ''}`}>
          {day(o.wantedOn)}
          {late(o) && <span className="sr-only">, late</span>}
        </span>
      ),
      wide: true,
    },
    {
      key: 'promised',
      head: 'Promised',
      by: (o) => o.promisedOn ?? '9999',
      cell: (o) => <span className="whitespace-nowrap">{day(o.promisedOn)}</span>,
      wide: true,
      extra: true,
    },
    {
      key: 'theirs',
      head: 'Supplier’s ref.',
      by: (o) => o.theirNumber,
      cell: (o) => (o.theirNumber === '' ? <Dash /> : <span className="mono">{o.theirNumber}</span>),
      wide: true,
      extra: true,
    },
    {
      key: 'net',
      head: 'Net',
      num: true,
      by: (o) => o.net ?? 0,
      cell: (o) => (o.net === null ? <Dash /> : `${signOf(o.currency)}\u202f${formatAmount(o.net, o.currency)}`),
    },
  ];
  const share: Column<Row> = {
    key: 'share',
    head: `This job ${signOf(currency)}`,
    num: true,
    by: (o) => o.share ?? 0,
    cell: (o) => (o.share == null ? <Dash /> : formatAmount(o.share, currency)),
  };
  const shown = may('see money') ? columns : columns.filter((c) => c.key !== 'net');
  return (
    <LedgerTable
      picks={picks}
      list={list}
      label="Orders"
      rows={rows}
      columns={shares ? [...shown, share] : shown}
      keyOf={(o) => o.id}
      hrefOf={href}
    />
  );
}
