import { notFound } from 'next/navigation';
import { WAITING } from '@/core/invoices/states';
import { nextInvoice } from '@/queries/orders/nextAct';
import { loadInvoice } from '@/queries/invoices/invoices';
import { Opened } from '@/ui/frame/Opened';
import { yardPage } from '../../../server/yardPage';
import { InvoiceMatch } from './InvoiceMatch';

export const metadata = { title: 'Invoice' };

export default yardPage(async ({ db, person, params }) => {
  const view = await loadInvoice(db, person, Number(params.id));
  if (view === undefined) notFound();
  const next = WAITING.includes(view.invoice.state) ? undefined : await nextInvoice(db, person, view.invoice.id);
  return (
    <>
      <Opened kind="invoice" id={view.invoice.id} />
      <InvoiceMatch view={view} next={next} />
    </>
  );
});
