import { notFound } from 'next/navigation';
import { loadInvoice } from '@/queries/invoices';
import { Opened } from '@/ui/Opened';
import { place } from '../../../server/place';
import { InvoiceMatch } from './InvoiceMatch';

export const metadata = { title: 'Invoice' };

export default place(async ({ db, person, params }) => {
  const view = await loadInvoice(db, person, Number(params.id));
  if (view === undefined) notFound();
  return (
    <>
      <Opened kind="invoice" id={view.invoice.id} />
      <InvoiceMatch view={view} />
    </>
  );
});
