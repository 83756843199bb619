'use client';

import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { toast } from 'sonner';
import { formatAmount, formatMoney, minor } from '@/core/money/money';
import type { RowToSign } from '@/queries/signoff/toSign';
import Link from '@/ui/kit/Link';
import { Fact, Shelf, ShelfMain } from '@/ui/kit/Shelf';
import { counted } from '@/core/words';
import { Dash } from '@/ui/kit/Sheet';
import { makeKey } from '@/ui/acting/useAct';
import { useMany } from '@/ui/acting/useMany';
import { acts } from '../../actions';
import type { Column, Key } from '@/ui/ledger/column';
import { LedgerTable } from '@/ui/ledger/LedgerTable';
import { useKey } from '@/ui/frame/keys';
import { useYard } from '@/ui/frame/YardContext';

/** What waits for this person's signature: looked at one after the other, or picked and signed together. */
export function ToSignTable({ rows, more }: { readonly rows: readonly RowToSign[]; readonly more: number }) {
  const router = useRouter();
  const [picked, setPicked] = useState<ReadonlySet<Key>>(new Set());
  const { doing, faults, run } = useMany<RowToSign>();
  const chosen = rows.filter((r) => picked.has(r.orderId));
  const sign = async () => {
    const left = await run(chosen, {
      act: ({ orderId, version, signOffId, seen = '' }) =>
        acts.signOff({ once: makeKey(), orderId, version, signOffId, seen, reason: '' }),
    });
    setPicked(new Set(left.map((r) => r.orderId)));
    const signed = chosen.length - left.length;
    if (signed > 0) toast.success(`${counted(signed, 'order')} signed`);
    router.refresh();
  };
  const { currency, day } = useYard();
  const first = rows[0];
  const begin = () => first !== undefined && router.push(`/sign/${first.number}`);
  const main = () => (chosen.length === 0 ? begin() : void sign());
  useKey('Ctrl+Enter', chosen.length === 0 ? 'Review the first' : 'Sign selected', main, doing === undefined);
  useKey('Escape', 'Clear selection', () => setPicked(new Set()), chosen.length > 0);
  const columns: Column<RowToSign>[] = [
    {
      key: 'order',
      head: 'Order',
      leads: true,
      className: '!font-semibold whitespace-nowrap',
      by: (r) => r.number,
      cell: (r) => (
        <>
          <Link href={`/sign/${r.number}`} className="mono hover:underline">
            {r.number}
            {r.revision > 0 && <span className="tag ml-2">revision {r.revision}</span>}
          </Link>
          <span className="block font-normal text-ink-2 phone:hidden">{r.supplier}</span>
        </>
      ),
    },
    { key: 'supplier', head: 'Supplier', wide: true, by: (r) => r.supplier, cell: (r) => r.supplier },
    {
      key: 'over',
      head: 'Over budget after',
      cell: (r) =>
        r.over.length === 0 ? <Dash /> : <span className="font-semibold text-brick">{r.over.join(', ')}</span>,
    },
    { key: 'why', head: 'Reason', wide: true, cell: (r) => r.why },
    {
      key: 'asked',
      head: 'Requested',
      wide: true,
      by: (r) => r.day,
      cell: (r) => (
        <>
          {day(r.day)} <span className="text-ink-2">by {r.askedBy}</span>
        </>
      ),
    },
    { key: 'note', head: 'Note', wide: true, cell: (r) => r.note },
    {
      key: 'value',
      head: `Value ${currency}`,
      num: true,
      by: (r) => r.value,
      cell: (r) => formatAmount(r.value, currency),
    },
  ];
  return (
    <>
      <LedgerTable
        label="To sign"
        rows={rows}
        columns={columns}
        keyOf={(r) => r.orderId}
        picks={{
          picked,
          onPick: setPicked,
          may: (r) => r.seen !== undefined,
          words: (r) => `Select ${r.number}`,
        }}
        onOpen={(r) => router.push(`/sign/${r.number}`)}
      />
      {more > 0 && <p className="mt-2 text-ink-2">{counted(more, 'order')} more when these are signed.</p>}
      <Shelf
        fault={faults.join(' · ') || undefined}
        facts={
          doing !== undefined ? (
            <Fact strong>
              Signing {doing.at} of {counted(doing.of, 'order')}
            </Fact>
          ) : chosen.length === 0 ? (
            <Fact strong>{counted(rows.length + more, 'order')} to sign</Fact>
          ) : (
            <>
              <Fact strong>{counted(chosen.length, 'order')} selected</Fact>
              <Fact>together {formatMoney(minor(chosen.reduce((sum, r) => sum + r.value, 0)), currency)}</Fact>
              {chosen.some((r) => r.over.length > 0) && <Fact warn>takes a budget over</Fact>}
            </>
          )
        }
      >
        <ShelfMain disabled={doing !== undefined} onClick={main} hint="Ctrl ↵">
          {chosen.length === 0 ? 'Review the first' : `Sign ${counted(chosen.length, 'order')}`}
        </ShelfMain>
      </Shelf>
    </>
  );
}
