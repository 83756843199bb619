'use client';

import { followsLines, isCharge } from '@/core/orders/kinds';
import { useCallback, useMemo, useState } from 'react';
import { toast } from 'sonner';
import {
  formatQuantity,
  fromSupplierUnit,
  NONE,
  parseQuantity,
  addQ,
  atLeastNone,
  subtractQ,
} from '@/core/quantity/quantity';
import { ungrouped } from '@/core/locale/locale';
import { formatPrice, signOf } from '@/core/money/money';
import { unitOf } from '@/core/quantity/units';
import { numbersOf } from '@/core/orders/numbering';
import type { OrderView } from '@/queries/orders/order';
import { EntrySheet } from '@/ui/entry/EntrySheet';
import type { EntryChange } from '@/ui/entry/sheet';
import { faultsIn, NOT_CHOSEN } from '@/ui/entry/reading';
import { moved, nextNew, put } from '@/ui/entry/rows';
import { newLine, partsOf, withQuantity, towardsOf, type LineText } from '@/ui/orders/orderLineText';
import { later } from '@/ui/acting/later';
import { useYard } from '@/ui/frame/YardContext';
import type { Making } from '../../_shared/items/InPassing';
import { LineDetail } from './LineDetail';
import { orderColumns, type OrderRow } from './orderColumns';
import type { useOrderDraft, OrderFormChoices } from './useOrderDraft';
import type { Worked } from './worked';

const InPassing = later(() => import('../../_shared/items/InPassing'));

type Props = {
  readonly view: OrderView;
  readonly form: OrderFormChoices;
  readonly draft: ReturnType<typeof useOrderDraft>;
  readonly sums: Worked | undefined;
  /** A line that was added beside the sheet, to be filled in next. */
  readonly begun: { readonly key: string; readonly col?: string } | undefined;
};

const keyOf = ({ line, part }: OrderRow) => (part === undefined ? line.key : `${line.key}/${part}`);
const sameRow = (one: OrderRow, other: OrderRow) =>
  one.line === other.line && one.n === other.n && one.part === other.part && one.net === other.net;

/** The lines of a draft, filled in where they stand. */
export function OrderSheet({ view, form, draft, sums, begun }: Props) {
  const { text, set, steps, faults, terms } = draft;
  const { currency } = view.order;
  const { companyCurrency, supplier } = view;
  const { day, today, may } = useYard();
  const [open, setOpen] = useState<ReadonlySet<string>>(new Set());
  const [making, setMaking] = useState<Making & { readonly key: string }>();
  const blankOf = useCallback(
    (lines: readonly LineText[], n: number) =>
      newLine('goods', supplier.taxCodeId, nextNew(lines) + n, towardsOf(lines, form.lastJob)),
    [supplier.taxCodeId, form.lastJob],
  );
  const rows = useMemo(
    () =>
      text.lines.flatMap((line, k): OrderRow[] => {
        const own = sums?.lines[k];
        const row = { line, n: k + 1, part: undefined, net: own?.net };
        const shared = line.splits.length > 1 || (isCharge(line) && line.splits.length > 0);
        const parts = shared && open.has(line.key) ? line.splits : [];
        return [row, ...parts.map((_, part) => ({ ...row, part, net: own?.splits[part]?.value }))];
      }),
    [text.lines, sums, open],
  );
  const onApply = useCallback(
    (changes: readonly EntryChange<OrderRow>[]) =>
      set((now) => ({ ...now, lines: changes.reduce((lines, c) => putRow(lines, c, blankOf), now.lines) })),
    [set, blankOf],
  );
  const onOpen = useCallback(
    ({ line }: OrderRow) =>
      setOpen((now) => new Set(now.has(line.key) ? [...now].filter((k) => k !== line.key) : [...now, line.key])),
    [],
  );
  const columns = useMemo(
    () =>
      orderColumns({
        currency,
        companyCurrency,
        terms,
        today,
        day,
        onOpen,
        make: may('keep suppliers')
          ? { words: 'New item', onMake: (row, typed) => setMaking({ kind: 'item', typed, key: keyOf(row) }) }
          : undefined,
      }),
    // eslint-disable-next-line react-hooks/exhaustive-deps -- days and rights are the same for the whole visit
    [currency, companyCurrency, terms, onOpen],
  );
  const numbers = numbersOf([...text.lines, {}], view.order);
  const numberOf = (n: number) => numbers[n - 1] ?? n;
  const addPart = ({ line }: OrderRow) => {
    if (followsLines(line)) return undefined;
    steps.step();
    setOpen((now) => new Set([...now, line.key]));
    set((now) => ({ ...now, lines: now.lines.map((l) => (l.key === line.key ? withNewPart(l) : l)) }));
    return { row: `${line.key}/${line.splits.length}`, col: 'job' };
  };
  const takeOff = ({ line, n, part }: OrderRow) => {
    steps.step();
    set((now) => ({
      ...now,
      lines:
        part === undefined
          ? now.lines.filter((l) => l.key !== line.key)
          : now.lines.map((l) => (l.key === line.key ? withoutPart(l, part) : l)),
    }));
    const name = part === undefined ? line.description || `Line ${numberOf(n)}` : `A split of ${line.description}`;
    toast(`${name}: line removed`, { action: { label: 'Undo', onClick: steps.undo } });
  };
  const faultsOf = ({ line, n, part }: OrderRow) => {
    const at = `lines.${n - 1}`;
    const own = part ?? (line.splits.length === 1 ? 0 : undefined);
    const found = {
      ...(part === undefined
        ? faultsIn(faults, at, {
            description: 'description',
            quantity: 'quantity',
            unit: 'unit',
            price: 'price',
            discount: 'price',
            spread: 'code',
            wantedOn: 'wantedOn',
            splits: 'job',
            chargeCodeId: 'code',
          })
        : {}),
      ...(own === undefined
        ? {}
        : faultsIn(faults, `${at}.splits.${own}`, { job: 'job', code: 'code', quantity: 'quantity', amount: 'price' })),
      // What is wrong in a part stands at its line while the parts are folded away.
      ...(part === undefined && line.splits.length > 1 && faults.some((f) => f.field?.startsWith(`${at}.splits.`))
        ? { job: 'Open the splits: something is missing.' }
        : {}),
    };
    return Object.keys(found).length === 0 ? undefined : found;
  };
  /** What the quote had for it, and the last prices paid, wherever. */
  const pastOf = (line: LineText): string[] => {
    const quoted = line.splits.flatMap((s) => view.quoted.get(s.needId ?? 0) ?? [])[0];
    const past = terms.get(line.itemId ?? 0)?.past ?? [];
    const per = (unit: string) => unitOf(unit).short || unitOf(unit).name;
    return [
      ...(quoted === undefined
        ? []
        : [
            `quoted ${signOf(companyCurrency)}\u202f${formatPrice(quoted.cost, companyCurrency)} / ${per(quoted.unit)}`,
          ]),
      ...past.map(
        (p) =>
          `last paid ${signOf(p.currency)}\u202f${formatPrice(p.price, p.currency)}${p.priceQuantity > 1 ? ` per ${p.priceQuantity}` : ''} / ${per(p.unit)} ${day(p.on)}, ${p.supplier} ${p.order}`,
      ),
    ];
  };
  const detail = (row: OrderRow) => {
    const { splits, kind } = row.line;
    const alone = splits.length === 0 || (splits.length === 1 && kind !== 'charge');
    const last = row.part === undefined ? alone : row.part === splits.length - 1;
    if (!last || !open.has(row.line.key)) return undefined;
    const at = `lines.${row.n - 1}`;
    return (
      <LineDetail
        line={row.line}
        taxes={form.taxes}
        currency={currency}
        faultAt={(field) => faults.find((f) => f.field === `${at}.${field}`)?.message}
        past={pastOf(row.line)}
        onPart={() => addPart(row)}
        onPut={(change) =>
          set((now) => ({ ...now, lines: now.lines.map((l) => (l.key === row.line.key ? { ...l, ...change } : l)) }))
        }
      />
    );
  };
  return (
    <>
      <EntrySheet
        label="Order lines"
        columns={columns}
        rows={rows}
        begin={begun}
        blank={(n) => ({ line: blankOf(text.lines, n), n: text.lines.length + 1 + n, part: undefined, net: undefined })}
        keyOf={keyOf}
        nameOf={({ n, part }) =>
          part === undefined ? `Line ${numberOf(n)}` : `Line ${numberOf(n)}, split ${part + 1}`
        }
        headOf={({ n, part }) => (part === undefined ? numberOf(n) : '')}
        levelOf={({ part }) => (part === undefined ? 1 : 2)}
        openOf={({ line, n, part }) => (part === undefined && n <= text.lines.length ? open.has(line.key) : undefined)}
        sameRow={sameRow}
        faultsOf={faultsOf}
        onApply={onApply}
        steps={steps}
        onOpen={onOpen}
        onTakeOff={takeOff}
        onMove={(key, to) => {
          steps.step();
          set((now) => ({ ...now, lines: moved(now.lines, key, to.split('/')[0] ?? '') }));
        }}
        onPart={addPart}
        detail={detail}
      />
      {making !== undefined && (
        <InPassing
          making={making}
          onClose={() => setMaking(undefined)}
          onItem={(item) =>
            onApply([
              {
                key: making.key,
                change: (row) => (columns[0]?.entry?.kind === 'pick' ? columns[0].entry.take(row, item) : row),
              },
            ])
          }
        />
      )}
    </>
  );
}

/** Lines with a change of a row put into one of them. */
function putRow(
  lines: readonly LineText[],
  { key, change }: EntryChange<OrderRow>,
  blankOf: (lines: readonly LineText[], n: number) => LineText,
): readonly LineText[] {
  const [lineKey = '', part] = key.split('/');
  const row = { n: 0, part: part === undefined ? undefined : Number(part), net: undefined };
  return put(
    lines,
    lineKey,
    (line) => change({ ...row, line }).line,
    () => blankOf(lines, 0),
  );
}

/** A line with a part more, which takes what is left to share. */
function withNewPart(line: LineText): LineText {
  const whole = parseQuantity(line.quantity);
  const shared = addQ(
    NONE,
    ...line.splits.map((s) => parseQuantity(s.quantity)).flatMap((q) => (q.ok ? [q.value] : [])),
  );
  const left = whole.ok ? atLeastNone(subtractQ(fromSupplierUnit(whole.value, partsOf(line).factor), shared)) : NONE;
  const quantity = left === NONE ? '' : ungrouped(formatQuantity(left));
  const code = line.splits.at(-1)?.code ?? NOT_CHOSEN;
  return { ...line, splits: [...line.splits, { job: NOT_CHOSEN, code, needId: null, quantity, amount: '' }] };
}

const withoutPart = (line: LineText, part: number): LineText =>
  withQuantity({ ...line, splits: line.splits.filter((_, k) => k !== part) }, line.quantity);
