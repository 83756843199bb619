'use client';

import { useState } from 'react';
import { ungrouped } from '@/core/locale/locale';
import { formatQuantity, least } from '@/core/quantity/quantity';
import { measured } from '@/core/quantity/units';
import { reserveForm } from '@/core/records/stock';
import { counted } from '@/core/words';
import type { ClaimView, StockView } from '@/queries/stores/stock';
import { ChoiceField, Faults } from '@/ui/kit/Field';
import { NumberField } from '@/ui/kit/NumberField';
import type { Column } from '@/ui/ledger/column';
import { LedgerTable } from '@/ui/ledger/LedgerTable';
import Link from '@/ui/kit/Link';
import { useAct, useOnce } from '@/ui/acting/useAct';
import { useActForm } from '@/ui/acting/useActForm';
import { useYard } from '@/ui/frame/YardContext';
import { acts } from '../../../actions';
import { IssueForSlip, labelled, StockSlip, type Common } from './StockSlips';

type Want = StockView['wants'][number];

/** For whom an item is put by, and who wants it still: shared by hand, or all of it by date. */
export function PutBy({ view }: { view: StockView }) {
  const { item, claims, wants, piles } = view;
  const { day, may } = useYard();
  const [issuing, setIssuing] = useState<ClaimView>();
  const [reserving, setReserving] = useState<Want>();
  const once = useOnce();
  const letting = useAct(acts.unreserve, { said: () => 'Unreserved: now available to others' });
  const sharing = useAct(acts.allocateByDate, {
    said: ({ lines }) => `Allocated by date to ${counted(lines, 'line')}`,
    onDone: once.renew,
  });
  const [keeps, reserves] = [may('keep stores'), may('reserve stock')];
  const there = piles.some((p) => p.quantity > 0);
  const refusals = [...letting.refusals, ...sharing.refusals];
  const job = (number: string) => (
    <Link
      href={`/jobs/${number}/buy-list`}
      className="mono font-bold hover:underline max-phone:inline-block max-phone:py-3.5"
    >
      {number}
    </Link>
  );
  const steps = <T,>(cell: (row: T) => React.ReactNode): Column<T>[] =>
    reserves
      ? [
          {
            key: 'steps',
            head: <span className="sr-only">Actions</span>,
            className: 'text-right',
            cell: (row) => <span className="steps justify-end">{cell(row)}</span>,
          },
        ]
      : [];
  const claimed: Column<ClaimView>[] = [
    { key: 'job', head: 'Job', cell: (c) => job(c.job) },
    { key: 'what', head: 'For', cell: (c) => c.description },
    {
      key: 'from',
      head: 'From',
      wide: true,
      cell: (c) =>
        c.place ?? (
          <Link href={`/orders/${c.order}`} className="mono hover:underline">
            {c.order}
          </Link>
        ),
    },
    { key: 'needed', head: 'Needed by', wide: true, className: 'whitespace-nowrap', cell: (c) => day(c.neededOn) },
    {
      key: 'firm',
      head: 'Source',
      wide: true,
      cell: (c) =>
        c.firm === 1 ? (
          <span className="tag tag-good">reserved</span>
        ) : (
          <span className="tag">expected from order</span>
        ),
    },
    { key: 'quantity', head: 'Quantity', num: true, cell: (c) => measured(c.quantity, item.unit) },
    ...steps<ClaimView>((c) => (
      <>
        <button
          type="button"
          className="step"
          disabled={letting.busy}
          onClick={() => void letting.run({ jobId: c.forJobId, needIds: [c.needId] })}
        >
          Unreserve
        </button>
        {keeps && c.placeId !== null && (
          <button type="button" className="step" onClick={() => setIssuing(c)}>
            Issue
          </button>
        )}
      </>
    )),
  ];
  const wanted: Column<Want>[] = [
    { key: 'job', head: 'Job', cell: (w) => job(w.job) },
    { key: 'what', head: 'For', cell: (w) => w.description },
    { key: 'needed', head: 'Needed by', className: 'whitespace-nowrap', cell: (w) => day(w.neededOn) },
    { key: 'open', head: 'Still needed', num: true, cell: (w) => measured(w.open, w.unit) },
    ...steps<Want>((w) => (
      <button type="button" className="step" disabled={!there} onClick={() => setReserving(w)}>
        Reserve
      </button>
    )),
  ];
  return (
    <>
      <div className="mt-6 flex flex-wrap items-baseline justify-between gap-3 max-phone:mb-3">
        <h2 className="text-[16px]">Reserved for jobs</h2>
        {reserves && there && claims.length + wants.length > 1 && (
          <button
            type="button"
            className="step"
            disabled={sharing.busy}
            onClick={() => void sharing.run({ once: once.key(), itemId: item.id })}
          >
            Allocate by date
          </button>
        )}
      </div>
      <Faults messages={refusals.map((r) => r.message)} />
      {claims.length === 0 ? (
        <p className="text-ink-2">Not reserved by any job.</p>
      ) : (
        <LedgerTable label="Reserved for jobs" rows={claims} columns={claimed} keyOf={(c) => c.id} />
      )}
      {wants.length > 0 && (
        <>
          <h2 className="mt-6 text-[16px]">Still needed by</h2>
          <LedgerTable label="Still needed by" rows={wants} columns={wanted} keyOf={(w) => w.needId} />
        </>
      )}
      {issuing && <IssueForSlip view={view} claim={issuing} onClose={() => setIssuing(undefined)} />}
      {reserving && <ReserveSlip view={view} want={reserving} onClose={() => setReserving(undefined)} />}
    </>
  );
}

/** Some of what lies in stores is put by for a line, by hand. */
function ReserveSlip({ view: { item, piles }, want, onClose }: Common & { want: Want }) {
  const own = piles.filter((p) => p.quantity > 0 && (p.jobId === null || p.job === want.job));
  const [first] = own;
  const most = first === undefined || want.unit !== item.unit ? want.open : least(want.open, first.quantity);
  const keyOf = (p: { readonly placeId: number; readonly jobId: number | null }) => `${p.placeId}/${p.jobId ?? ''}`;
  const form = useActForm({
    read: () => reserveForm,
    start: { quantity: ungrouped(formatQuantity(most)), placeId: first === undefined ? '' : keyOf(first) },
    act: acts.reserveSome,
    input: ({ quantity, placeId }, once) => {
      const pile = own.find((p) => keyOf(p) === placeId);
      return {
        ...{ once, needId: want.needId, itemId: item.id, quantity },
        ...{ placeId: pile?.placeId ?? 0, jobId: pile?.jobId ?? null },
      };
    },
    said: () => `Reserved for job ${want.job}`,
    onDone: onClose,
  });
  return (
    <StockSlip
      title={`Reserve ${item.name}`}
      detail={`for job ${want.job}, which still needs ${measured(want.open, want.unit)}`}
      go={`Reserve for ${want.job}`}
      form={form}
      onClose={onClose}
    >
      <ChoiceField label="From" {...form.text('placeId')}>
        {own.map((p) => (
          <option key={keyOf(p)} value={keyOf(p)}>
            {p.place}
            {p.job === null ? '' : `, job ${p.job} stock`}: {measured(p.quantity, item.unit)}
          </option>
        ))}
      </ChoiceField>
      <NumberField label={labelled('Quantity', item)} autoFocus required {...form.text('quantity')} />
    </StockSlip>
  );
}
