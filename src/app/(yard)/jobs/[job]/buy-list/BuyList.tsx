'use client';

import Link from '@/ui/kit/Link';
import { useState } from 'react';
import { formatPrice, signOf } from '@/core/money/money';
import { formatQuantity } from '@/core/quantity/quantity';
import { unitOf } from '@/core/quantity/units';
import { FULFILMENTS } from '@/core/needs/fulfilment';
import type { JobHead } from '@/queries/jobs/job';
import type { BuyListLine, BuyListPage } from '@/queries/buying/buyList';
import { counted, grouped } from '@/core/words';
import { useKey } from '@/ui/frame/keys';
import type { Column } from '@/ui/ledger/column';
import { LedgerTable } from '@/ui/ledger/LedgerTable';
import { Fact, Shelf, ShelfPlain } from '@/ui/kit/Shelf';
import { Dash, Empty, Further } from '@/ui/kit/Sheet';
import { TakeOut } from '@/ui/kit/TakeOut';
import { FulfilmentMark } from '@/ui/buying/FulfilmentMark';
import { Tags } from '@/ui/kit/Tags';
import { later } from '@/ui/acting/later';
import { useYard } from '@/ui/frame/YardContext';
import { awaitedOn, moreTag, Way } from '../plan/planColumns';
import { BuySheet, useBuySheet } from './BuySheet';

const NeedSlip = later(() => import('../../../_shared/buying/NeedSlip'));
const AddNeed = later(() => import('./AddNeed'));

type Props = {
  readonly list: BuyListPage;
  readonly job: { id: number; number: string; live: boolean };
  readonly quote: JobHead['quote'];
  /** The line that was looked for, which is open. */
  readonly shown?: number | undefined;
};

export function BuyList({ list, job, quote, shown }: Props) {
  const { rows } = list;
  const { currency, day, may } = useYard();
  const [open, setOpen] = useState(rows.find((n) => n.id === shown));
  const [adding, setAdding] = useState(false);
  const mayAdd = may('change buy lists') && job.live;
  const sheet = useBuySheet(list, job);
  const [asked, setFilling] = useState(false);
  // What was typed before and not saved is shown where it was typed.
  const filling = mayAdd && (asked || sheet.count > 0);
  useKey('N', 'Add line', () => setAdding(true), mayAdd && !filling);
  useKey('F', 'Edit the list as a sheet', () => setFilling(true), mayAdd && !filling);
  const measured = (n: BuyListLine, q: BuyListLine['quantity']) =>
    `${formatQuantity(q)} ${unitOf(n.unit).short}`.trim();
  const columns: Column<BuyListLine>[] = [
    {
      key: 'what',
      head: 'Item',
      by: (n) => n.description,
      cell: (n) => (
        <>
          <button type="button" className="text-left font-semibold hover:underline" onClick={() => setOpen(n)}>
            {n.description}
          </button>{' '}
          {n.number !== null && <span className="mono whitespace-nowrap text-ink-2">{n.number}</span>}{' '}
          <Tags tags={[...n.tags, ...(n.more === 0 ? [] : [moreTag(n.more, currency)])]} />
          <span className="mt-0.5 block phone:hidden">
            <FulfilmentMark standing={n.standing} on={awaitedOn(n, day)} />
          </span>
        </>
      ),
    },
    {
      key: 'code',
      head: 'Cost code',
      by: (n) => n.code,
      cell: (n) => (
        <span className="block max-w-[100px] truncate" title={n.codeName}>
          {n.code} <span className="text-ink-2">{n.codeName}</span>
        </span>
      ),
      wide: true,
    },
    {
      key: 'supplier',
      head: 'Supplier',
      by: (n) => n.supplier ?? '',
      cell: (n) =>
        n.supplier === null ? (
          <Dash />
        ) : (
          <span className="block max-w-[104px] truncate" title={n.supplier}>
            {n.supplier}
          </span>
        ),
      wide: true,
    },
    {
      key: 'needed',
      head: 'Needed by',
      by: (n) => n.neededOn ?? '9999',
      cell: (n) => (
        <span className={`whitespace-nowrap ${n.late ? 'font-bold text-brick' : ''}`}>{day(n.neededOn)}</span>
      ),
    },
    { key: 'quantity', head: 'Quantity', num: true, by: (n) => n.quantity, cell: (n) => measured(n, n.quantity) },
    {
      key: 'open',
      head: 'To buy',
      num: true,
      by: (n) => n.open,
      cell: (n) => (n.open === 0 ? <Dash /> : <b>{measured(n, n.open)}</b>),
    },
    {
      key: 'standing',
      head: 'Status',
      by: (n) => FULFILMENTS.indexOf(n.standing),
      cell: (n) => <FulfilmentMark standing={n.standing} on={awaitedOn(n, day)} />,
      wide: true,
    },
    { key: 'way', head: 'Progress', cell: (n) => <Way need={n} />, className: 'w-[64px]', wide: true },
    ...(may('see money')
      ? [
          {
            key: 'price',
            head: `Price ${signOf(currency)}`,
            num: true,
            by: (n: BuyListLine) => n.price ?? 0,
            cell: (n: BuyListLine) => (n.price === null ? <Dash /> : formatPrice(n.price, currency)),
            wide: true,
          },
        ]
      : []),
  ];
  if (rows.length === 0 && !mayAdd)
    return (
      <Empty title="The buy list is empty">
        Bought lines appear here when{' '}
        {quote ? (
          <Link className="step" href={`/jobs/${job.number}/quote`}>
            quote {quote.number}
          </Link>
        ) : (
          'the quote'
        )}{' '}
        is won.
      </Empty>
    );
  const further = (
    <Further
      to={`/jobs/${job.number}/buy-list`}
      before={list.before}
      shown={rows.length}
      of={list.lines}
      after={rows.at(-1)?.id}
    />
  );
  if (filling)
    return (
      <div className="mt-3">
        <BuySheet sheet={sheet} before={list.before} onClose={() => setFilling(false)} />
        {further}
      </div>
    );
  return (
    <div className="mt-3">
      {rows.length === 0 ? (
        <Empty title="The buy list is empty">
          Press <span className="kbd">N</span> to add a line, or <span className="kbd">F</span> to enter or paste
          several at once.
        </Empty>
      ) : (
        <LedgerTable label="Buy list" rows={rows} columns={columns} keyOf={(n) => n.id} onOpen={setOpen} />
      )}
      {rows.length > 0 && (
        <p className="mt-2">
          <TakeOut list="buy-list" of={{ job: job.number }} />
        </p>
      )}
      {further}
      <Shelf
        facts={
          <>
            <Fact strong>
              {list.open === 0 ? 'Everything bought' : `${grouped(list.open)} of ${counted(list.lines, 'line')} to buy`}
            </Fact>
          </>
        }
      >
        {mayAdd && (
          <ShelfPlain onClick={() => setFilling(true)} hint="F">
            Edit as sheet
          </ShelfPlain>
        )}
        {mayAdd && (
          <ShelfPlain onClick={() => setAdding(true)} hint="N">
            Add line
          </ShelfPlain>
        )}
        {may('keep stores') && job.live && rows.some((n) => n.inStores > 0 || n.received > 0) && (
          <Link href={`/stores/pick/${job.number}`} className="btn btn-shelf">
            Select
          </Link>
        )}
        {list.open > 0 && may('draft orders') && (
          <Link href={`/gather?job=${job.number}`} className="btn btn-main h-[38px]">
            Gather for {job.number}
          </Link>
        )}
      </Shelf>
      {open && <NeedSlip key={open.id} need={open} onClose={() => setOpen(undefined)} />}
      {adding && <AddNeed jobId={job.id} onClose={() => setAdding(false)} />}
    </div>
  );
}
