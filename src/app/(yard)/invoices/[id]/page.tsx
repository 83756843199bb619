import { notFound } from 'next/navigation';
import { loadInvoice } from '@/queries/invoices';
import { place } from '../../../server/place';
import { InvoiceMatch } from './InvoiceMatch';

export const metadata = { title: 'Invoice' };

export default place(async ({ db, person, params }) => {
  const view = await loadInvoice(db, person, Number(params.id));
  if (view === undefined) notFound();
  return <InvoiceMatch view={view} />;
});
