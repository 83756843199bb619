'use client';

import { ungrouped } from '@/core/locale/locale';
import Link from '@/ui/Link';
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
  type UnitPrice,
} from '@/core/money/money';
import { totalsOf } from '@/core/money/tax';
import { formatQuantity, NONE, parseQuantity, type Quantity } from '@/core/quantity/quantity';
import type { InvoiceFormView, ToBill } from '@/queries/invoices';
import { useKey } from '@/ui/keys';
import { DateField } from '@/ui/kit/DateField';
import { ChoiceField, TextField } from '@/ui/kit/Field';
import { NumberField } from '@/ui/kit/NumberField';
import { Fact, Shelf, ShelfMain } from '@/ui/kit/Shelf';
import { Sums } from '@/ui/kit/Sums';
import { useAct, useOnce } from '@/ui/useAct';
import { useDraft } from '@/ui/useDraft';
import { useYard } from '@/ui/YardContext';
import { changeInvoice, enterInvoice } from '../../../acts';
import { ORDERS_JOBS, STORES, ExtraRows, newExtra, readExtras, type ExtraText } from './ExtraRows';
import type { Named } from '@/ui/entry/column';
import { BilledHead, BilledLead } from '../BilledLine';
import { counted } from '@/core/words';

type LineText = { readonly quantity: string; readonly price: string; readonly taxCodeId: string };
type Typed = {
  readonly number: string;
  readonly day: string;
  readonly total: string;
  readonly lines: Readonly<Record<number, LineText>>;
  readonly extras: readonly ExtraText[];
};

const plain = (q: Quantity) => (q === 0 ? '' : ungrouped(formatQuantity(q)));

/** A cost code by its id. */
const codeNamed = (codes: InvoiceFormView['codes'], id: number | null): Named | null => {
  const code = codes.find((c) => c.id === id);
  return code === undefined ? null : { id: code.id, number: code.code, name: code.name };
};

/** What the form starts from: what may be billed by now, or the bill that is changed. */
function freshFor({ order, lines, bill, jobs, codes }: InvoiceFormView, today: string): Typed {
  const { currency } = order;
  const priceText = (price: UnitPrice | null) => (price === null ? '' : ungrouped(formatPrice(price, currency)));
  const own = new Map((bill?.lines ?? []).map((l) => [l.lineId, l]));
  return {
    number: bill?.invoice.number ?? '',
    day: bill?.invoice.day ?? today,
    total: bill === undefined ? '' : ungrouped(formatAmount(bill.invoice.typedTotal, currency)),
    lines: Object.fromEntries(
      lines.map(({ line, expected }) => {
        const was = own.get(line.id);
        const quantity = bill === undefined ? expected : (was?.quantity ?? NONE);
        const text = { quantity: plain(quantity), price: priceText(was?.price ?? line.price) };
        return [line.id, { ...text, taxCodeId: String(was?.taxCodeId ?? line.taxCodeId) }];
      }),
    ),
    extras: (bill?.lines ?? [])
      .filter((l) => l.lineId === null)
      .map((l) => ({
        key: `line ${l.id}`,
        description: l.description,
        amount: ungrouped(formatAmount(l.net, currency)),
        taxCodeId: String(l.taxCodeId),
        to: l.spread === 1 ? ORDERS_JOBS : l.jobId === null ? STORES : (jobs.find((j) => j.id === l.jobId) ?? null),
        code: codeNamed(codes, l.costCodeId),
      })),
  };
}

/** A supplier's bill, typed beside what was ordered, received and is on other bills. */
export function InvoiceForm(view: InvoiceFormView) {
  const { order, supplier, lines, taxes, bill } = view;
  const { currency } = order;
  const router = useRouter();
  const { today } = useYard();
  const fresh = freshFor(view, today);
  const draft = useDraft(bill === undefined ? `bill for ${order.number}` : `bill ${bill.invoice.id}`, fresh);
  const typed: Typed = { ...fresh, ...draft.value, lines: { ...fresh.lines, ...draft.value.lines } };
  const [local, setLocal] = useState<Readonly<Record<string, string>>>({});
  const once = useOnce();
  const options = (said: string) => ({
    said: () => said,
    onDone: ({ id }: { id: number }) => {
      draft.drop();
      router.push(`/invoices/${id}`);
    },
  });
  const enter = useAct(enterInvoice, options('The invoice is entered'));
  const change = useAct(changeInvoice, options('The invoice is changed'));
  const { busy, refusals, faultAt, clash } = bill === undefined ? enter : change;
  const setLine = (id: number, change: Partial<LineText>) =>
    draft.set((now) => ({ ...now, lines: { ...now.lines, [id]: { ...(typed.lines[id] as LineText), ...change } } }));
  const read = readLines(typed, lines, currency);
  const beside = readExtras(typed.extras, currency);
  const totals = totalsOf(
    [
      ...read.billed.map((b) => ({ net: b.net, kind: b.kind, taxCodeId: b.taxCodeId })),
      ...beside.extras.map((e) => ({ net: e.net, kind: 'charge' as const, taxCodeId: e.taxCodeId })),
    ],
    taxes,
  );
  const total = typed.total.trim() === '' ? undefined : parseMoney(typed.total, currency);
  const submit = () => {
    const faults = { ...read.faults, ...beside.faults };
    if (typed.number.trim() === '') faults.number = 'Type the number that stands on the invoice.';
    if (total === undefined) faults.total = 'Type the total that stands on the invoice, tax included.';
    else if (!total.ok) faults.total = total.refusals[0]?.message ?? '';
    if (read.billed.length + beside.extras.length === 0) faults.lines = 'Say what is billed of at least one line.';
    setLocal(faults);
    if (Object.keys(faults).length > 0 || total === undefined || !total.ok) return;
    const input = {
      once: once.key(),
      number: typed.number,
      day: typed.day,
      typedTotal: total.value,
      lines: read.billed.map(({ lineId, quantity, price, taxCodeId }) => ({ lineId, quantity, price, taxCodeId })),
      extras: beside.extras,
    };
    if (bill === undefined) void enter.run({ orderId: order.id, ...input });
    else void change.run({ invoiceId: bill.invoice.id, version: bill.invoice.version, ...input });
  };
  useKey('Ctrl+Enter', bill === undefined ? 'Enter the invoice' : 'Save the invoice', submit, !busy);
  const general = refusals.find((r) => r.field === undefined || r.field === '')?.message ?? local.lines;
  const fault =
    clash?.message ??
    general ??
    (Object.keys(local).length + refusals.length > 0 ? 'Something above needs a look: it stands in red.' : undefined);
  const off = total?.ok ? subtract(total.value, totals.gross) : undefined;
  return (
    <>
      <h1 className="text-[25px] leading-tight">
        {bill === undefined ? 'Invoice' : `Change invoice ${bill.invoice.number}`} from {supplier}
      </h1>
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
        <DateField
          label="Dated"
          towards="back"
          value={typed.day}
          onDay={(day) => draft.set((now) => ({ ...now, day }))}
          fault={faultAt('day')}
        />
        <NumberField
          label={`Total on the paper, with tax, ${signOf(currency)}`}
          value={typed.total}
          onChange={(e) => draft.set((now) => ({ ...now, total: e.target.value }))}
          fault={local.total ?? faultAt('typedTotal')}
        />
      </div>
      <div className="relative mt-4 overflow-x-auto">
        <table className="ledger ledger-stack" aria-label="Billed lines">
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
            {lines.map(({ line, received, elsewhere }) => {
              const text = typed.lines[line.id] as LineText;
              const own = read.billed.find((b) => b.lineId === line.id);
              const [qFault, pFault] = [local[`${line.id}.quantity`], local[`${line.id}.price`]];
              return (
                <tr key={line.id}>
                  <BilledLead line={line} received={received} elsewhere={elsewhere} />
                  <td className="num" data-label="Order price">
                    {line.price === null ? '–' : formatPrice(line.price, currency)}
                  </td>
                  <td className="num" data-label="Billed now">
                    <NumberField
                      hideLabel
                      label={`Billed quantity of ${line.description}`}
                      inputClass="h-[28px]"
                      value={text.quantity}
                      placeholder="0"
                      onChange={(e) => setLine(line.id, { quantity: e.target.value })}
                      fault={qFault}
                    />
                  </td>
                  <td className="num" data-label="Price">
                    <NumberField
                      hideLabel
                      label={`Billed price of ${line.description}`}
                      inputClass="h-[28px]"
                      value={text.price}
                      onChange={(e) => setLine(line.id, { price: e.target.value })}
                      fault={pFault}
                    />
                  </td>
                  <td data-label="Tax">
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
                  <td className="num !font-semibold" data-label="Net">
                    {own === undefined ? '–' : formatAmount(own.net, currency)}
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
      </div>
      <ExtraRows
        view={view}
        extras={typed.extras}
        faultAt={(key) => local[key]}
        onChange={(extras) => draft.set((now) => ({ ...now, extras }))}
        onAdd={() =>
          draft.set((now) => ({
            ...now,
            extras: [
              ...(now.extras ?? []),
              newExtra(Date.now(), taxes[0]?.id ?? 0, codeNamed(view.codes, view.freightCodeId)),
            ],
          }))
        }
      />
      <Sums
        rows={[
          { label: 'Net', amount: formatAmount(totals.net, currency) },
          ...totals.taxes.map((t) => ({
            label: `${t.name} on ${formatAmount(t.base, currency)}`,
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
            <Fact strong>{counted(read.billed.length + beside.extras.length, 'line')} billed</Fact>
            <Fact strong>{formatMoney(totals.gross, currency)}</Fact>
            {off === 0 && <Fact>agrees with the paper</Fact>}
          </>
        }
      >
        <ShelfMain disabled={busy} onClick={submit} hint="^↵">
          {bill === undefined ? (busy ? 'Entering…' : 'Enter invoice') : busy ? 'Saving…' : 'Save invoice'}
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
