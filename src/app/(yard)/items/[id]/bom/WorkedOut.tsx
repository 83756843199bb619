'use client';

import { useEffect, useState } from 'react';
import { GOT_BY_NAMES } from '@/core/boms/bom';
import { formatAmount, signOf } from '@/core/money/money';
import { formatQuantity, parseQuantity } from '@/core/quantity/quantity';
import { unitOf } from '@/core/quantity/units';
import { together } from '@/core/words';
import type { BomLineView, BranchBom, BranchView, Worked } from '@/queries/items/boms';
import { readBomLines, type BomLineText } from '@/ui/items/bomText';
import { ask, asJson } from '@/ui/acting/ask';
import { NumberField } from '@/ui/kit/NumberField';
import { Dash } from '@/ui/kit/Sheet';
import type { Column } from '@/ui/ledger/column';
import { LedgerTable } from '@/ui/ledger/LedgerTable';
import Link from '@/ui/kit/Link';
import { later } from '@/ui/acting/later';
import { useYard } from '@/ui/frame/YardContext';

const BranchSlip = later(() => import('./BranchSlip'));

const WAIT = 300;
const INDENT = 18;

type Row = BranchView & { readonly key: number };

type Props = {
  readonly item: { readonly id: number; readonly name: string };
  readonly lines: readonly BomLineText[];
  readonly fromDay: string;
};

/** What a batch takes and costs by the BOM as it is typed, over all levels. */
export function WorkedOut({ item, lines, fromDay }: Props) {
  const { currency, may } = useYard();
  const mayKeep = may('keep BOMs');
  const [many, setMany] = useState('1');
  const [worked, setWorked] = useState<Worked>();
  /** The branch that is changed, or below which one is put; and how often that was done. */
  const [open, setOpen] = useState<{ bom: BranchBom; text: BomLineView | undefined; of: Row }>();
  const [again, setAgain] = useState(0);
  const { faults, value } = readBomLines(lines);
  const read = parseQuantity(many);
  const asked =
    read.ok && faults.length === 0 && fromDay !== ''
      ? JSON.stringify({ fromDay, batch: read.value, lines: value })
      : undefined;
  useEffect(() => {
    if (asked === undefined) return undefined;
    const stop = new AbortController();
    const wait = setTimeout(() => {
      void ask<Worked>(`/items/${item.id}/bom/preview`, asJson(asked, stop.signal)).then(
        (found) => found !== undefined && setWorked(found),
      );
    }, WAIT);
    return () => {
      clearTimeout(wait);
      stop.abort();
    };
  }, [asked, item.id, again]);
  const rows = (worked?.branches ?? []).map((b, key): Row => ({ ...b, key }));
  const columns: Column<Row>[] = [
    {
      key: 'what',
      head: 'Item',
      cell: (b) => (
        <span style={{ paddingLeft: (b.level - 1) * INDENT }}>
          {b.itemId === null ? (
            b.description
          ) : (
            <Link
              href={b.gotBy === 'made' ? `/items/${b.itemId}/bom` : `/items/${b.itemId}`}
              className="font-semibold hover:underline"
            >
              {b.description}
            </Link>
          )}{' '}
          {b.number !== null && <span className="mono text-ink-2">{b.number}</span>}{' '}
          {b.partly && b.gotBy !== 'made' && <span className="tag tag-care">No price</span>}
        </span>
      ),
    },
    { key: 'got', head: 'Type', wide: true, className: 'text-ink-2', cell: (b) => GOT_BY_NAMES[b.gotBy] },
    {
      key: 'quantity',
      head: 'Quantity',
      num: true,
      cell: (b) => `${formatQuantity(b.quantity)} ${unitOf(b.unit).short}`.trim(),
    },
    {
      key: 'cost',
      head: `Cost ${signOf(currency)}`,
      num: true,
      cell: (b) =>
        b.cost === null ? (
          <Dash />
        ) : (
          <>
            {formatAmount(b.cost, currency)}
            {b.partly && ' +'}
          </>
        ),
    },
    ...(mayKeep
      ? [
          {
            key: 'change',
            head: '',
            cell: (b: Row) => (
              <span className="flex justify-end gap-3 text-[13px] whitespace-nowrap">
                {b.below !== null && (
                  <button
                    type="button"
                    className="step"
                    aria-label={`Add an item below ${b.description}`}
                    onClick={() => b.below !== null && setOpen({ bom: b.below, text: undefined, of: b })}
                  >
                    + Item
                  </button>
                )}
                {b.line !== null && (
                  <button
                    type="button"
                    className="step"
                    aria-label={`Edit ${b.description}`}
                    onClick={() => b.line !== null && setOpen({ bom: b.line, text: b.line.text, of: b })}
                  >
                    Edit
                  </button>
                )}
              </span>
            ),
          },
        ]
      : []),
  ];
  const whole = worked?.whole;
  return (
    <section aria-labelledby="worked-out" className="mt-6">
      <div className="mb-2 flex flex-wrap items-center gap-3">
        <h2 id="worked-out" className="text-[17px]">
          Costed breakdown for
        </h2>
        <NumberField
          label="Quantity to make"
          hideLabel
          className="w-[90px]"
          value={many}
          onChange={(e) => setMany(e.target.value)}
          fault={read.ok ? worked?.fault : read.refusals[0]?.message}
        />
        {whole?.cost != null && (
          <span className="ml-auto" aria-live="polite">
            <b>
              {signOf(currency)}&#8239;{formatAmount(whole.cost, currency)}
            </b>{' '}
            {whole.partly && <span className="tag tag-care">plus items with no price</span>}
          </span>
        )}
      </div>
      {rows.length > 0 && (
        <LedgerTable
          label="Costed breakdown"
          rows={rows}
          columns={columns}
          keyOf={(b) => b.key}
          onOpen={mayKeep ? (b) => b.line !== null && setOpen({ bom: b.line, text: b.line.text, of: b }) : undefined}
        />
      )}
      {open !== undefined && (
        <BranchSlip
          key={`${open.bom.bomId} ${open.text?.id}`}
          bom={open.bom}
          line={open.text}
          title={open.text === undefined ? `Component of ${open.of.description}` : open.of.description}
          onDone={() => setAgain((n) => n + 1)}
          onClose={() => setOpen(undefined)}
        />
      )}
      {worked !== undefined && worked.made.length > 0 && (
        <p className="mt-2 text-ink-2">
          Made first, in this order:{' '}
          {together(
            worked.made.map((m) =>
              `${formatQuantity(m.quantity)} ${unitOf(m.unit).short} ${m.description}`.replace('  ', ' '),
            ),
          )}
          .
        </p>
      )}
    </section>
  );
}
