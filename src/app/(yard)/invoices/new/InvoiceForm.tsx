'use client';

import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import {
  formatAmount,
  formatMoney,
  formatPrice,
  lineNet,
  parseMoney,
  parsePrice,
  signOf,
  subtract,
} from '@/core/money/money';
import { totalsOf, type TaxCode } from '@/core/money/tax';
import { formatQuantity, parseQuantity, type Quantity } from '@/core/quantity/quantity';
import type { ToBill } from '@/queries/invoices';
import type { StoredOrder } from '@/store/orders';
import { useKey } from '@/ui/keys';
import { ChoiceField, TextField } from '@/ui/kit/Field';
import { Fact, Shelf, ShelfMain } from '@/ui/kit/Shelf';
import { Sums } from '@/ui/kit/Sums';
import { useAct, useOnce } from '@/ui/useAct';
import { useDraft } from '@/ui/useDraft';
import { useYard } from '@/ui/YardContext';
import { enterInvoice } from '../../../acts';
import { BilledHead, BilledLead } from '../BilledLine';
import { counted } from '@/core/words';

type Props = {
  readonly order: StoredOrder;
  readonly supplier: string;
  readonly lines: readonly ToBill[];
  readonly taxes: readonly TaxCode[];
};
type LineText = { readonly quantity: string; readonly price: string; readonly taxCodeId: string };
type Typed = {
  readonly number: string;
  readonly day: string;
  readonly total: string;
  readonly lines: Readonly<Record<number, LineText>>;
};

const plain = (q: Quantity) => (q === 0 ? '' : formatQuantity(q).replaceAll(',', ''));

/** A supplier's bill, typed beside what was ordered, received and billed before. */
export function InvoiceForm({ order, supplier, lines, taxes }: Props) {
  const { currency } = order;
  const router = useRouter();
  const { today } = useYard();
  const fresh: Typed = {
    number: '',
    day: today,
    total: '',
    lines: Object.fromEntries(
      lines.map(({ line, expected }) => [
        line.id,
        {
          quantity: plain(expected),
          price: line.price === null ? '' : formatPrice(line.price, currency).replaceAll(',', ''),
          taxCodeId: String(line.taxCodeId),
        },
      ]),
    ),
  };
  const draft = useDraft(`invoice ${order.number}`, fresh);
  const typed = { ...draft.value, lines: { ...fresh.lines, ...draft.value.lines } };
  const [local, setLocal] = useState<Readonly<Record<string, string>>>({});
  const once = useOnce();
  const { run, busy, refusals, faultAt } = useAct(enterInvoice, {
    said: () => 'The invoice is entered',
    onDone: ({ id }) => {
      draft.drop();
      router.push(`/invoices/${id}`);
    },
  });
  const setLine = (id: number, change: Partial<LineText>) =>
    draft.set((now) => ({ ...now, lines: { ...now.lines, [id]: { ...(typed.lines[id] as LineText), ...change } } }));
  const read = readLines(typed, lines, currency);
  const totals = totalsOf(
    read.billed.map((b) => ({ net: b.net, kind: b.kind, taxCodeId: b.taxCodeId })),
    taxes,
  );
  const total = typed.total.trim() === '' ? undefined : parseMoney(typed.total, currency);
  const submit = () => {
    const faults = { ...read.faults };
    if (typed.number.trim() === '') faults.number = 'Type the number that stands on the invoice.';
    if (total === undefined) faults.total = 'Type the total that stands on the invoice, tax included.';
    else if (!total.ok) faults.total = total.refusals[0]?.message ?? '';
    if (read.billed.length === 0) faults.lines = 'Say what is billed of at least one line.';
    setLocal(faults);
    if (Object.keys(faults).length > 0 || total === undefined || !total.ok) return;
    void run({
      once: once.key(),
      orderId: order.id,
      number: typed.number,
      day: typed.day,
      typedTotal: total.value,
      lines: read.billed.map(({ lineId, quantity, price, taxCodeId }) => ({ lineId, quantity, price, taxCodeId })),
    });
  };
  useKey('Ctrl+Enter', 'Enter the invoice', submit, !busy);
  const general = refusals.find((r) => r.field === undefined || r.field === '')?.message ?? local.lines;
  const fault =
    general ??
    (Object.keys(local).length + refusals.length > 0 ? 'Something above needs a look: it stands in red.' : undefined);
  const off = total?.ok ? subtract(total.value, totals.gross) : undefined;
  return (
    <>
      <h1 className="text-[25px] leading-tight">Invoice from {supplier}</h1>
      <p className="text-ink-2">
        against order{' '}
        <Link href={`/orders/${order.number}`} className="mono font-bold text-ink hover:underline">
          {order.number}
        </Link>
        {order.sentOn && ', sent'} · amounts in {currency}
      </p>
      <div className="mt-3 grid max-w-[680px] gap-3 sm:grid-cols-3">
        <TextField
          label="Invoice number"
          value={typed.number}
          autoFocus
          onChange={(e) => draft.set((now) => ({ ...now, number: e.target.value }))}
          fault={local.number ?? faultAt('number')}
        />
        <TextField
          label="Dated"
          type="date"
          value={typed.day}
          onChange={(e) => draft.set((now) => ({ ...now, day: e.target.value }))}
          fault={faultAt('day')}
        />
        <TextField
          label={`Total on the paper, with tax, ${signOf(currency)}`}
          inputMode="decimal"
          inputClass="text-right"
          value={typed.total}
          onChange={(e) => draft.set((now) => ({ ...now, total: e.target.value }))}
          fault={local.total ?? faultAt('typedTotal')}
        />
      </div>
      <div className="mt-4 overflow-x-auto">
        <table className="ledger" aria-label="Billed lines">
          <thead>
            <tr>
              <BilledHead />
              <th className="num">Order price</th>
              <th className="num w-[104px]">Billed now</th>
              <th className="num w-[104px]">Price</th>
              <th className="w-[150px]">Tax</th>
              <th className="num">Net {signOf(currency)}</th>
            </tr>
          </thead>
          <tbody>
            {lines.map(({ line, received, billedBefore }) => {
              const text = typed.lines[line.id] as LineText;
              const own = read.billed.find((b) => b.lineId === line.id);
              const [qFault, pFault] = [local[`${line.id}.quantity`], local[`${line.id}.price`]];
              return (
                <tr key={line.id}>
                  <BilledLead line={line} received={received} before={billedBefore} />
                  <td className="num">{line.price === null ? '–' : formatPrice(line.price, currency)}</td>
                  <td className="num">
                    <TextField
                      hideLabel
                      label={`Billed quantity of ${line.description}`}
                      inputMode="decimal"
                      inputClass="text-right h-[28px]"
                      value={text.quantity}
                      placeholder="0"
                      onChange={(e) => setLine(line.id, { quantity: e.target.value })}
                      fault={qFault}
                    />
                  </td>
                  <td className="num">
                    <TextField
                      hideLabel
                      label={`Billed price of ${line.description}`}
                      inputMode="decimal"
                      inputClass="text-right h-[28px]"
                      value={text.price}
                      onChange={(e) => setLine(line.id, { price: e.target.value })}
                      fault={pFault}
                    />
                  </td>
                  <td>
                    <ChoiceField
                      hideLabel
                      label={`Tax on ${line.description}`}
                      value={text.taxCodeId}
                      onChange={(e) => setLine(line.id, { taxCodeId: e.target.value })}
                    >
                      {taxes.map((t) => (
                        <option key={t.id} value={t.id}>
                          {t.name}
                        </option>
                      ))}
                    </ChoiceField>
                  </td>
                  <td className="num !font-semibold">{own === undefined ? '–' : formatAmount(own.net, currency)}</td>
                </tr>
              );
            })}
          </tbody>
        </table>
      </div>
      <Sums
        rows={[
          { label: 'Net', amount: formatAmount(totals.net, currency) },
          ...totals.taxes.map((t) => ({
            label: `${t.code.name} on ${formatAmount(t.base, currency)}`,
            amount: formatAmount(t.tax, currency),
          })),
          { label: 'These lines come to', amount: formatMoney(totals.gross, currency), strong: true },
        ]}
      />
      {off !== undefined && off !== 0 && (
        <p className="px-2 text-right text-amber">
          The paper says {formatMoney(off, currency)} {off > 0 ? 'more' : 'less'}.
        </p>
      )}
      <Shelf
        fault={fault}
        facts={
          <>
            <Fact strong>{counted(read.billed.length, 'line')} billed</Fact>
            <Fact strong>{formatMoney(totals.gross, currency)}</Fact>
            {off === 0 && <Fact>agrees with the paper</Fact>}
          </>
        }
      >
        <ShelfMain disabled={busy} onClick={submit} hint="^↵">
          {busy ? 'Entering…' : 'Enter invoice'}
        </ShelfMain>
      </Shelf>
    </>
  );
}

function readLines(typed: Typed, lines: readonly ToBill[], currency: string) {
  const faults: Record<string, string> = {};
  const billed = lines.flatMap(({ line }) => {
    const text = typed.lines[line.id];
    if (text === undefined || ['', '0'].includes(text.quantity.trim())) return [];
    const quantity = parseQuantity(text.quantity);
    const price = parsePrice(text.price);
    if (!quantity.ok) faults[`${line.id}.quantity`] = quantity.refusals[0]?.message ?? '';
    if (!price.ok) faults[`${line.id}.price`] = price.refusals[0]?.message ?? '';
    if (!quantity.ok || !price.ok) return [];
    return [
      {
        lineId: line.id,
        kind: line.kind,
        quantity: quantity.value,
        price: price.value,
        taxCodeId: Number(text.taxCodeId),
        net: lineNet(quantity.value, price.value, line.priceQuantity, currency),
      },
    ];
  });
  return { billed, faults };
}
