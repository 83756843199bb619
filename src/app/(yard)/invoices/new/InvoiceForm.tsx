'use client';

import { ungrouped } from '@/core/locale/locale';
import Link from '@/ui/kit/Link';
import { useRouter } from 'next/navigation';
import {
  formatAmount,
  formatMoney,
  formatPrice,
  lineNet,
  parseMoney,
  signOf,
  subtract,
  type Minor,
} from '@/core/money/money';
import {
  invoicedForm,
  invoiceForm,
  extraForm,
  isNoExtra,
  isNotInvoiced,
  ORDERS_JOBS,
  STORES,
  type InvoiceRead,
  type InvoiceText,
} from '@/core/records/invoice';
import type { Named } from '@/core/records/typed';
import { totalsOf } from '@/core/money/tax';
import { formatQuantity, NONE } from '@/core/quantity/quantity';
import type { InvoiceFormView, ToInvoice } from '@/queries/invoices/invoices';
import { useKey } from '@/ui/frame/keys';
import { DateField } from '@/ui/kit/DateField';
import { ChoiceField, TextField } from '@/ui/kit/Field';
import { NumberField } from '@/ui/kit/NumberField';
import { Fact, Shelf, ShelfMain } from '@/ui/kit/Shelf';
import { Sums } from '@/ui/kit/Sums';
import type { Column } from '@/ui/ledger/column';
import { LedgerTable } from '@/ui/ledger/LedgerTable';
import { needsCorrecting } from '@/ui/kit/RecordForm';
import { useActForm } from '@/ui/acting/useActForm';
import { useYard } from '@/ui/frame/YardContext';
import { acts } from '../../../actions';
import { ExtraRows } from './ExtraRows';
import { invoicedColumns } from '../invoicedColumns';
import { counted } from '@/core/words';

/** A cost code by its id. */
const codeNamed = (codes: InvoiceFormView['codes'], id: number | null): Named | null => {
  const code = codes.find((c) => c.id === id);
  return code === undefined ? null : { id: code.id, number: code.code, name: code.name };
};

/** What the form starts from: what may be invoiced by now, or the invoice that is changed. */
function startOf({ order, lines, invoice, jobs, codes }: InvoiceFormView, today: string): InvoiceText {
  const { currency } = order;
  const own = new Map((invoice?.lines ?? []).map((l) => [l.lineId, l]));
  const amount = (net: Minor) => ungrouped(formatAmount(net, currency));
  return {
    number: invoice?.invoice.number ?? '',
    day: invoice?.invoice.day ?? today,
    typedTotal: invoice === undefined ? '' : amount(invoice.invoice.typedTotal),
    lines: lines.map(({ line, expected }) => {
      const was = own.get(line.id);
      const [quantity, price] = [invoice === undefined ? expected : (was?.quantity ?? NONE), was?.price ?? line.price];
      return {
        lineId: line.id,
        quantity: quantity === 0 ? '' : ungrouped(formatQuantity(quantity)),
        price: price === null ? '' : ungrouped(formatPrice(price, currency)),
        taxCodeId: String(was?.taxCodeId ?? line.taxCodeId),
      };
    }),
    extras: (invoice?.lines ?? [])
      .filter((l) => l.lineId === null)
      .map((l) => ({
        description: l.description,
        net: amount(l.net),
        taxCodeId: String(l.taxCodeId),
        to: l.spread === 1 ? ORDERS_JOBS : l.jobId === null ? STORES : (jobs.find((j) => j.id === l.jobId) ?? null),
        code: codeNamed(codes, l.costCodeId),
      })),
  };
}

/** What the lines come to that can be read by now: of each ordered line its net, and all of them. */
function worked({ lines, extras }: InvoiceText, ordered: readonly ToInvoice[], currency: string) {
  const [line, extra] = [invoicedForm(currency), extraForm(currency)];
  const invoiced = lines.flatMap((text) => {
    const own = ordered.find((o) => o.line.id === text.lineId)?.line;
    const read = isNotInvoiced(text) ? undefined : line.safeParse(text);
    if (own === undefined || read?.success !== true) return [];
    const { quantity, price, taxCodeId } = read.data;
    return [{ lineId: own.id, kind: own.kind, taxCodeId, net: lineNet(quantity, price, own.priceQuantity, currency) }];
  });
  const beside = extras.flatMap((text) => {
    const read = isNoExtra(text) ? undefined : extra.safeParse(text);
    return read?.success === true ? [{ ...read.data, kind: 'charge' as const }] : [];
  });
  return { invoiced, all: [...invoiced, ...beside] };
}

/** A supplier's invoice, typed beside what was ordered, received and is on other invoices. */
export function InvoiceForm(view: InvoiceFormView) {
  const { order, supplier, lines, taxes, invoice } = view;
  const { currency } = order;
  const router = useRouter();
  const { today } = useYard();
  const form = useActForm({
    read: () => invoiceForm(currency),
    start: startOf(view, today),
    keep: invoice === undefined ? `invoice for ${order.number}` : `invoice ${invoice.invoice.id}`,
    act: (read: InvoiceRead & { once: string }) =>
      invoice === undefined
        ? acts.enterInvoice({ orderId: order.id, ...read })
        : acts.changeInvoice({ invoiceId: invoice.invoice.id, version: invoice.invoice.version, ...read }),
    input: (read, once) => ({ once, ...read }),
    said: () => (invoice === undefined ? 'Invoice entered' : 'Invoice saved'),
    onDone: ({ id }) => router.push(`/invoices/${id}`),
  });
  const { typed, busy, clash } = form;
  const { invoiced, all } = worked(typed, lines, currency);
  const totals = totalsOf(all, taxes);
  const total = typed.typedTotal.trim() === '' ? undefined : parseMoney(typed.typedTotal, currency);
  useKey('Ctrl+Enter', invoice === undefined ? 'Enter invoice' : 'Save invoice', form.save, !busy);
  const fault =
    clash?.message ?? form.refusals[0]?.message ?? form.faultAt('lines') ?? needsCorrecting(form.firstFault);
  const off = total?.ok ? subtract(total.value, totals.gross) : undefined;
  const at = new Map(lines.map(({ line }, k) => [line.id, k]));
  const place = ({ line }: ToInvoice) => at.get(line.id) ?? 0;
  const columns: Column<ToInvoice>[] = [
    ...invoicedColumns<ToInvoice>(({ line, received, elsewhere }) => ({
      description: line.description,
      line,
      received,
      elsewhere,
    })),
    {
      key: 'orderPrice',
      head: 'Order price',
      num: true,
      cell: ({ line }) => (line.price === null ? '–' : formatPrice(line.price, currency)),
    },
    {
      key: 'invoiced',
      head: 'This invoice',
      num: true,
      className: 'w-[104px]',
      cell: (l) => (
        <NumberField
          hideLabel
          label={`Invoiced quantity of ${l.line.description}`}
          inputClass="h-[28px]"
          placeholder="0"
          {...form.text(`lines.${place(l)}.quantity`)}
        />
      ),
    },
    {
      key: 'price',
      head: 'Price',
      num: true,
      className: 'w-[104px]',
      cell: (l) => (
        <NumberField
          hideLabel
          label={`Invoiced price of ${l.line.description}`}
          inputClass="h-[28px]"
          {...form.text(`lines.${place(l)}.price`)}
        />
      ),
    },
    {
      key: 'tax',
      head: 'Tax',
      className: 'w-[150px]',
      cell: (l) => (
        <ChoiceField hideLabel label={`Tax on ${l.line.description}`} {...form.text(`lines.${place(l)}.taxCodeId`)}>
          {taxes.map((t) => (
            <option key={t.id} value={t.id}>
              {t.name}
            </option>
          ))}
        </ChoiceField>
      ),
    },
    {
      key: 'net',
      head: `Net ${signOf(currency)}`,
      num: true,
      className: '!font-semibold',
      cell: ({ line }) => {
        const own = invoiced.find((b) => b.lineId === line.id);
        return own === undefined ? '–' : formatAmount(own.net, currency);
      },
    },
  ];
  return (
    <>
      <h1 className="text-[25px] leading-tight">
        {invoice === undefined ? 'Invoice' : `Edit invoice ${invoice.invoice.number}`} from {supplier}
      </h1>
      <p className="text-ink-2">
        · order{' '}
        <Link href={`/orders/${order.number}`} className="mono font-bold text-ink hover:underline">
          {order.number}
        </Link>
        {order.sentOn && ', sent'} · {currency}
      </p>
      <div className="mt-3 grid max-w-[680px] gap-3 sm:grid-cols-3">
        <TextField label="Invoice number" autoFocus {...form.text('number')} />
        <DateField label="Invoice date" towards="back" {...form.day('day')} />
        <NumberField label={`Invoice total incl. tax, ${signOf(currency)}`} {...form.text('typedTotal')} />
      </div>
      <div className="mt-4">
        <LedgerTable label="Invoice lines" whole rows={lines} columns={columns} keyOf={(l) => l.line.id} />
      </div>
      <ExtraRows view={view} form={form} freight={codeNamed(view.codes, view.freightCodeId)} />
      <Sums
        rows={[
          { label: 'Net', amount: formatAmount(totals.net, currency) },
          ...totals.taxes.map((t) => ({
            label: `${t.name} on ${formatAmount(t.base, currency)}`,
            amount: formatAmount(t.tax, currency),
          })),
          { label: 'Lines plus tax', amount: formatMoney(totals.gross, currency), strong: true },
        ]}
      />
      {off !== undefined && off !== 0 && (
        <p className="px-2 text-right text-amber">
          Invoice total {formatMoney(off, currency)} {off > 0 ? 'more' : 'less'}.
        </p>
      )}
      <Shelf
        fault={fault}
        facts={
          <>
            <Fact strong>{counted(all.length, 'line')} invoiced</Fact>
            <Fact strong>{formatMoney(totals.gross, currency)}</Fact>
            {off === 0 && <Fact>Agrees with invoice total</Fact>}
          </>
        }
      >
        <ShelfMain disabled={busy} onClick={form.save} hint="Ctrl ↵">
          {invoice === undefined ? (busy ? 'Entering…' : 'Enter invoice') : busy ? 'Saving…' : 'Save invoice'}
        </ShelfMain>
      </Shelf>
    </>
  );
}
