'use client';

import { useRouter } from 'next/navigation';
import { formatAmount } from '@/core/money/money';
import type { ToSign } from '@/queries/toSign';
import Link from '@/ui/Link';
import { Fact, Shelf, ShelfMain } from '@/ui/kit/Shelf';
import { counted } from '@/core/words';
import type { Column } from '@/ui/ledger/column';
import { LedgerTable } from '@/ui/ledger/LedgerTable';
import { useKey } from '@/ui/keys';
import { useYard } from '@/ui/YardContext';

/** What waits for this person's signature; one is looked at after the other. */
export function ToSignTable({ rows }: { readonly rows: readonly ToSign[] }) {
  const router = useRouter();
  const { currency, day } = useYard();
  const first = rows[0];
  const begin = () => first !== undefined && router.push(`/sign/${first.number}`);
  useKey('Ctrl+Enter', 'Look at the first', begin);
  const columns: Column<ToSign>[] = [
    {
      key: 'order',
      head: 'Order',
      leads: true,
      className: 'mono !font-semibold whitespace-nowrap',
      by: (r) => r.number,
      cell: (r) => (
        <Link href={`/sign/${r.number}`} className="hover:underline">
          {r.number}
          {r.revision > 0 && <span className="tag ml-2">revision {r.revision}</span>}
        </Link>
      ),
    },
    { key: 'supplier', head: 'Supplier', by: (r) => r.supplier, cell: (r) => r.supplier },
    { key: 'why', head: 'Why', wide: true, cell: (r) => r.why },
    {
      key: 'asked',
      head: 'Asked',
      by: (r) => r.day,
      cell: (r) => (
        <>
          {day(r.day)} <span className="text-ink-2">by {r.askedBy}</span>
        </>
      ),
    },
    { key: 'note', head: 'They say', wide: true, cell: (r) => r.note },
    {
      key: 'value',
      head: `Comes to ${currency}`,
      num: true,
      by: (r) => r.value,
      cell: (r) => formatAmount(r.value, currency),
    },
  ];
  return (
    <>
      <LedgerTable
        label="For you to sign"
        rows={rows}
        columns={columns}
        keyOf={(r) => r.orderId}
        onOpen={(r) => router.push(`/sign/${r.number}`)}
      />
      <Shelf facts={<Fact strong>{counted(rows.length, 'order')} to sign</Fact>}>
        <ShelfMain onClick={begin} hint="^↵">
          Look at the first
        </ShelfMain>
      </Shelf>
    </>
  );
}
